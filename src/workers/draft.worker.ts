/** Tries a draft out beside the page: nothing that is typed waits for it. */
import { expose } from 'comlink';
import { DraftComputation } from './draft/computation';

expose(new DraftComputation());
