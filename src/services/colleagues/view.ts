/** What colleagues know of a quote, as a person sees it. */
import { QueryTypes } from 'sequelize';
import { answers, dueIn, requestState } from '../../core/colleagues';
import type { AttachmentView, ColleaguesView, RequestView, ThreadEntry } from '../../contract';
import { connected, type LineRow, type QuoteRequestRow, type RevisionRow } from '../../data';
import { may, type Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { findQuote, stateOf, type QuoteBase } from '../quotes/quote-state';
import { nameOf, reference, type Reference } from '../settings/reference-data';
import { listOf, tariffFor } from '../settings/tariffs';
import { colleaguesOf } from './people';

/** So much of a thread is told. */
const most = 400;

/** What is told with a quote, where the person sees it. */
export async function seeColleagues(actor: Actor, id: string): Promise<Result<ColleaguesView>> {
  const quote = await findQuote(actor, id);
  return quote ? done(await colleaguesView(actor, quote)) : fail('missing', { code: 'quote.missing' });
}

/** Whether a person may hand a quote over: whose it is, and whoever answers for what others offer. */
export const mayHandOver = (actor: Actor, { ownerId }: QuoteBase): boolean =>
  may(actor, 'quotes') && (ownerId === actor.id || may(actor, 'sign'));

/** All of it, of a quote that the person may see. */
export async function colleaguesView(actor: Actor, quote: QuoteBase): Promise<ColleaguesView> {
  const { quoteNotes, quoteRequests, followUps } = connected().records;
  const where = { quoteId: quote.id };
  const [known, state] = [await reference(), await stateOf(quote)];
  const notes = await quoteNotes.findAll({ where, order: [['madeAt', 'DESC']], limit: most, raw: true });
  const asked = await quoteRequests.findAll({ where, order: [['madeAt', 'DESC']], limit: most, raw: true });
  const days = await followUps.findAll({ where, order: [['day', 'ASC'], ['id', 'ASC']], limit: most, raw: true }); // prettier-ignore
  const lines = new Map((state?.lines ?? []).map((line) => [line.origin, line]));
  const usual = await usualFor(actor, state?.revision, asked, known);
  const thread: ThreadEntry[] = [
    ...notes.map(({ id, words, madeBy, madeAt, handedFrom, handedTo }) => ({
      id,
      by: nameOf(known, madeBy),
      at: madeAt.toISOString(),
      words,
      handed: handedTo === null ? null : { from: nameOf(known, handedFrom), to: nameOf(known, handedTo) },
      request: null,
      mayTakeBack: handedTo === null && madeBy === actor.id,
    })),
    ...asked.map((row) => ({
      id: row.id,
      by: nameOf(known, row.madeBy),
      at: row.madeAt.toISOString(),
      words: row.words,
      handed: null,
      request: requestView(actor, row, {
        known,
        line: lines.get(row.lineOrigin ?? ''),
        draft: state?.revision.state === 'draft',
        usual,
      }),
      mayTakeBack: false,
    })),
  ].sort((a, b) => (a.at < b.at ? 1 : -1));
  const now = today();
  return {
    thread,
    followUps: days.map(({ id, day, words, forUser, madeBy, doneAt, doneBy }) => ({
      id,
      day,
      due: dueIn(day, now),
      words,
      for: nameOf(known, forUser),
      by: nameOf(known, madeBy),
      doneAt: doneAt?.toISOString() ?? null,
      doneBy: doneBy === null ? null : nameOf(known, doneBy),
    })),
    files: await attachmentsOf(quote.id),
    people: await colleaguesOf(actor),
    may: {
      ask: may(actor, 'quotes') && actor.role !== 'dealer',
      handOver: mayHandOver(actor, quote),
      keep: may(actor, 'quotes'),
    },
  };
}

/** What was attached to a quote, in the order in which it was. */
export const attachmentsOf = (quoteId: string): Promise<AttachmentView[]> =>
  connected().sequelize.query<AttachmentView>(
    `select f.id as file, f.name, c.kind as format, c.size, q.kind, q.words, u.name as by,
       to_char(q.made_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at
     from quote_files q join files f on f.id = q.file_id join file_contents c on c.hash = f.hash
       join users u on u.id = q.made_by
     where q.quote_id = $1 order by q.made_at, f.id`,
    { bind: [quoteId], type: QueryTypes.SELECT },
  );

/** What items usually cost and are sold at by a quote's list. */
type Usual = (item: string) => NonNullable<RequestView['usual']>;

/** For who answers questions about items; null where there are none, so that no list is read for nothing. */
async function usualFor(
  actor: Actor,
  revision: RevisionRow | undefined,
  rows: readonly QuoteRequestRow[],
  known: Reference,
): Promise<Usual | null> {
  if (!revision || !rows.some(({ item }) => item !== null)) return null;
  const { costs = {}, prices } = await tariffFor(actor, revision.priceList, today());
  const { currency, decimals } = listOf(known, revision.priceList);
  return (item) => ({
    currency,
    decimals,
    ...(costs[item] === undefined ? {} : { cost: costs[item] }),
    price: prices[item] ?? null,
  });
}

interface Means {
  known: Reference;
  /** As it stands in the newest revision. */
  line: LineRow | undefined;
  draft: boolean;
  usual: Usual | null;
}

function requestView(actor: Actor, row: QuoteRequestRow, { known, line, draft, usual }: Means): RequestView {
  const stand = {
    ...row,
    answered: row.answeredAt !== null,
    taken: row.takenAt !== null,
    closed: row.closedAt !== null,
  };
  const state = requestState(stand);
  const mine = row.madeBy === actor.id;
  return {
    kind: row.kind,
    state,
    line:
      row.lineNamed === null
        ? null
        : {
            id: line?.id ?? null,
            position: line?.position ?? row.lineNamed.position,
            name: row.lineNamed.name,
          },
    item: row.item === null ? null : { sku: row.item, name: known.items.get(row.item)?.name ?? {} },
    of: row.askedOf === null ? { role: row.role ?? 'modeller' } : { name: nameOf(known, row.askedOf) },
    answer: row.answer,
    part: row.part && seenPart(actor, row.part),
    answeredBy: row.answeredBy === null ? null : nameOf(known, row.answeredBy),
    answeredAt: row.answeredAt?.toISOString() ?? null,
    usual: row.item === null ? null : (usual?.(row.item) ?? null),
    mayAnswer: answers(actor, stand),
    mayTake:
      state === 'answered' && row.part !== null && draft && line !== undefined && may(actor, 'special'),
    mayClose: mine && (state === 'open' || state === 'answered'),
  };
}

function seenPart(
  actor: Actor,
  { cost, ...part }: NonNullable<QuoteRequestRow['part']>,
): RequestView['part'] {
  return may(actor, 'costs') ? { ...part, cost } : part;
}
