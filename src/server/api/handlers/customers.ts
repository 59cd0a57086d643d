import type { customers } from '../../../contract/all';
import { findCustomers } from '../../../services/customers/customers';
import { done } from '../../../services/kernel/failure';
import { createCustomer, customerMeans } from '../../../services/customers/new-customer';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const customersHandlers: Handlers<typeof customers> = {
  'GET /customers': async ({ actor, query }) => done(await findCustomers(actor, query.find)),
  'POST /customers': ({ actor, input }) => createCustomer(actor, input),
  'GET /customers/means': async ({ actor }) => done(await customerMeans(actor)),
};
