/** What can be done with the whole of a build: onto its quote, other variants, its number copied and pasted. */
import type { BenchView } from '../../contract';
import { say } from '../../ui';
import { putOnQuote } from '../parts/put-on-quote';
import { ask, sentences } from '../api';
import { useSpeech } from '../speech';
import type { Bench } from './session/useBench';
import type { Words } from './words';

interface Given {
  view: BenchView;
  bench: Bench;
  words: Words;
  frozen: boolean;
  /** Goes to another variant. */
  onOpen: (id: string) => Promise<void>;
}

/** The acts of a build; each says what came of it. */
export function useBuildActs({ view, bench, words, frozen, onOpen }: Given) {
  const { t } = useSpeech();
  const refuse = (failures: Parameters<typeof sentences>[0]) =>
    say(sentences(failures, t('request.failed')), true);
  const paste = usePaste({ view, bench, words });
  return {
    /** Back to the quote; onto it first, where it is not there yet. */
    onQuote: async () => {
      const { quote, line, build } = view;
      if (!quote) return;
      // What the server did not take must not go on as if it had.
      if (!(await bench.settled()) && !frozen) {
        say(t('bench.refusedBuild'), true);
        return;
      }
      if (line || frozen) {
        window.location.assign(`/quotes/${quote.id}`);
        return;
      }
      const answer = await putOnQuote(quote.id, build.id);
      if (answer.ok) window.location.assign(`/quotes/${quote.id}`);
      else refuse(answer.failures);
    },
    openVariant: async (id: string) => {
      await bench.settled();
      await onOpen(id);
    },
    addVariant: async (empty: boolean) => {
      await bench.settled();
      const answer = await ask('POST /builds/{id}/variants', {
        at: { id: view.build.id },
        input: { empty },
      });
      if (answer.ok) await onOpen(answer.value.id);
      else refuse(answer.failures);
    },
    copy: async () => {
      await navigator.clipboard.writeText(bench.picture.number.text);
      say(t('bench.copied'));
    },
    paste,
  };
}

/** Takes a pasted part number for the build at hand. */
function usePaste({ view, bench, words }: Pick<Given, 'view' | 'bench' | 'words'>) {
  const { t } = useSpeech();
  /** The page alone reads what its own scheme says. */
  const readHere = async (number: string) => {
    const read = await bench.read(number);
    if (read.is === 'build' && read.sequence === undefined) {
      await bench.take(read.decisions, []);
      say(t('bench.pasted', { number }));
    } else if (read.is === 'build') say(t('bench.away'), true);
    else if (read.is === 'forbidden') say(t('number.forbidden', { text: number }), true);
    else {
      const [rest, allowed] = [number.slice(read.at) || '…', read.allowed.slice(0, 8).join(', ')];
      say(t('number.unreadable', { text: number, rest, allowed }), true);
    }
  };
  return async (text: string) => {
    const number = text.trim();
    // The server knows what is registered, and the schemes of before.
    const answer = await ask('POST /builds/{id}/read', {
      at: { id: view.build.id },
      input: { number: number.slice(0, 200) },
    });
    if (!answer.ok) {
      if (answer.status === 0) await readHere(number);
      else say(sentences(answer.failures, t('number.unknown', { text: number })), true);
      return;
    }
    const { decisions, special, typed, scheme } = answer.value;
    await bench.take(decisions, view.may.special ? special : []);
    const rows = typed.map((row) => words.row(row)).join(', ');
    const sentence =
      scheme === undefined ? t('bench.pasted', { number }) : t('bench.pastedBy', { number, version: scheme });
    say(rows === '' ? sentence : `${sentence} ${t('bench.pastedTyped', { rows })}`);
  };
}
