import { newCustomerInput } from '../../../core/quoting';
import { findCustomers } from '../../../services/customers';
import { done } from '../../../services/failure';
import { createCustomer } from '../../../services/new-customer';
import { changing, reading } from '../_answer';

export const GET = reading(async (actor, { url }) =>
  done(await findCustomers(actor, (url.searchParams.get('find') ?? '').slice(0, 100))),
);
export const POST = changing(newCustomerInput, createCustomer);
