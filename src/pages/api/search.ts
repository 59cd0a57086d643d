import { done } from '../../services/failure';
import { search } from '../../services/search';
import { reading } from './_answer';

export const GET = reading(async (actor, { url }) =>
  done(await search(actor, (url.searchParams.get('find') ?? '').slice(0, 100))),
);
