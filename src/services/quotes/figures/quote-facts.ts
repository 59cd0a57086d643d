/**
 * What lists show of a quote: its net, how many lines it has and how many cannot be sold, whether somebody
 * must sign. Kept with the revision by every unit of work that changes it; of drafts worked out anew where
 * what prices are made from has changed since.
 */
import { QueryTypes } from 'sequelize';
import { sumLines } from '../../../core/pricing';
import { connected, type RevisionFactsRow } from '../../../data';
import { log } from '../../kernel/log';
import { counted, partsIn, priceAll, type Quoted } from './quote-pricing';
import { holdAnyQuote, stateOf, type QuoteBase, type QuoteState } from '../quote-state';
import { reference } from '../../settings/reference-data';
import { sellable, signingIn, standingOf, type Standing } from '../sign-off/standing';
import { inTransaction } from '../../kernel/unit-of-work';
import { done } from '../../kernel/failure';

/** A quote priced and judged: all that is shown of it follows from this. */
export interface Appraised {
  quoted: Quoted;
  decimals: number;
  /** Of a draft. */
  standing: Standing | undefined;
}

/** A revision priced, and a draft held against the limits of who owns it. */
export async function appraise(state: QuoteState): Promise<Appraised> {
  const parts = await partsIn(state);
  const quoted = await priceAll(parts);
  const newest = state.revisions[0]?.id === state.revision.id;
  return {
    quoted,
    decimals: parts.list.decimals,
    standing: newest && state.revision.state === 'draft' ? await standingOf(state, quoted.lines) : undefined,
  };
}

/** What lists show of a revision, from its appraisal. */
export async function factsIn(
  { revision }: QuoteState,
  { quoted: { lines }, decimals, standing }: Appraised,
): Promise<RevisionFactsRow> {
  const { stamp } = await reference();
  return {
    revisionId: revision.id,
    net: sumLines(
      counted(lines).map(({ price }) => price),
      decimals,
    ).net,
    lineCount: lines.length,
    problemCount: lines.filter(({ problems }) => problems.length > 0).length,
    sendable: sellable(lines),
    signing: (standing && signingIn(standing)) ?? null,
    stamp,
  };
}

const columns = 'revision_id, net, line_count, problem_count, sendable, signing, stamp';
const upsert = `insert into revision_facts (${columns}) values ($1, $2, $3, $4, $5, $6, $7)
  on conflict (revision_id) do update set (${columns}) = (excluded.revision_id, excluded.net, excluded.line_count, excluded.problem_count, excluded.sendable, excluded.signing, excluded.stamp)`;
const boundOf = ({
  revisionId,
  net,
  lineCount,
  problemCount,
  sendable,
  signing,
  stamp,
}: RevisionFactsRow) => [revisionId, net, lineCount, problemCount, sendable, signing, stamp];

/** Keeps the facts, and that the quote was changed just now; gives the moment. */
export async function keepChange(quoteId: string, by: string, facts: RevisionFactsRow): Promise<Date> {
  const [row] = await connected().sequelize.query<{ at: Date }>(
    `with changed as (update quotes set version = version + 1, updated_at = clock_timestamp(), updated_by = $9 where id = $8 returning updated_at) ${upsert} returning (select updated_at from changed) as at`,
    { bind: [...boundOf(facts), quoteId, by], type: QueryTypes.SELECT },
  );
  return row?.at ?? new Date();
}

/** Works the facts of a quote's newest revision out anew, as they stand within the unit of work under way. */
export async function keepFacts(quote: QuoteBase): Promise<void> {
  const state = await stateOf(quote);
  if (state)
    await connected().sequelize.query(upsert, { bind: boundOf(await factsIn(state, await appraise(state))) });
}

interface Stale {
  id: string;
  quoteId: string;
}

/** Revisions whose facts are wanting, and newest drafts whose facts are of an older stamp. */
const staleSql = `select r.id, r.quote_id as "quoteId" from quote_revisions r left join revision_facts f on f.revision_id = r.id
  where f.revision_id is null or (r.state = 'draft' and f.stamp <> $1)`;

/** Works out facts anew, each under the lock of its quote. */
export async function refreshFacts(of: readonly Stale[]): Promise<void> {
  for (const { id, quoteId } of of) {
    await inTransaction(async () => {
      const quote = await holdAnyQuote(quoteId);
      const [row] = await connected().sequelize.query<{ number: number }>(
        'select number from quote_revisions where id = $1',
        { bind: [id], type: QueryTypes.SELECT },
      );
      const state = quote && row ? await stateOf(quote, row.number) : null;
      if (state)
        await connected().sequelize.query(upsert, {
          bind: boundOf(await factsIn(state, await appraise(state))),
        });
      return done(null);
    });
  }
}

/** All that is stale, worked out anew; how many there were. */
export async function refreshAll(): Promise<number> {
  const { stamp } = await reference();
  const stale = await connected().sequelize.query<Stale>(staleSql, {
    bind: [stamp],
    type: QueryTypes.SELECT,
  });
  await refreshFacts(stale);
  return stale.length;
}

let refreshing: Promise<unknown> | undefined;

/** Begins with all that is stale, unless that is under way; nothing waits for it. */
export function refreshBehind(): void {
  refreshing ??= refreshAll()
    .catch((bug: unknown) => log.warn({ bug }))
    .finally(() => {
      refreshing = undefined;
    });
}

/** Facts of a revision that are kept, and differ from what pricing says. */
export interface WrongFacts {
  id: string;
  quoteId: string;
  number: string;
  revision: number;
  kept: RevisionFactsRow | null;
  now: RevisionFactsRow;
}

/** A revision whose facts are checked. */
interface Checked extends Stale {
  number: number;
  quote: string;
}

/**
 * Facts that are kept and differ from what pricing says now; none where all is well. Before each revision it
 * tells how far it is, and of which quote.
 */
export async function wrongFacts(
  tell: (done: number, of: number, at: string) => Promise<void> = () => Promise.resolve(),
): Promise<WrongFacts[]> {
  const rows = await connected().sequelize.query<Checked>(
    'select r.id, r.quote_id as "quoteId", r.number, q.number as quote from quote_revisions r join quotes q on q.id = r.quote_id',
    { type: QueryTypes.SELECT },
  );
  const wrong: WrongFacts[] = [];
  for (const [at, row] of rows.entries()) {
    await tell(at, rows.length, row.quote);
    // What differs may have been changed between two looks: it is looked at again while nobody can change it.
    const found = (await differing(row)) && (await connected().transaction(() => differing(row)));
    if (found) wrong.push(found);
  }
  return wrong;
}

/** What is kept of a revision and what pricing says, where they differ. */
async function differing({ id, quoteId, number, quote }: Checked): Promise<WrongFacts | null> {
  const base = await holdAnyQuote(quoteId);
  const { stamp } = await reference();
  const kept = await connected().records.revisionFacts.findByPk(id, { raw: true });
  const state = base && (await stateOf(base, number));
  if (!state) return null;
  const now = await factsIn(state, await appraise(state));
  const said = (facts: RevisionFactsRow | null) =>
    facts &&
    JSON.stringify([Number(facts.net), facts.lineCount, facts.problemCount, facts.sendable, facts.signing]);
  const due = kept !== null && (state.revision.state !== 'draft' || kept.stamp === stamp);
  return !kept || (due && said(kept) !== said(now))
    ? { id, quoteId, number: quote, revision: number, kept, now }
    : null;
}
