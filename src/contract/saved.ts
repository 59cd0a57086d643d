/** Builds that somebody keeps under a name, to begin from again. */
import type { Texts } from '../core/model';
import { endpoint, json } from './endpoint';
import { exactly, flag, id, said, type Sent } from './schema';

const name = said(120, 'saved.noName');
/** A build and the name that it is kept under. */
export const saveBuildInput = exactly({ buildId: id, name, shared: flag.default(false) });
/** What passes `saveBuildInput`. */
export type SaveBuildInput = Sent<typeof saveBuildInput>;
/** What may change of a kept build; a star is the person's own. */
export const changeSavedInput = exactly({ name: name.optional(), shared: flag, starred: flag });
/** What passes `changeSavedInput`. */
export type ChangeSavedInput = Sent<typeof changeSavedInput>;

/** A build kept under a name. */
export interface SavedBuild {
  id: string;
  name: string;
  owner: string;
  mine: boolean;
  shared: boolean;
  starred: boolean;
  modelId: string;
  model: Texts;
  partNumber: string;
  savedAt: string;
}

/** A build that is kept now. */
export interface Kept {
  id: string;
}

/** Endpoints of kept builds. */
export const saved = {
  'GET /saved': endpoint({
    says: 'Builds that the person keeps, and those that colleagues share.',
    who: 'person',
    answers: json<SavedBuild[]>('SavedBuild[]'),
  }),
  'POST /saved': endpoint({
    says: 'Keeps a build under a name.',
    who: 'quotes',
    input: saveBuildInput,
    answers: json<Kept>('Kept'),
  }),
  'PATCH /saved/{id}': endpoint({
    says: 'Renames, shares or stars a kept build.',
    who: 'person',
    input: changeSavedInput,
    answers: json<null>('null'),
  }),
  'DELETE /saved/{id}': endpoint({
    says: 'Keeps a build no longer.',
    who: 'person',
    answers: json<null>('null'),
  }),
};
