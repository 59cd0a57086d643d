import { schedulesDe } from './schedules.de';

/** German texts of site schedules. */
export const texts = {
  ...schedulesDe,
};
