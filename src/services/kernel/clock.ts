import { addDays, format } from 'date-fns';
import { afterWorkingDays } from '../../core/production';

const day = 'yyyy-MM-dd';

/** The ISO date of a moment. */
export const dayOf = (moment: Date): string => format(moment, day);

/** Today as an ISO date. */
export const today = (): string => dayOf(new Date());

/** The day so many days from today; before it where negative. */
export const inDays = (days: number): string => dayOf(addDays(new Date(), days));

/** The date so many working days from today. */
export const inWorkingDays = (days: number): string => afterWorkingDays(today(), days);
