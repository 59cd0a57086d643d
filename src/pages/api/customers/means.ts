import { done } from '../../../services/failure';
import { customerMeans } from '../../../services/new-customer';
import { reading } from '../_answer';

export const GET = reading(async (actor) => done(await customerMeans(actor)));
