/** Terms as they are kept: rows of a kind all kept or none, what is in force followed and never changed. */
import { randomUUID } from 'node:crypto';
import {
  roles,
  type FileAnswer,
  type TermChoices,
  type TermHistory,
  type TermRowView,
  type TermsInput,
  type TermsView,
} from '../../contract';
import {
  afterSteps,
  planFor,
  planRemoval,
  standsOf,
  termKey,
  termKinds,
  termProblems,
  type KeptTerm,
  type TermKindId,
  type TermMeans,
  type TermStep,
} from '../../core/terms';
import { connected, type AuditRow } from '../../data';
import { translator } from '../../i18n';
import type { Actor } from '../access/actor';
import { historyOf } from '../items/item-view';
import { today } from '../kernel/clock';
import { done, fail, type Failure, type Result } from '../kernel/failure';
import { askPapers } from '../kernel/papers';
import { stampPassed } from '../kernel/request';
import { inTransaction } from '../kernel/unit-of-work';
import { reference } from '../settings/reference-data';
import { keeping, remembersFollowing, termOf, type KeepingMeans } from './keeping';

type Kept = KeptTerm & { version: number };

const classes = ['direct', 'key', 'dealer', 'public'];

/** Minor digits of all currencies that this server knows. */
const currencies = new Map(
  Intl.supportedValuesOf('currency').map((code) => [
    code,
    new Intl.NumberFormat('en', { style: 'currency', currency: code }).resolvedOptions()
      .maximumFractionDigits ?? 2,
  ]),
);

interface Around {
  keeping: KeepingMeans;
  means: TermMeans;
  choices: TermChoices;
}

async function around(): Promise<Around> {
  const known = await reference();
  const customers = await connected().records.customers.findAll({
    attributes: ['id', 'number', 'name', 'region'],
    order: [['number', 'ASC']],
    raw: true,
  });
  const numberOf = new Map(customers.map(({ id, number }) => [id, number]));
  const customerOf = new Map(customers.map(({ id, number }) => [number, id]));
  const regions = [...new Set(customers.map(({ region }) => region))].sort();
  const lists = known.priceLists.map(({ code, name, currency }) => ({ code, name, currency }));
  return {
    keeping: {
      numberOf: (id) => numberOf.get(id) ?? '',
      customerOf: (number) => customerOf.get(number) ?? null,
      decimalsOf: (currency) => currencies.get(currency) ?? 2,
      today: today(),
    },
    means: {
      families: new Set(known.families.map(({ code }) => code)),
      items: new Set(known.items.keys()),
      lists: new Map(known.priceLists.map(({ code, decimals }) => [code, decimals])),
      customers: new Set(customerOf.keys()),
      roles,
      classes,
      regions,
      currencies,
    },
    choices: {
      families: known.families.map(({ code, name }) => ({ code, name })),
      lists,
      customers: customers.map(({ number, name }) => ({ number, name })),
      roles: [...roles],
      classes,
      regions,
      taxClasses: [...new Set(['standard', ...known.taxRates.flatMap((rate) => rate.class ?? [])])],
    },
  };
}

/** All rows of a kind as the core knows them, in the order in which they are shown. */
export async function keptTerms(kind: TermKindId, means?: KeepingMeans): Promise<Kept[]> {
  const { table, where = {} } = keeping[kind];
  const known = means ?? (await around()).keeping;
  const rows = (await table().findAll({ where, raw: true })).map((row) => termOf(kind, row, known));
  const { fields } = termKinds[kind];
  const sortOf = (row: Kept): string =>
    [...fields.map(({ id }) => row.cells[id] ?? ''), row.from ?? '', row.id].join('\u0000');
  return rows
    .map((row) => ({ row, by: sortOf(row) }))
    .sort((a, b) => (a.by < b.by ? -1 : 1))
    .map(({ row }) => row);
}

function viewsOf(kind: TermKindId, rows: readonly Kept[], day: string): TermRowView[] {
  const stands = standsOf(kind, rows, day);
  return rows.map(({ id, version, cells, from, to }) => ({
    id,
    version,
    cells: { ...cells },
    from,
    to,
    stand: stands.get(id) ?? 'over',
  }));
}

/** All rows of a kind; those that are over where they are asked for. */
export async function seeTerms(kind: TermKindId, past = false): Promise<TermsView> {
  const known = await around();
  const rows = viewsOf(kind, await keptTerms(kind, known.keeping), today());
  return {
    kind,
    rows: past ? rows : rows.filter(({ stand }) => stand !== 'over'),
    choices: known.choices,
    today: today(),
  };
}

