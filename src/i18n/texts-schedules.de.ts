import { schedulesDe } from './schedules.de';

/** German texts of site schedules and of the shelf. */
export const texts = {
  ...schedulesDe,
};
