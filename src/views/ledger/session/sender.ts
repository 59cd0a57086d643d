/** Sends edits of a quote one after another, and keeps each until the server has it. */
import type { QuoteChanges, QuoteView } from '../../../contract';
import type { Answer } from '../../api';
import type { Edit } from './edit';

/** Why what was changed is not stored yet. */
export type Trouble = 'away' | 'signedOut';

/** An answer as it comes: the whole quote, or what differs from the view that the page has. */
export type Raw = Answer<QuoteView | QuoteChanges>;

/** The world around a session: the network, and waiting. */
export interface Line {
  /** Sends an edit against a version, with headers. */
  send: (edit: Edit, version: number, headers: Record<string, string>) => Promise<Raw>;
  /** Reads the quote as it is now. */
  read: () => Promise<Answer<QuoteView>>;
  /** Waits until it is worth trying again. */
  pause: () => Promise<void>;
  /** A key by which an edit that is sent twice is made once. */
  newKey: () => string;
}

interface Around {
  line: Line;
  /** What an edit is sent against: the version that the page has, and the view that it has. */
  against: () => { version: number; stand: string };
  /** Takes up what the quote is by now. */
  refresh: () => Promise<void>;
  /** Takes up an answer, before the next edit is sent; gives the whole view, however little of it came. */
  take: (answer: Raw) => Promise<Answer<QuoteView>>;
  onTrouble: (trouble: Trouble | null) => void;
}

/** An edit that only meets the same person's other window is sent again so often. */
const mostAgain = 3;

/** Whether the server could not take it just now, rather than would not. */
function troubleIn(answer: Raw): Trouble | null {
  if (answer.ok) return null;
  if (answer.status === 401) return 'signedOut';
  return answer.status === 0 || answer.status >= 500 ? 'away' : null;
}

/** Values that are set say the same when they are sent again; the rest is not repeated unasked. */
const setsValues = ({ way }: Edit): boolean =>
  way.startsWith('PATCH ') || way === 'POST /quotes/{id}/lines' || way === 'POST /quotes/{id}/lines/several';

/** Sends edits in their order, each until it is taken or refused. */
export class Sender {
  private queue: Promise<unknown> = Promise.resolve();

  constructor(private readonly around: Around) {}

  /** Sends an edit after those before it, as often as is needed until it is taken or refused. */
  send(edit: Edit): Promise<Answer<QuoteView>> {
    const sent = this.queue.then(async () => this.around.take(await this.until(edit)));
    this.queue = sent;
    return sent;
  }

  private async until(edit: Edit): Promise<Raw> {
    const { line, against, refresh, onTrouble } = this.around;
    let [key, version, again] = [line.newKey(), against().version, 0];
    for (;;) {
      // What would be made twice comes with a key, so that it is made once however often it is sent.
      const keyed: Record<string, string> = edit.way.startsWith('PATCH ') ? {} : { 'idempotency-key': key };
      const answer = await line.send(edit, version, { 'quote-stand': against().stand, ...keyed });
      const trouble = troubleIn(answer);
      onTrouble(trouble);
      if (trouble) {
        await line.pause();
        continue;
      }
      if (answer.ok || answer.status !== 409) return answer;
      await refresh();
      const met = answer.failures.some(({ code }) => code === 'quote.staleOwn');
      if (again >= mostAgain || !setsValues(edit) || !met) return answer;
      [key, version, again] = [line.newKey(), against().version, again + 1];
    }
  }
}
