import type { builds } from '../../../contract/all';
import { bestBuild, openBench } from '../../../services/builds/bench';
import { beginBuild } from '../../../services/builds/begin';
import { saveContent } from '../../../services/builds/save';
import { drawingFile } from '../../../services/builds/drawings';
import { moveBuild, seeMove } from '../../../services/builds/moves';
import { putOnQuote } from '../../../services/quotes/lines/quote-builds';
import { readForBuild } from '../../../services/builds/read-back';
import { addVariant, removeVariant, seeVariants } from '../../../services/builds/variants';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const buildsHandlers: Handlers<typeof builds> = {
  'POST /builds': ({ actor, input }) => beginBuild(actor, input),
  'GET /builds/{id}': ({ actor, at }) => openBench(actor, at.id),
  'PUT /builds/{id}': ({ actor, at, input }) => saveContent(actor, at.id, input),
  'DELETE /builds/{id}': ({ actor, at }) => removeVariant(actor, at.id),
  'POST /builds/{id}/best': ({ actor, at, input }) => bestBuild(actor, at.id, input),
  'POST /builds/{id}/read': ({ actor, at, input }) => readForBuild(actor, at.id, input),
  'GET /builds/{id}/move': ({ actor, at }) => seeMove(actor, at.id),
  'POST /builds/{id}/move': ({ actor, at, input }) => moveBuild(actor, at.id, input),
  'GET /builds/{id}/variants': ({ actor, at }) => seeVariants(actor, at.id),
  'POST /builds/{id}/variants': ({ actor, at, input }) => addVariant(actor, at.id, input),
  'POST /builds/{id}/line': ({ actor, at, input }) => putOnQuote(actor, at.id, input),
  'GET /builds/{id}/drawing.{format}': ({ actor, at, query }) =>
    drawingFile(actor, at.id, at.format, query.view, query.detail),
};
