/**
 * What becomes of rows that somebody changes: what is in force is never changed. It is followed from a day on, or ends;
 * what is still to come is changed as one likes.
 */
import { inForce, standOf, type Stand } from './in-force';
import { termKey, type TermCells } from './check';
import { termKinds, type TermKindId } from './kinds';

/** A row that is kept. */
export interface KeptTerm extends TermCells {
  readonly id: string;
  /** The one that it follows and that ended for it, where its kind has no key. */
  readonly follows: string | null;
}

/** A row as it is to be: of a new one there is no id. */
export interface WantedTerm extends TermCells {
  readonly id: string | undefined;
}

/** What is done: a row is added, written over, ended on a day, or taken away. */
export type TermStep =
  | { does: 'add'; row: TermCells; follows: string | null }
  | { does: 'change'; id: string; row: TermCells }
  | { does: 'end'; id: string; to: string | null }
  | { does: 'remove'; id: string };

/** Why it cannot be done. */
export interface PlanProblem {
  code: 'term.past' | 'term.twice' | 'term.inForce' | 'term.gone';
  field: string;
}

const dated = ({ from, to }: TermCells) => ({ validFrom: from, validTo: to });

/** Where each row stands on a day, by its id. */
export function standsOf(
  kind: TermKindId,
  rows: readonly KeptTerm[],
  day: string,
): ReadonlyMap<string, Stand> {
  const held = new Set(
    [
      ...inForce(
        rows.map((row) => ({ row, ...dated(row) })),
        ({ row }) => termKey(kind, row, row.id),
        day,
      ).values(),
    ].map(({ row }) => row.id),
  );
  return new Map(
    rows.map(({ id, from }) => [
      id,
      from !== null && from > day ? 'ahead' : held.has(id) ? 'now' : ('over' as const),
    ]),
  );
}

/** Where a kept row stands on a day among all of its kind. */
export function standAmong(kind: TermKindId, row: KeptTerm, all: readonly KeptTerm[], day: string): Stand {
  const key = termKey(kind, row, row.id);
  const own = all
    .filter((each) => termKey(kind, each, each.id) === key)
    .map((each) => ({ each, ...dated(each) }));
  const found = own.find(({ each }) => each.id === row.id);
  return found ? standOf(found, own, day) : 'over';
}

const sameCells = (one: TermCells, other: TermCells): boolean =>
  [...new Set([...Object.keys(one.cells), ...Object.keys(other.cells)])].every(
    (id) => (one.cells[id] ?? '') === (other.cells[id] ?? ''),
  );

/** Rows once steps are done; `fresh` names new ones. */
export function afterSteps(
  rows: readonly KeptTerm[],
  steps: readonly TermStep[],
  fresh: () => string,
): KeptTerm[] {
  let next = [...rows];
  for (const step of steps)
    if (step.does === 'add') next.push({ ...step.row, id: fresh(), follows: step.follows });
    else if (step.does === 'remove') next = next.filter(({ id }) => id !== step.id);
    else
      next = next.map((row) =>
        row.id !== step.id ? row : step.does === 'end' ? { ...row, to: step.to } : { ...row, ...step.row },
      );
  return next;
}

/** The day before one, in ISO form. */
function before(day: string): string {
  const date = new Date(`${day}T00:00:00Z`);
  date.setUTCDate(date.getUTCDate() - 1);
  return date.toISOString().slice(0, 10);
}

/**
 * What it takes to make a row what is wanted. `from`: the day from which what replaces something in force holds, where
 * the row does not say its own.
 */
