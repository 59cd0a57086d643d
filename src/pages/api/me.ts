import { languageInput } from '../../core/quoting';
import { setLanguage } from '../../services/people';
import { changing } from './_answer';

export const PATCH = changing(languageInput, (actor, { language }) => setLanguage(actor, language));
