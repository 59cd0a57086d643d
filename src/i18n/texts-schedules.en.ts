import { schedulesEn } from './schedules.en';

/** English texts of site schedules and of the shelf. */
export const texts = {
  ...schedulesEn,
};