export function planFor(
  kind: TermKindId,
  wanted: WantedTerm,
  all: readonly KeptTerm[],
  { today, from }: { today: string; from: string },
): { ok: true; steps: TermStep[] } | { ok: false; problem: PlanProblem } {
  const refuse = (code: PlanProblem['code'], field: string) => ({
    ok: false as const,
    problem: { code, field },
  });
  const row = { cells: wanted.cells, from: wanted.from, to: wanted.to };
  const key = termKey(kind, wanted, wanted.id ?? '');
  const { key: fields, dated: isDated } = termKinds[kind];
  const takes = (day: string | null, but?: string): boolean =>
    fields.length > 0 &&
    all.some(
      (each) => each.id !== but && termKey(kind, each, each.id) === key && (!isDated || each.from === day),
    );
  if (wanted.id === undefined) {
    const begins = isDated ? (row.from ?? from) : null;
    if (begins !== null && begins < today) return refuse('term.past', 'from');
    if (begins !== null && row.to !== null && row.to < begins) return refuse('term.past', 'to');
    if (takes(begins)) return refuse('term.twice', fields[0] ?? 'en');
    return { ok: true, steps: [{ does: 'add', row: { ...row, from: begins }, follows: null }] };
  }
  const kept = all.find(({ id }) => id === wanted.id);
  if (!kept) return refuse('term.gone', fields[0] ?? 'en');
  if (!isDated) {
    if (termKey(kind, kept, kept.id) !== key) return refuse('term.inForce', fields[0] ?? 'en');
    return { ok: true, steps: sameCells(kept, wanted) ? [] : [{ does: 'change', id: kept.id, row }] };
  }
  const stand = standAmong(kind, kept, all, today);
  const same = sameCells(kept, wanted);
  if (stand === 'ahead') {
    if (row.from === null || row.from < today) return refuse('term.past', 'from');
    // One that ends before it begins would hand its end to what it follows, and that would have ended in the past.
    if (row.to !== null && row.to < row.from) return refuse('term.past', 'to');
    if (takes(row.from, kept.id)) return refuse('term.twice', 'from');
    if (same && row.from === kept.from && row.to === kept.to) return { ok: true, steps: [] };
    const ended = endedFor(kept, all);
    return {
      ok: true,
      steps: [
        { does: 'change', id: kept.id, row },
        // What it follows goes on until it begins.
        ...(ended && row.from !== kept.from
          ? [{ does: 'end' as const, id: ended.id, to: before(row.from) }]
          : []),
      ],
    };
  }
  if (same) {
    if (row.to === kept.to && row.from === kept.from) return { ok: true, steps: [] };
    // Only its end can be said of what holds, and not so that it would have ended before.
    if (stand === 'over' || row.from !== kept.from) return refuse('term.inForce', 'from');
    if (row.to !== null && row.to < today) return refuse('term.past', 'to');
    return { ok: true, steps: [{ does: 'end', id: kept.id, to: row.to }] };
  }
  if (stand === 'over') return refuse('term.inForce', 'from');
  if (fields.length > 0 && termKey(kind, kept, kept.id) !== key)
    return refuse('term.inForce', fields[0] ?? 'en');
  const begins = row.from !== null && row.from !== kept.from ? row.from : from;
  if (begins < today) return refuse('term.past', 'from');
  if (takes(begins)) return refuse('term.twice', 'from');
  const follower: TermStep = {
    does: 'add',
    row: { cells: row.cells, from: begins, to: row.to !== null && row.to >= begins ? row.to : null },
    follows: fields.length > 0 ? null : kept.id,
  };
  // One of a key gives way by itself; one that is for itself ends where the other begins.
  return {
    ok: true,
    steps: fields.length > 0 ? [follower] : [follower, { does: 'end', id: kept.id, to: before(begins) }],
  };
}

/** The row that ended where one begins that follows it. */
const endedFor = ({ follows, from }: KeptTerm, all: readonly KeptTerm[]): KeptTerm | undefined =>
  all.find(({ id, to }) => id === follows && from !== null && to === before(from));

/** What it takes to take a row away: what is to come goes; what holds ends with a day. */
export function planRemoval(
  kind: TermKindId,
  id: string,
  all: readonly KeptTerm[],
  { today, from }: { today: string; from: string },
): { ok: true; steps: TermStep[] } | { ok: false; problem: PlanProblem } {
  const kept = all.find((each) => each.id === id);
  const refuse = (code: PlanProblem['code']) => ({ ok: false as const, problem: { code, field: 'from' } });
  if (!kept) return refuse('term.gone');
  if (!termKinds[kind].dated) return refuse('term.inForce');
  const stand = standAmong(kind, kept, all, today);
  if (stand === 'ahead') {
    const ended = endedFor(kept, all);
    return {
      ok: true,
      steps: [
        { does: 'remove', id },
        // What it would have followed goes on as if it had never been.
        ...(ended ? [{ does: 'end' as const, id: ended.id, to: kept.to }] : []),
      ],
    };
  }
  if (stand === 'over') return refuse('term.inForce');
  return from < today ? refuse('term.past') : { ok: true, steps: [{ does: 'end', id, to: before(from) }] };
}