/** What is wanted, worked out against what is kept: steps, or what is wrong with which row. */
export async function planned(
  kind: TermKindId,
  { from, rows, gone }: TermsInput,
): Promise<Result<{ kept: Kept[]; steps: TermStep[]; known: Around }>> {
  const known = await around();
  const kept = await keptTerms(kind, known.keeping);
  const byId = new Map(kept.map((row) => [row.id, row]));
  const wrong: Failure[] = [];
  const steps: TermStep[] = [];
  // What was planned for rows before counts for those after: two new ones may not say the same.
  let all: KeptTerm[] = kept;
  const take = (more: readonly TermStep[]): void => {
    steps.push(...more);
    all = afterSteps(all, more, randomUUID);
  };
  const at = { today: today(), from };
  gone.forEach(({ id, version }, index) => {
    const field = `gone.${String(index)}`;
    if (byId.get(id)?.version !== version) {
      wrong.push({ code: 'term.stale', field });
      return;
    }
    const plan = planRemoval(kind, id, all, at);
    if (plan.ok) take(plan.steps);
    else wrong.push({ code: plan.problem.code, field });
  });
  rows.forEach((row, index) => {
    const was = row.id === undefined ? undefined : byId.get(row.id);
    const field = (name: string): string => `rows.${String(index)}.${name}`;
    if (row.id !== undefined && was?.version !== row.version) {
      wrong.push({ code: 'term.stale', field: field('') });
      return;
    }
    const cells = Object.fromEntries(
      termKinds[kind].fields.map(({ id }) => [id, row.cells[id] ?? was?.cells[id] ?? '']),
    );
    const wanted = {
      id: row.id,
      cells,
      from: row.from === undefined ? (was?.from ?? null) : row.from,
      to: row.to === undefined ? (was?.to ?? null) : row.to,
    };
    const problems = termProblems(kind, wanted, known.means);
    for (const { code, field: name, params } of problems)
      wrong.push({ code, ...(params ? { params } : {}), field: field(name) });
    if (problems.length > 0) return;
    if (row.id === undefined && kind === 'customers') {
      wrong.push({ code: 'term.newCustomer', field: field('number') });
      return;
    }
    if (kind === 'lists' && was && cells.currency !== was.cells.currency) {
      wrong.push({ code: 'term.currencyStays', field: field('currency') });
      return;
    }
    const plan = planFor(kind, wanted, all, at);
    if (plan.ok) take(plan.steps);
    else wrong.push({ code: plan.problem.code, field: field(plan.problem.field) });
  });
  return wrong.length > 0
    ? fail(wrong.some(({ code }) => code === 'term.stale') ? 'conflict' : 'invalid', ...wrong.slice(0, 200))
    : done({ kept, steps, known });
}

/** Keeps rows of a kind: all or none. */
export const keepTerms = (actor: Actor, kind: TermKindId, input: TermsInput): Promise<Result<TermsView>> =>
  inTransaction(async () => {
    // One at a time changes a kind, so that none is held against what another is just changing.
    await connected().sequelize.query('select pg_advisory_xact_lock(hashtext($1))', {
      bind: [`terms ${kind}`],
    });
    const plan = await planned(kind, input);
    if (!plan.ok) return plan;
    const { kept, steps, known } = plan.value;
    const byId = new Map(kept.map((row) => [row.id, row]));
    const entries: AuditRow[] = [];
    for (const step of steps) {
      const id = await write(kind, step, known.keeping);
      entries.push(entryOf(actor, kind, step, id, byId));
    }
    if (steps.length > 0) {
      stampPassed();
      await connected().records.audit.bulkCreate(entries);
    }
    return done(await seeTerms(kind));
  });

/** Does one step; gives the id of the row. */
async function write(kind: TermKindId, step: TermStep, means: KeepingMeans): Promise<string> {
  const { table, by = 'id', rowOf } = keeping[kind];
  const { dated } = termKinds[kind];
  const days = ({ from, to }: { from: string | null; to: string | null }) =>
    dated ? { validFrom: from, validTo: to } : {};
  const rows = table();
  switch (step.does) {
    case 'add': {
      const row: Record<string, unknown> = {
        ...(by === 'id' ? { id: randomUUID() } : {}),
        version: 1,
        ...rowOf({ ...step.row.cells }, means),
        ...days(step.row),
        ...(remembersFollowing(kind) ? { follows: step.follows } : {}),
      };
      await rows.create(row as never);
      return String(row[by]);
    }
    case 'change': {
      const row = rowOf({ ...step.row.cells }, means);
      // A list is in force since it was made, whatever is said of it later.
      delete row.validFrom;
      await rows.update(
        { ...row, ...days(step.row), version: connected().sequelize.literal('version + 1') },
        { where: { [by]: step.id } },
      );
      return step.id;
    }
    case 'end':
      await rows.update(
        { validTo: step.to, version: connected().sequelize.literal('version + 1') },
        {
          where: { [by]: step.id },
        },
      );
      return step.id;
    case 'remove':
      await rows.destroy({ where: { [by]: step.id } });
      return step.id;
  }
}

