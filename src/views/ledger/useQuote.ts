import { useEffect, useMemo, useRef, useState } from 'react';
import { exact } from '../../core/exact';
import type { Term, Typed } from '../../core/pricing';
import {
  isChanges,
  plainMoney,
  requoter,
  sameWhereEqual,
  typedOf,
  withChanges,
  type QuoteChanges,
  type RatesInput,
  type LineValue,
  type LineView,
  type LocalEdit,
  type QuoteView,
  type TypedInput,
} from '../../core/quoting';
import { say } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { useSpeech } from '../speech';
import { Sender, type Trouble } from './sender';

/** What may be typed on lines. */
export interface LineChange {
  quantity?: string | number;
  hand?: TypedInput | null;
  locked?: boolean;
  optional?: boolean;
  term?: Term;
  price?: string;
  cost?: string | null;
  rates?: RatesInput | null;
  /** A dealer's own selling price. */
  resale?: string | null;
}

type Method = 'POST' | 'PATCH' | 'DELETE';

export interface QuoteActs {
  /** With what was just typed, priced in the page until the server has answered. */
  view: QuoteView;
  /** How many changes are under way, and why they are not stored, where something is in the way. */
  pending: number;
  trouble: Trouble | null;
  /** Sends a change; a change against an older version brings the newer one and says whose it is. */
  change: (
    method: Method,
    path: string,
    body: object,
    local?: readonly LocalEdit[],
  ) => Promise<Answer<QuoteView>>;
  /** Each gives the sentence of a refusal. */
  changeLine: (line: LineView, body: LineChange) => Promise<string | null>;
  changeLines: (
    lines: readonly string[],
    body: LineChange & { group?: string | null },
  ) => Promise<string | null>;
  fillLines: (rows: readonly LineValue[]) => Promise<string | null>;
  changeWhole: (typed: TypedInput | null) => Promise<string | null>;
  refresh: () => Promise<void>;
}

const localTyped = (typed: TypedInput | null): Typed | null => typed && typedOf(typed);

function localEdit(
  line: string,
  { quantity, hand, price, cost, rates: _rates, resale: _resale, ...others }: LineChange,
): LocalEdit {
  return {
    of: 'line',
    line,
    ...others,
    ...(quantity === undefined ? {} : { quantity: Number(quantity) }),
    ...(hand === undefined ? {} : { hand: localTyped(hand) }),
    ...(price === undefined ? {} : { typedPrice: exact(plainMoney(price)).toString() }),
    ...(cost === undefined ? {} : { typedCost: cost === null ? null : exact(plainMoney(cost)).toString() }),
  };
}

/**
 * A quote as it stands on the server, and changes to it. What is typed shows its effect at once; the server
 * has the last word.
 */
export function useQuote(first: QuoteView): QuoteActs {
  const { t } = useSpeech();
  const [known, setKnown] = useState(first);
  // Changes that the server has not answered yet, in their order.
  const [pending, setPending] = useState<readonly { id: number; edits: readonly LocalEdit[] }[]>([]);
  const [price] = useState(requoter);
  const view = useMemo(() => {
    const edits = pending.flatMap((each) => each.edits);
    return edits.length === 0 ? known : (price(known, edits) ?? known);
  }, [known, pending, price]);
  // Priced once before anybody types, so that the first change is as quick as the others.
  useEffect(() => {
    const id = setTimeout(() => price(known, []), 200);
    return () => clearTimeout(id);
  }, [known, price]);
  const version = useRef(first.version);
  const count = useRef(0);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  // What the page has, for the server to tell only what is otherwise.
  const has = useRef(first);
  const show = (newer: QuoteView) => {
    version.current = newer.version;
    has.current = newer;
    setKnown((before) => sameWhereEqual(before, newer));
  };
  const refresh = async () => {
    const newer = await ask<QuoteView>('GET', `/api/quotes/${first.id}`);
    if (newer.ok) show(newer.value);
  };
  /** An answer as the whole view, however little of it was sent. */
  const told = async (answer: Answer<QuoteView | QuoteChanges>): Promise<Answer<QuoteView>> => {
    if (!answer.ok) return answer;
    if (!isChanges(answer.value)) return { ok: true, value: answer.value };
    return answer.value.had === has.current.stand
      ? { ok: true, value: withChanges(has.current, answer.value) }
      : ask<QuoteView>('GET', `/api/quotes/${first.id}`);
  };
  /** Takes up what the server answered, before anything else is sent. */
  const take = async (sent: Answer<QuoteView | QuoteChanges>): Promise<Answer<QuoteView>> => {
    const answer = await told(sent);
    if (answer.ok) show(answer.value);
    return answer;
  };
  const [refreshNow, takeNow] = [useRef(refresh), useRef(take)];
  const [sender] = useState(
    () =>
      new Sender({
        quote: first.id,
        against: () => ({ version: version.current, stand: has.current.stand }),
        refresh: () => refreshNow.current(),
        take: (answer) => takeNow.current(answer),
        onTrouble: setTrouble,
      }),
  );
  const change: QuoteActs['change'] = (method, path, body, local = []) => {
    count.current += 1;
    const id = count.current;
    setPending((before) => [...before, { id, edits: local }]);
    return sender.send({ method, path, body }).then((answer) => {
      if (!answer.ok && answer.status === 409) say(sentences(answer.failures, t('request.failed')), true);
      setPending((before) => before.filter((each) => each.id !== id));
      return answer;
    });
  };
  // Whoever leaves while something is not stored is asked first.
  const waiting = pending.length > 0 && trouble !== null;
  useEffect(() => {
    if (!waiting) return undefined;
    const stay = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [waiting]);
  const refusalOf = (answer: Answer<QuoteView>): string | null =>
    answer.ok ? null : sentences(answer.failures, t('request.failed'));
  return {
    view,
    pending: pending.length,
    trouble,
    change,
    refresh,
    changeLine: async (line, body) =>
      refusalOf(await change('PATCH', `/lines/${line.id}`, body, [localEdit(line.id, body)])),
    changeLines: async (lines, { group, ...body }) =>
      refusalOf(
        await change(
          'PATCH',
          '/lines/several',
          { lines, ...body, ...(group === undefined ? {} : { group }) },
          lines.map((line) => localEdit(line, body)),
        ),
      ),
    fillLines: async (rows) =>
      refusalOf(
        await change(
          'PATCH',
          '/lines/values',
          { rows },
          rows.map(({ line, ...body }) => localEdit(line, body)),
        ),
      ),
    changeWhole: async (typed) =>
      refusalOf(await change('PATCH', '', { whole: typed }, [{ of: 'quote', whole: localTyped(typed) }])),
  };
}
