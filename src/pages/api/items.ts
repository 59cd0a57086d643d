import { done } from '../../services/failure';
import { findItems } from '../../services/search';
import { wordsOf } from '../../core/finding';
import { reading } from './_answer';

const most = 8;

export const GET = reading(async (_actor, { url }) => {
  const text = (url.searchParams.get('find') ?? '').slice(0, 100);
  return done(wordsOf(text).length === 0 ? [] : await findItems(text, most));
});
