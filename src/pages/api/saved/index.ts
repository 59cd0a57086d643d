import { saveBuildInput } from '../../../core/quoting';
import { listSaved, saveBuild } from '../../../services/saved-builds';
import { done } from '../../../services/failure';
import { changing, reading } from '../_answer';

export const GET = reading(async (actor) => done(await listSaved(actor)));
export const POST = changing(saveBuildInput, saveBuild);
