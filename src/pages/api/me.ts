import { personInput } from '../../core/quoting';
import { setPerson } from '../../services/people';
import { changing } from './_answer';

export const PATCH = changing(personInput, setPerson);
