/** What answers each endpoint: a line a piece, by room, from the contract to the service. */
import type { Contract } from '../../../contract/all';
import { accessHandlers } from './access';
import { auditHandlers } from './audit';
import { buildsHandlers } from './builds';
import { catalogueHandlers } from './catalogue';
import { colleaguesHandlers } from './colleagues';
import { customersHandlers } from './customers';
import { deskHandlers } from './desk';
import { filesHandlers } from './files';
import type { Handlers } from './handler';
import { houseHandlers } from './house';
import { itemsHandlers } from './items';
import { workshopHandlers } from './workshop';
import { jobsHandlers } from './jobs';
import { linesHandlers } from './lines';
import { ordersHandlers } from './orders';
import { outboxHandlers } from './outbox';
import { paperHandlers } from './paper';
import { peopleHandlers } from './people';
import { pricesHandlers } from './prices';
import { quotesHandlers } from './quotes';
import { savedHandlers } from './saved';
import { schedulesHandlers } from './schedules';
import { sharesHandlers } from './shares';
import { shelfHandlers } from './shelf';
import { signOffsHandlers } from './sign-offs';
import { systemHandlers } from './system';
import { termsHandlers } from './terms';

export type { Held } from './handler';

/** What answers each endpoint of the contract. */
export const handlers: Handlers<Contract> = {
  ...accessHandlers,
  ...deskHandlers,
  ...catalogueHandlers,
  ...itemsHandlers,
  ...customersHandlers,
  ...quotesHandlers,
  ...colleaguesHandlers,
  ...linesHandlers,
  ...signOffsHandlers,
  ...buildsHandlers,
  ...savedHandlers,
  ...ordersHandlers,
  ...paperHandlers,
  ...outboxHandlers,
  ...sharesHandlers,
  ...schedulesHandlers,
  ...shelfHandlers,
  ...filesHandlers,
  ...houseHandlers,
  ...workshopHandlers,
  ...peopleHandlers,
  ...pricesHandlers,
  ...jobsHandlers,
  ...auditHandlers,
  ...systemHandlers,
  ...termsHandlers,
};
