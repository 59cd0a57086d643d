import { addDays, format } from 'date-fns';
import { afterWorkingDays } from '../core/production';

const day = 'yyyy-MM-dd';

/** Today as an ISO date. */
export const today = (): string => format(new Date(), day);

export const inDays = (days: number): string => format(addDays(new Date(), days), day);

/** The date so many working days from today. */
export const inWorkingDays = (days: number): string => afterWorkingDays(today(), days);
