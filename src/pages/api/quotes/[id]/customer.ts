import { customerInput } from '../../../../core/quoting';
import { changeCustomer, seeCustomerChange } from '../../../../services/customer-change';
import { changingQuote, param, reading } from '../../_answer';

/** What another customer (`?to=`) would change. */
export const GET = reading((actor, context) =>
  seeCustomerChange(actor, param(context, 'id'), context.url.searchParams.get('to') ?? ''),
);
export const POST = changingQuote(customerInput, (actor, input, context) =>
  changeCustomer(actor, param(context, 'id'), input),
);
