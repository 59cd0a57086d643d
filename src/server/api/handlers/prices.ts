import type { prices } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import {
  applyOver,
  dropChange,
  editChange,
  makeChange,
  publishChange,
  seeChange,
  setRows,
  stepChange,
  withdrawChange,
} from '../../../services/prices/changes';
import { askForPriceImpact, priceImpactFile, seePriceImpact } from '../../../services/prices/impact';
import { entriesFile, seeEntries, seeEntry, seePrices } from '../../../services/prices/prices';
import { takeSheet } from '../../../services/prices/sheet-job';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const pricesHandlers: Handlers<typeof prices> = {
  'GET /prices/all': async () => done(await seePrices()),
  'GET /prices/lists/{list}': ({ at, query }) => seeEntries(at.list, query),
  'GET /prices/lists/{list}/as.{format}': ({ actor, at, query }) =>
    entriesFile(actor, at.list, at.format, query),
  'GET /prices/entry': ({ query }) => seeEntry(query),
  'POST /prices/changes': ({ actor, input }) => makeChange(actor, input),
  'GET /prices/changes/{id}': ({ at, query }) => seeChange(at.id, query),
  'PUT /prices/changes/{id}': ({ actor, at, input }) => editChange(actor, at.id, input),
  'DELETE /prices/changes/{id}': ({ actor, at, input }) => dropChange(actor, at.id, input.version),
  'PUT /prices/changes/{id}/rows': ({ actor, at, input }) => setRows(actor, at.id, input),
  'POST /prices/changes/{id}/formula': ({ actor, at, input }) => applyOver(actor, at.id, input),
  'POST /prices/changes/{id}/undo': ({ actor, at, input }) => stepChange(actor, at.id, input.version, 'undo'),
  'POST /prices/changes/{id}/redo': ({ actor, at, input }) => stepChange(actor, at.id, input.version, 'redo'),
  'POST /prices/changes/{id}/sheet': ({ actor, at, input }) => takeSheet(actor, at.id, input),
  'POST /prices/changes/{id}/impact': ({ actor, at, input }) =>
    askForPriceImpact(actor, at.id, input.version),
  'GET /prices/changes/{id}/impact': ({ at, query }) => seePriceImpact(at.id, query),
  'GET /prices/changes/{id}/impact/as.{format}': ({ actor, at, query }) =>
    priceImpactFile(actor, at.id, at.format, query),
  'POST /prices/changes/{id}/publish': ({ actor, at, input }) => publishChange(actor, at.id, input.version),
  'POST /prices/changes/{id}/withdraw': ({ actor, at, input }) => withdrawChange(actor, at.id, input.version),
};
