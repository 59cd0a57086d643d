import type { orders } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { listOrders } from '../../../services/orders/orders';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const ordersHandlers: Handlers<typeof orders> = {
  'GET /orders': async ({ actor, query }) => done(await listOrders(actor, query)),
};
