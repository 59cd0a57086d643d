import { addBusinessDays, addDays, format } from 'date-fns';

const day = 'yyyy-MM-dd';

/** Today as an ISO date. */
export const today = (): string => format(new Date(), day);

export const inDays = (days: number): string => format(addDays(new Date(), days), day);

/** The date so many working days (Monday to Friday) from today. */
export const inWorkingDays = (days: number): string => format(addBusinessDays(new Date(), days), day);
