/** Sends changes of a quote one after another, and keeps each until the server has it. */
import type { QuoteChanges, QuoteView } from '../../core/quoting';
import { ask, type Answer } from '../api';

type Method = 'POST' | 'PATCH' | 'DELETE';

/** Why what was changed is not stored yet. */
export type Trouble = 'away' | 'signedOut';

export interface Change {
  method: Method;
  /** Beneath the quote's own address. */
  path: string;
  body: object;
}

interface Surroundings {
  quote: string;
  /** What a change is sent against: the version that the page has, and the view that it has. */
  against: () => { version: number; stand: string };
  /** Takes up what the quote is by now. */
  refresh: () => Promise<void>;
  /** Takes up an answer, before the next change is sent; gives the whole view, however little of it came. */
  take: (answer: Raw) => Promise<Answer<QuoteView>>;
  onTrouble: (trouble: Trouble | null) => void;
}

type Raw = Answer<QuoteView | QuoteChanges>;

const retryMilliseconds = 3000;
/** A change that only meets the same person's other window is sent again so often. */
const mostAgain = 3;

/** Whether the server could not take it just now, rather than would not. */
const troubleIn = (answer: Raw): Trouble | null =>
  answer.ok
    ? null
    : answer.status === 401
      ? 'signedOut'
      : answer.status === 0 || answer.status >= 500
        ? 'away'
        : null;
/** Values that are set say the same when they are sent again; the rest is not repeated unasked. */
const setsValues = ({ method, path }: Change): boolean =>
  method === 'PATCH' || (method === 'POST' && /^\/lines(\/several)?$/.test(path));

/** A pause that ends sooner when the page comes back into sight or the network is there again. */
function pause(): Promise<void> {
  return new Promise((done) => {
    const end = () => {
      clearTimeout(timer);
      window.removeEventListener('online', end);
      window.removeEventListener('focus', end);
      done();
    };
    const timer = setTimeout(end, retryMilliseconds);
    window.addEventListener('online', end);
    window.addEventListener('focus', end);
  });
}

export class Sender {
  private queue: Promise<unknown> = Promise.resolve();

  constructor(private readonly around: Surroundings) {}

  /** Sends a change after those before it, as often as is needed until it is taken or refused. */
  send(change: Change): Promise<Answer<QuoteView>> {
    const sent = this.queue.then(async () => this.around.take(await this.until(change)));
    this.queue = sent;
    return sent;
  }

  private async until(change: Change): Promise<Raw> {
    const { quote, against, refresh, onTrouble } = this.around;
    let [key, version, again] = [crypto.randomUUID(), against().version, 0];
    for (;;) {
      // What would be made twice comes with a key, so that it is made once however often it is sent.
      const answer = await ask<QuoteView | QuoteChanges>(
        change.method,
        `/api/quotes/${quote}${change.path}`,
        { version, ...change.body },
        { 'quote-stand': against().stand, ...(change.method === 'PATCH' ? {} : { 'idempotency-key': key }) },
      );
      const trouble = troubleIn(answer);
      onTrouble(trouble);
      if (trouble) {
        await pause();
        continue;
      }
      if (answer.ok || answer.status !== 409) return answer;
      await refresh();
      if (
        again >= mostAgain ||
        !setsValues(change) ||
        !answer.failures.some(({ code }) => code === 'quote.staleOwn')
      )
        return answer;
      [key, version, again] = [crypto.randomUUID(), against().version, again + 1];
    }
  }
}
