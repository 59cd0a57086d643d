/** The rooms of the application: a new one is told of here, and nowhere else. */
import { password } from '../access/room';
import { audit } from '../audit/room';
import { bench } from '../bench/room';
import { catalogue } from '../catalogue/room';
import { desk } from '../desk/room';
import { house } from '../house/room';
import { items } from '../items/room';
import { jobs } from '../jobs/room';
import { ledger } from '../ledger/room';
import { models } from '../workshop/room';
import { orders } from '../orders/room';
import { outbox, sending } from '../outbox/room';
import { composer, paper } from '../paper/room';
import { people } from '../people/room';
import { prices } from '../prices/room';
import { schedules } from '../schedules/room';
import { shelf } from '../shelf/room';
import { shared } from '../shared/room';
import { terms } from '../terms/room';
import { components, programs } from '../programs/room';
import type { Room } from './room';

/** All rooms; those in the bar stand in the order of their keys, at most six of a role. */
export const rooms: readonly Room[] = [
  desk,
  catalogue,
  ledger,
  orders,
  models,
  items,
  prices,
  terms,
  paper,
  house,
  people,
  outbox,
  schedules,
  shelf,
  jobs,
  audit,
  bench,
  composer,
  sending,
  shared,
  programs,
  components,
  password,
];
