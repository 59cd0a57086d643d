import { newBuildInput } from '../../../core/quoting';
import { beginBuild } from '../../../services/builds';
import { changing } from '../_answer';

export const POST = changing(newBuildInput, beginBuild);
