import { auditDe } from './audit.de';
import { jobsDe } from './jobs.de';
import { filesDe } from './files.de';
import { gridDe } from './grid.de';
import { houseDe } from './house.de';
import { peopleDe } from './people.de';
import { programsDe } from './programs.de';
import { workshopDe } from './workshop.de';

/** German texts of running the house, and making models. */
export const texts = {
  ...auditDe,
  ...jobsDe,
  ...filesDe,
  ...gridDe,
  ...houseDe,
  ...peopleDe,
  ...programsDe,
  ...workshopDe,
};
