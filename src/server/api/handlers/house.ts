import type { house } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import {
  changeCalendar,
  changeCompany,
  changeMarkets,
  changeNumbers,
  changeWorkshop,
  seeHouse,
} from '../../../services/settings/house';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const houseHandlers: Handlers<typeof house> = {
  'GET /house': async () => done(await seeHouse()),
  'PUT /house/company': ({ actor, input }) => changeCompany(actor, input),
  'PUT /house/calendar': ({ actor, input }) => changeCalendar(actor, input),
  'PUT /house/numbers': ({ actor, input }) => changeNumbers(actor, input),
  'PUT /house/markets': ({ actor, input }) => changeMarkets(actor, input),
  'PUT /house/workshop': ({ actor, input }) => changeWorkshop(actor, input),
};
