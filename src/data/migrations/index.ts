import { first } from './0001-first';
import { bench } from './0002-bench';
import { pricing } from './0003-pricing';
import { signOff } from './0004-sign-off';
import { revisions } from './0005-revisions';
import { inside } from './0006-inside';
import { ledger } from './0007-ledger';
import { stand } from './0008-stand';
import { finding } from './0009-finding';
import { measured } from './0010-measured';
import { asked } from './0011-asked';
import { buildsAlone } from './0012-builds-alone';
import { names } from './0013-names';
import { jobs } from './0014-jobs';
import { administrator } from './0015-administrator';
import { files } from './0016-files';
import { house } from './0017-house';
import { people } from './0018-people';
import { markets } from './0019-markets';
import { counting } from './0020-counting';
import { workshop } from './0021-workshop';
import { checked } from './0022-checked';
import { paper } from './0023-paper';
import { items } from './0024-items';
import { terms } from './0025-terms';
import { priceSteps } from './0026-price-steps';
import { freight } from './0027-freight';
import { sending } from './0028-sending';
import { colleagues } from './0029-colleagues';
import { schedules } from './0030-schedules';
import type { Migration } from './migration';

export type { Migration } from './migration';

/** All steps of the schema in their order. */
export const migrations: readonly Migration[] = [
  first,
  bench,
  pricing,
  signOff,
  revisions,
  inside,
  ledger,
  stand,
  finding,
  measured,
  asked,
  buildsAlone,
  names,
  jobs,
  administrator,
  files,
  house,
  people,
  markets,
  counting,
  workshop,
  checked,
  paper,
  items,
  terms,
  priceSteps,
  freight,
  sending,
  colleagues,
  schedules,
];
