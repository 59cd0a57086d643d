import type { catalogue } from '../../../contract/all';
import { wordsOf } from '../../../core/finding';
import { done } from '../../../services/kernel/failure';
import { findItems } from '../../../services/desk/search';
import type { Handlers } from './handler';

const mostItems = 8;

/** What answers the endpoints of this room. */
export const catalogueHandlers: Handlers<typeof catalogue> = {
  'GET /items': async ({ actor, query: { find } }) =>
    done(wordsOf(find).length === 0 ? [] : await findItems(actor, find, mostItems)),
};
