import { auditEn } from './audit.en';
import { jobsEn } from './jobs.en';
import { houseEn } from './house.en';
import { peopleEn } from './people.en';
import { programsEn } from './programs.en';
import { workshopEn } from './workshop.en';

/** English texts of running the house, and making models. */
export const texts = {
  ...auditEn,
  ...jobsEn,
  ...houseEn,
  ...peopleEn,
  ...programsEn,
  ...workshopEn,
};
