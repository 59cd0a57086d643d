import type { paper } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { keepPaper, pagesOf, quotation, seeGiven, seePaper } from '../../../services/paper/composing';
import {
  dropTemplate,
  dropText,
  keepTemplate,
  keepText,
  seePaperHouse,
} from '../../../services/paper/house-texts';
import { drawingsArchive, specification } from '../../../services/paper/specification';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const paperHandlers: Handlers<typeof paper> = {
  'GET /quotes/{id}/paper': ({ actor, at, query }) => seePaper(actor, at.id, query.revision),
  'PUT /quotes/{id}/paper': ({ actor, at, input }) => keepPaper(actor, at.id, input),
  'POST /quotes/{id}/paper/pages': ({ actor, at, query, input }) =>
    pagesOf(actor, at.id, input.composition, query.revision),
  'GET /quotes/{id}/paper/given': ({ actor, at, query }) => seeGiven(actor, at.id, query.revision),
  'GET /quotes/{id}/paper.{format}': ({ actor, at, query }) =>
    quotation(actor, at.id, at.format, query.revision),
  'GET /builds/{id}/specification.{format}': ({ actor, at }) => specification(actor, at.id, at.format),
  'GET /builds/{id}/drawings.zip': ({ actor, at }) => drawingsArchive(actor, at.id),
  'GET /paper': async ({ actor }) => done(await seePaperHouse(actor)),
  'PUT /paper/texts/{code}': ({ actor, at, input }) => keepText(actor, at.code, input),
  'DELETE /paper/texts/{code}': ({ actor, at, input }) => dropText(actor, at.code, input.version),
  'PUT /paper/templates/{code}': ({ actor, at, input }) => keepTemplate(actor, at.code, input),
  'DELETE /paper/templates/{code}': ({ actor, at, input }) => dropTemplate(actor, at.code, input.version),
};
