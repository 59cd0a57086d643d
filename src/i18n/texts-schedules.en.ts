import { schedulesEn } from './schedules.en';

/** English texts of site schedules. */
export const texts = {
  ...schedulesEn,
};
