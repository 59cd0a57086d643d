import type { lines } from '../../../contract/all';
import { lastPrices } from '../../../services/quotes/lines/last-prices';
import { lineTable, readTable } from '../../../services/paper/line-table';
import {
  changeLine,
  changeLines,
  fillLines,
  placeLines,
  removeLines,
  renameGroup,
} from '../../../services/quotes/lines/lines';
import { addByNumber, addSeveral, copyLine } from '../../../services/quotes/lines/quote-builds';
import { readNumbers } from '../../../services/quotes/lines/numbers';
import { alternativeLines, takeInstead } from '../../../services/quotes/lines/alternatives';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const linesHandlers: Handlers<typeof lines> = {
  'POST /quotes/{id}/lines': ({ actor, at, input }) => addByNumber(actor, at.id, input),
  'PATCH /quotes/{id}/lines/{line}': ({ actor, at, input }) => changeLine(actor, at.id, at.line, input),
  'DELETE /quotes/{id}/lines/{line}': ({ actor, at, input: { version } }) =>
    removeLines(actor, at.id, { version, lines: [at.line] }),
  'POST /quotes/{id}/lines/{line}/copy': ({ actor, at, input }) => copyLine(actor, at.id, at.line, input),
  'POST /quotes/{id}/lines/{line}/instead': ({ actor, at, input }) =>
    takeInstead(actor, at.id, at.line, input),
  'GET /quotes/{id}/lines/{line}/last': ({ actor, at }) => lastPrices(actor, at.id, at.line),
  'POST /quotes/{id}/lines/several': ({ actor, at, input }) => addSeveral(actor, at.id, input),
  'PATCH /quotes/{id}/lines/several': ({ actor, at, input }) => changeLines(actor, at.id, input),
  'DELETE /quotes/{id}/lines/several': ({ actor, at, input }) => removeLines(actor, at.id, input),
  'PATCH /quotes/{id}/lines/values': ({ actor, at, input }) => fillLines(actor, at.id, input),
  'POST /quotes/{id}/lines/place': ({ actor, at, input }) => placeLines(actor, at.id, input),
  'POST /quotes/{id}/lines/alternatives': ({ actor, at, input }) => alternativeLines(actor, at.id, input),
  'PATCH /quotes/{id}/groups': ({ actor, at, input }) => renameGroup(actor, at.id, input),
  'POST /quotes/{id}/numbers': ({ actor, at, input }) => readNumbers(actor, at.id, input),
  'GET /quotes/{id}/lines.{format}': ({ actor, at, query }) =>
    lineTable(
      actor,
      at.id,
      at.format,
      query.internal === undefined ? 'customer' : 'internal',
      query.revision,
    ),
  'POST /read-table': ({ input }) => readTable(input),
};
