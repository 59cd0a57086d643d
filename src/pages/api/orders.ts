import { orderListInput } from '../../core/quoting';
import { listOrders } from '../../services/orders';
import { listing } from './_answer';

/** A page of orders (`?find=&page=`). */
export const GET = listing(orderListInput, listOrders);
