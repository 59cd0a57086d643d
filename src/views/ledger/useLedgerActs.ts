/** All that can be done on the Ledger, each with what is said of it. */
import { useMemo } from 'react';
import type { LineValue, LineView, QuoteView } from '../../contract';
import { say, useLatest } from '../../ui';
import { putOnQuote } from '../parts/put-on-quote';
import { ask, sentences, type Answer } from '../api';
import { useSpeech } from '../speech';
import type { LineChange, QuoteActs } from './session/useQuote';
import type { SignOffActs } from './side/sign-off-acts';

/** Where a build begins: a number that leaves something to choose, or a model anew. */
export type BuildStart = { partNumber: string } | { modelId: string };

/** Says a refusal, where there is one. */
export const told = (refusal: string | null): void => {
  if (refusal !== null) say(refusal, true);
};

/** What one can do with the quote besides typing in its cells; the same functions all the time. */
export function useLedgerActs(quote: QuoteActs) {
  const { t } = useSpeech();
  const latest = useLatest(quote);
  return useMemo(() => {
    const refused = (answer: Answer<QuoteView>): string | null =>
      answer.ok ? null : sentences(answer.failures, t('request.failed'));
    const change: QuoteActs['change'] = (...given) => latest.current.change(...given);
    const signing: SignOffActs = {
      onAsk: async (reason) => refused(await change('POST /quotes/{id}/sign-offs', { input: { reason } })),
      onAnswer: async (id, body) =>
        refused(await change('PATCH /quotes/{id}/sign-offs/{signOff}', { at: { signOff: id }, input: body })),
      onTake: async (id) =>
        refused(
          await change('POST /quotes/{id}/sign-offs/{signOff}/take', { at: { signOff: id }, input: {} }),
        ),
    };
    return {
      refused,
      signing,
      remove: async (lines: readonly LineView[]) => {
        const answer = await change('DELETE /quotes/{id}/lines/several', {
          input: { lines: lines.map((line) => line.id) },
        });
        if (answer.ok) say(t('ledger.removedBack'));
        else told(refused(answer));
      },
      /** Fills lines from one on downwards; says what could not be read, and what went past the end. */
      fill: async (from: LineView, changes: readonly LineChange[]) => {
        const { view, fillLines } = latest.current;
        const start = view.lines.findIndex((line) => line.id === from.id);
        const rows = changes.flatMap((each, index) => filled(view.lines[start + index], each));
        const beyond = changes.length - (view.lines.length - start);
        const left = changes.filter((each) => Object.keys(each).length === 0).length;
        if (rows.length > 0) told(await fillLines(rows));
        if (beyond > 0 || left > 0)
          say(
            [
              ...(left > 0 ? [t('paste.wrongCells', { count: left })] : []),
              ...(beyond > 0 ? [t('paste.beyond', { count: beyond })] : []),
            ].join(' '),
            true,
          );
      },
      /**
       * Goes to the Bench with a new build; one that leaves nothing to decide goes on the quote at once, where its
       * line leads there too. Gives the sentence of a refusal.
       */
      openBuild: async (from: BuildStart): Promise<string | null> => {
        const { view, refresh } = latest.current;
        const answer = await ask('POST /builds', { input: { quoteId: view.id, ...from } });
        if (!answer.ok) return sentences(answer.failures, t('request.failed'));
        const { id, ready } = answer.value;
        const put = ready ? await putOnQuote(view.id, id) : null;
        if (put?.ok) await refresh();
        else window.location.assign(`/bench/${id}`);
        return null;
      },
      accept: async () => {
        const { view, refresh } = latest.current;
        const answer = await ask('POST /quotes/{id}/accept', {
          at: { id: view.id },
          input: { version: view.version },
        });
        if (answer.ok) {
          window.location.assign(`/orders/${answer.value.orderId}`);
          return;
        }
        await refresh();
        told(sentences(answer.failures, t('request.failed')));
      },
      send: async () => told(refused(await change('POST /quotes/{id}/send', { input: {} }))),
      step: async (way: 'undo' | 'redo') => {
        const answer = await change(`POST /quotes/{id}/${way}`, { input: {} });
        say(answer.ok ? t(`steps.${way}Done`) : sentences(answer.failures, t('request.failed')), !answer.ok);
      },
      /** A new revision, of an older one where that is looked at. */
      revise: async () => {
        const { view } = latest.current;
        const older = isOlder(view);
        const answer = await change('POST /quotes/{id}/revisions', {
          input: older ? { from: view.revision.number } : {},
        });
        if (!answer.ok) told(refused(answer));
        else if (older) window.location.assign(`/quotes/${view.id}`);
      },
      /** Begins a site schedule of its lines, called as the quote is. */
      schedule: async () => {
        const { view } = latest.current;
        const answer = await ask('POST /schedules', {
          input: {
            name: [view.customer.name, view.title].filter(Boolean).join(', ').slice(0, 120),
            site: '',
            customer: null,
            quote: view.id,
          },
        });
        if (answer.ok) window.location.assign(`/schedules/${answer.value.id}`);
        else say(sentences(answer.failures, t('request.failed')), true);
      },
      copy: (line: LineView) =>
        void change('POST /quotes/{id}/lines/{line}/copy', { at: { line: line.id }, input: {} }),
      instead: (line: LineView) =>
        void change('POST /quotes/{id}/lines/{line}/instead', { at: { line: line.id }, input: {} }).then(
          (answer) => told(refused(answer)),
        ),
      place: async (lines: readonly string[], to: number) => {
        await change('POST /quotes/{id}/lines/place', { input: { lines, to } });
      },
      rename: async (from: string, to: string) =>
        refused(await change('PATCH /quotes/{id}/groups', { input: { from, to } })),
      alternatives: async (lines: readonly LineView[], apart: boolean) =>
        refused(
          await change('POST /quotes/{id}/lines/alternatives', {
            input: { lines: lines.map((line) => line.id), apart },
          }),
        ),
    };
  }, [latest, t]);
}

/** What the page can do with the quote. */
export type LedgerActs = ReturnType<typeof useLedgerActs>;

/** Of a cell that was filled, what the server is told; nothing where nothing could be read. */
function filled(line: LineView | undefined, { quantity, hand }: LineChange): LineValue[] {
  if (!line || (quantity === undefined && hand === undefined)) return [];
  return [
    {
      line: line.id,
      ...(quantity === undefined ? {} : { quantity: Number(quantity) }),
      ...(hand === undefined ? {} : { hand }),
    },
  ];
}

/** The newest revision of a quote, by its number. */
export const newestOf = ({ revisions, revision }: QuoteView): number =>
  revisions[0]?.number ?? revision.number;

/** A revision is looked at that is not the newest. */
export const isOlder = (view: QuoteView): boolean => view.revision.number !== newestOf(view);
