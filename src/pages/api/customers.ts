import { findCustomers } from '../../services/customers';
import { done } from '../../services/failure';
import { reading } from './_answer';

export const GET = reading(async (actor, { url }) => done(await findCustomers(actor, (url.searchParams.get('find') ?? '').slice(0, 100))));
