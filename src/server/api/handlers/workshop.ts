import type { workshop } from '../../../contract/all';
import { done, fail } from '../../../services/kernel/failure';
import { checkDraft } from '../../../services/workshop/check';
import { beginDraft } from '../../../services/workshop/begin-draft';
import {
  catchUp,
  documentOfVersion,
  draftDifferences,
  editDraft,
  putAside,
  redo,
  seeCatchUp,
  seeDraft,
  seeEdits,
  seeModels,
  undo,
} from '../../../services/workshop/drafts';
import { readFileRows } from '../../../services/paper/line-table';
import { draftFile, readTables } from '../../../services/workshop/draft-files';
import { draftEntries } from '../../../services/workshop/entries';
import { draftFacts } from '../../../services/workshop/item-facts';
import { askForImpact, seeImpact } from '../../../services/workshop/impact';
import { agreeTo, publishDraft, withdraw } from '../../../services/workshop/versions';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const workshopHandlers: Handlers<typeof workshop> = {
  'GET /models': async () => done(await seeModels()),
  'POST /drafts': ({ actor, input }) => beginDraft(actor, input),
  'GET /drafts/{id}': ({ actor, at }) => seeDraft(actor, at.id),
  'GET /drafts/{id}/edits': ({ at, query }) => seeEdits(at.id, query.page),
  'POST /drafts/{id}/edits': ({ actor, at, input }) => editDraft(actor, at.id, input),
  'POST /drafts/{id}/undo': ({ actor, at, input }) => undo(actor, at.id, input),
  'POST /drafts/{id}/redo': ({ actor, at, input }) => redo(actor, at.id, input),
  'POST /drafts/{id}/aside': ({ actor, at, input }) => putAside(actor, at.id, input),
  'POST /drafts/{id}/check': ({ actor, at, input }) => checkDraft(actor, at.id, input),
  'GET /drafts/{id}/differences': ({ at }) => draftDifferences(at.id),
  'GET /drafts/{id}/catch-up': ({ at }) => seeCatchUp(at.id),
  'POST /drafts/{id}/catch-up': ({ actor, at, input }) => catchUp(actor, at.id, input),
  'POST /drafts/{id}/impact': ({ actor, at, input }) => askForImpact(actor, at.id, input),
  'GET /drafts/{id}/impact': ({ at, query }) => seeImpact(at.id, query),
  'GET /drafts/{id}/entries': ({ at }) => draftEntries(at.id),
  'GET /drafts/{id}/facts': ({ at }) => draftFacts(at.id),
  'GET /drafts/{id}/as.{format}': ({ actor, at, query }) => draftFile(actor, at.id, at.format, query),
  'POST /read-rows': ({ input }) => readFileRows(input),
  'POST /read-tables': ({ input }) => readTables(input),
  'POST /drafts/{id}/agree': ({ actor, at, input }) => agreeTo(actor, at.id, input),
  'POST /drafts/{id}/publish': ({ actor, at, input }) => publishDraft(actor, at.id, input),
  'GET /versions/{id}': async ({ at }) => {
    const document = await documentOfVersion(at.id);
    return document ? done(document) : fail('missing', { code: 'version.missing' });
  },
  'POST /versions/{id}/withdraw': ({ actor, at, input }) => withdraw(actor, at.id, input),
};
