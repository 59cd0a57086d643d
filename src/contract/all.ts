/**
 * Every endpoint there is, by its room: the door for the dispatcher and for the tests. Pages know endpoints by
 * their types alone, since what they check would weigh on each.
 */
import { access } from './access';
import { audit } from './audit';
import { builds } from './builds';
import { catalogue } from './catalogue';
import { colleagues } from './colleagues';
import { customers } from './customers';
import { desk } from './desk';
import { files } from './files';
import { house } from './house';
import { items } from './items';
import { jobs } from './jobs';
import { lines } from './lines';
import { orders } from './orders';
import { outbox } from './outbox';
import { paper } from './paper';
import { people } from './people';
import { prices } from './prices';
import { quotes } from './quotes';
import { saved } from './saved';
import { schedules } from './schedules';
import { shares } from './shares';
import { shelf } from './shelf';
import { signOffs } from './sign-offs';
import { system } from './system';
import { terms } from './terms';
import { workshop } from './workshop';

export type { Endpoint } from './endpoint';
export { matcher } from './match';
export { fieldLines } from './fields';
export { answerSchema, openApi, rolesOf } from './openapi';
export {
  access,
  audit,
  builds,
  catalogue,
  colleagues,
  customers,
  desk,
  files,
  house,
  items,
  jobs,
  lines,
  orders,
  outbox,
  paper,
  people,
  prices,
  quotes,
  saved,
  schedules,
  shares,
  shelf,
  signOffs,
  system,
  terms,
  workshop,
};

/** Endpoints by their rooms. */
export const rooms = {
  access,
  desk,
  catalogue,
  items,
  prices,
  terms,
  customers,
  quotes,
  colleagues,
  lines,
  signOffs,
  builds,
  saved,
  orders,
  paper,
  outbox,
  shares,
  schedules,
  shelf,
  files,
  house,
  people,
  jobs,
  audit,
  workshop,
  system,
};

/** All of them by method and path. */
export type Contract = typeof access &
  typeof desk &
  typeof catalogue &
  typeof items &
  typeof prices &
  typeof terms &
  typeof customers &
  typeof quotes &
  typeof colleagues &
  typeof lines &
  typeof signOffs &
  typeof builds &
  typeof saved &
  typeof orders &
  typeof paper &
  typeof outbox &
  typeof shares &
  typeof schedules &
  typeof shelf &
  typeof files &
  typeof house &
  typeof people &
  typeof jobs &
  typeof audit &
  typeof workshop &
  typeof system;

/** All endpoints by method and path. */
export const contract: Contract = {
  ...access,
  ...desk,
  ...catalogue,
  ...items,
  ...prices,
  ...terms,
  ...customers,
  ...quotes,
  ...colleagues,
  ...lines,
  ...signOffs,
  ...builds,
  ...saved,
  ...orders,
  ...paper,
  ...outbox,
  ...shares,
  ...schedules,
  ...shelf,
  ...files,
  ...house,
  ...people,
  ...jobs,
  ...audit,
  ...workshop,
  ...system,
};
