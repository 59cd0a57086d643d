import { auditDe } from './audit.de';
import { jobsDe } from './jobs.de';
import { houseDe } from './house.de';
import { peopleDe } from './people.de';
import { programsDe } from './programs.de';
import { workshopDe } from './workshop.de';

/** German texts of running the house, and making models. */
export const texts = {
  ...auditDe,
  ...jobsDe,
  ...houseDe,
  ...peopleDe,
  ...programsDe,
  ...workshopDe,
};