const actions = { add: 'added', change: 'changed', end: 'ended', remove: 'removed' } as const;

function entryOf(
  actor: Actor,
  kind: TermKindId,
  step: TermStep,
  id: string,
  byId: ReadonlyMap<string, Kept>,
): AuditRow {
  const before = byId.get(step.does === 'add' ? (step.follows ?? '') : step.id);
  const flat = (row: {
    cells: Readonly<Record<string, string>>;
    from: string | null;
    to: string | null;
  }) => ({
    ...row.cells,
    ...(row.from === null ? {} : { from: row.from }),
    ...(row.to === null ? {} : { to: row.to }),
  });
  const key = before ? termKey(kind, before, before.id) : '';
  const after =
    step.does === 'add' || step.does === 'change'
      ? flat(step.row)
      : step.does === 'end'
        ? { to: step.to ?? '' }
        : {};
  const was = before ? flat(before) : {};
  const fields = step.does === 'remove' ? Object.keys(was) : Object.keys(after);
  const pick = (of: Record<string, string>) =>
    Object.fromEntries(fields.flatMap((field) => (of[field] === undefined ? [] : [[field, of[field]]])));
  const differs = (field: string): boolean =>
    (was as Record<string, string>)[field] !== (after as Record<string, string>)[field];
  const told = (of: Record<string, string>) =>
    Object.fromEntries(Object.entries(pick(of)).filter(([field]) => differs(field)));
  return {
    userId: actor.id,
    action: `term.${step.does === 'add' && step.follows !== null ? 'followed' : actions[step.does]}`,
    subject: `${kind} ${id}`,
    details: { kind, ...(key === '' || key === id ? {} : { of: key }), from: told(was), to: told(after) },
  };
}

/** What a row was and will be, and who changed it. */
export async function seeTermHistory(kind: TermKindId, id: string): Promise<Result<TermHistory>> {
  const kept = await keptTerms(kind);
  const row = kept.find((each) => each.id === id);
  if (!row) return fail('missing', { code: 'term.gone' });
  const own = kept.filter((each) => related(kind, each, row, kept));
  const changes = await Promise.all(
    own.map((each) =>
      historyOf(['term.added', 'term.followed', 'term.changed', 'term.ended'], `${kind} ${each.id}`),
    ),
  );
  return done({
    rows: viewsOf(kind, kept, today())
      .filter((view) => own.some((each) => each.id === view.id))
      .sort((a, b) => ((a.from ?? '') < (b.from ?? '') ? 1 : -1)),
    changes: changes.flat().sort((a, b) => (a.at < b.at ? 1 : -1)),
  });
}

/** Whether two rows say something of the same, or one follows the other. */
function related(kind: TermKindId, one: Kept, other: Kept, all: readonly Kept[]): boolean {
  if (one.id === other.id) return true;
  if (termKinds[kind].key.length > 0) return termKey(kind, one, one.id) === termKey(kind, other, other.id);
  const chain = (from: Kept): Set<string> => {
    const seen = new Set<string>();
    for (let at: Kept | undefined = from; at && !seen.has(at.id);) {
      seen.add(at.id);
      const next: string | null = at.follows;
      at = all.find(({ id }) => id === next);
    }
    return seen;
  };
  return chain(one).has(other.id) || chain(other).has(one.id);
}

const media = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
} as const;

/** All rows of a kind as a file, with the titles of the grid, which takes them in again. */
export async function termsFile(actor: Actor, kind: TermKindId, format: string): Promise<Result<FileAnswer>> {
  if (format !== 'csv' && format !== 'xlsx') return fail('missing', { code: 'file.format' });
  const t = translator(actor.language);
  const { fields, dated } = termKinds[kind];
  const { rows } = await seeTerms(kind);
  const figure = (text: string): string => (actor.language === 'de' ? text.replace('.', ',') : text);
  const titles = [
    ...fields.map(({ id }) => t(`terms.field.${id}` as 'terms.field.role')),
    ...(dated ? [t('terms.from'), t('terms.to')] : []),
  ];
  const cellOf = (is: string, text: string): string =>
    text === ''
      ? ''
      : is === 'share'
        ? `${figure(String(Number(text) * 100))} %`
        : is === 'amount'
          ? figure(text)
          : is === 'mark'
            ? 'x'
            : text;
  return done({
    name: `${kind}-${today()}.${format}`,
    type: media[format],
    bytes: await askPapers('sheet', {
      name: kind,
      rows: [
        titles,
        ...rows.map(({ cells, from, to }) => [
          ...fields.map(({ id, is }) => cellOf(is, cells[id] ?? '')),
          ...(dated ? [from ?? '', to ?? ''] : []),
        ]),
      ],
      format,
    }),
  });
}
