import type { items } from '../../../contract/all';
import { dropFamily, keepFamily } from '../../../services/items/families';
import { askToKeepItems, changeItem, dropItem, keepItems } from '../../../services/items/items';
import { itemsFile } from '../../../services/items/items-file';
import { seeItem } from '../../../services/items/item-view';
import { seeItems } from '../../../services/items/kept';
import { done } from '../../../services/kernel/failure';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const itemsHandlers: Handlers<typeof items> = {
  'GET /catalogue/items': async () => done(await seeItems()),
  'GET /catalogue/items.{format}': ({ actor, at }) => itemsFile(actor, at.format),
  'PUT /catalogue/items': ({ actor, input }) => keepItems(actor, input),
  'POST /catalogue/items/job': ({ actor, input }) => askToKeepItems(actor, input),
  'GET /catalogue/items/{sku}': ({ at }) => seeItem(at.sku),
  'PUT /catalogue/items/{sku}': ({ actor, at, input }) => changeItem(actor, at.sku, input),
  'DELETE /catalogue/items/{sku}': ({ actor, at, input }) => dropItem(actor, at.sku, input.version),
  'PUT /catalogue/families/{code}': ({ actor, at, input }) => keepFamily(actor, at.code, input),
  'DELETE /catalogue/families/{code}': ({ actor, at, input }) => dropFamily(actor, at.code, input.version),
};
