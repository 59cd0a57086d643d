/** Lines of a draft: changed one by one or many together, moved, grouped, taken away. */
import { randomUUID } from 'node:crypto';
import { Op, type Model } from 'sequelize';
import { exact, plainMoney } from '../../../core/exact';
import { tooShort } from '../../../core/pricing';
import { grouped, moved } from '../../../core/quotes';
import {
  typedOf,
  type ChangeLineInput,
  type ChangeLinesInput,
  type LinesInput,
  type LineValuesInput,
  type PlaceLinesInput,
  type QuoteView,
  type RenameGroupInput,
  type Permission,
} from '../../../contract';
import { connected, type AuditRow, type LineRow } from '../../../data';
import { may, type Actor } from '../../access/actor';
import { today } from '../../kernel/clock';
import { done, fail, type Failure, type Result } from '../../kernel/failure';
import type { QuotedLine } from '../figures/quote-pricing';
import { changeQuote, type Draft } from '../quotes';
import { wrongQuantity } from '../../items/selling';
import { reference } from '../../settings/reference-data';
import { settleAlternatives } from './alternatives';
import { entryOn } from '../../settings/tariffs';
import { record } from '../../kernel/unit-of-work';

/** What a line is made of. */
export type NewLine = Pick<LineRow, 'sku' | 'quantity' | 'buildId'> &
  Partial<Omit<LineRow, 'id' | 'revisionId' | 'position' | 'frozen'>>;

/** Adds a line at the end, priced as of today unless another day is given. */
export async function appendLine(draft: Pick<Draft, 'revision'>, line: NewLine): Promise<LineRow> {
  const [made] = await appendLines(draft, [line]);
  return made as LineRow;
}

/** Adds lines at the end, in their order. */
export async function appendLines(
  { revision }: Pick<Draft, 'revision'>,
  added: readonly NewLine[],
): Promise<LineRow[]> {
  const { lines } = connected().records;
  const last =
    (await lines.max<number | null, Model>('position', { where: { revisionId: revision.id } })) ?? 0;
  const rows = added.map((line, index): LineRow => {
    const id = randomUUID();
    return {
      id,
      revisionId: revision.id,
      position: last + index + 1,
      hand: null,
      locked: false,
      optional: false,
      term: null,
      typedPrice: null,
      typedCost: null,
      frozen: null,
      alternative: false,
      alternativeSet: null,
      origin: id,
      pricedOn: today(),
      groupName: null,
      rates: null,
      resale: null,
      ...line,
    };
  });
  await lines.bulkCreate(rows);
  return rows;
}

/** A line of a draft as it was before the change. */
export const lineOf = ({ state }: Draft, lineId: string): LineRow | undefined =>
  state.lines.find(({ id }) => id === lineId);

/** Changes what is typed on a line. */
export async function changeLine(
  actor: Actor,
  id: string,
  lineId: string,
  { version, ...change }: ChangeLineInput,
): Promise<Result<QuoteView>> {
  return changeEach(actor, id, version, (draft) => {
    const line = lineOf(draft, lineId);
    return line ? done([{ line, change }]) : fail('missing', { code: 'line.missing' });
  });
}

/** Changes several lines in the same way, all or none. */
export async function changeLines(
  actor: Actor,
  id: string,
  { version, lines: ids, group, ...change }: ChangeLinesInput,
): Promise<Result<QuoteView>> {
  return changeEach(actor, id, version, async (draft) => {
    const all = draft.state.lines;
    const marked = all.filter((line) => ids.includes(line.id));
    if (marked.length < new Set(ids).size) return fail('missing', { code: 'line.missing' });
    if (group !== undefined) {
      await arrange(all, grouped(all.map(arranged), ids, group));
      await record(actor, 'lines.grouped', draft.quote.number, {
        lines: marked.map(({ position }) => position),
        group,
      });
    }
    return done(
      (Object.values(change) as unknown[]).some((value) => value !== undefined)
        ? marked.map((line) => ({ line, change }))
        : [],
    );
  });
}

/** What is to be changed on a line. */
type Change = Omit<ChangeLineInput, 'version'>;
type LineChange = { line: LineRow; change: Change };

/** Makes changes to lines, all or none, and has what would come of them tried. */
async function changeEach(
  actor: Actor,
  id: string,
  version: number,
  find: (draft: Draft) => Result<LineChange[]> | Promise<Result<LineChange[]>>,
): Promise<Result<QuoteView>> {
  let each: LineChange[] = [];
  return changeQuote(
    actor,
    id,
    version,
    async (draft) => {
      const found = await find(draft);
      if (!found.ok) return found;
      each = found.value;
      return each.length === 0 ? done(null) : applyEach(actor, draft, each);
    },
    { check: ({ quoted }) => wrongIn(each, quoted.lines) },
  );
}

const columnsOf = ({ hand, price, cost, quantity, rates, resale, ...others }: Change): Partial<LineRow> => ({
  ...(quantity === undefined ? {} : { quantity }),
  ...(hand === undefined ? {} : { hand: hand && typedOf(hand) }),
  ...(rates === undefined
    ? {}
    : {
        rates: rates && {
          each: rates.each.map((rate) => exact(plainMoney(rate)).toString()),
          ...(rates.least === undefined ? {} : { least: exact(plainMoney(rates.least)).toString() }),
        },
      }),
  ...(resale === undefined ? {} : { resale: resale === null ? null : exact(plainMoney(resale)).toString() }),
  ...(price === undefined ? {} : { typedPrice: exact(plainMoney(price)).toString() }),
  ...(cost === undefined ? {} : { typedCost: cost === null ? null : exact(plainMoney(cost)).toString() }),
  ...Object.fromEntries(Object.entries<unknown>(others).filter(([, value]) => value !== undefined)),
});

/** What one must be allowed to do for what. */
const wants: readonly (readonly [Permission, (change: Change) => boolean])[] = [
  [
    'discount',
    ({ hand, price, cost, locked }) =>
      Boolean(hand) || price !== undefined || cost !== undefined || locked !== undefined,
  ],
  ['costs', ({ hand, cost }) => hand?.by === 'margin' || cost !== undefined],
  ['rates', ({ rates }) => Boolean(rates)],
  ['resale', ({ resale }) => resale !== undefined],
];

const fieldOf: Readonly<Record<string, string>> = {
  'line.outside': 'quantity',
  'line.hand': 'hand',
  'line.tooShort': 'term',
};

/** A refusal of one of several lines names it. */
const said = (of: number, line: LineRow, failure: Failure): Failure =>
  of === 1
    ? failure
    : { code: 'line.of', params: { ...failure.params, line: line.position, code: failure.code } };

async function applyEach(actor: Actor, draft: Draft, each: readonly LineChange[]): Promise<Result<null>> {
  const missing = wants.find(
    ([permission, wanted]) => !may(actor, permission) && each.some(({ change }) => wanted(change)),
  )?.[0];
  if (missing) return fail('forbidden', { code: 'refused.permission', params: { permission: missing } });
  const wrong: Failure[] = [];
  const entries: AuditRow[] = [];
  const { lines } = connected().records;
  for (const { line, change } of each) {
    const bad = await problemOf(draft, line, change);
    if (bad) {
      wrong.push(said(each.length, line, bad));
      continue;
    }
    // Whether an alternative stands beside all lines is said of the one that counts in its set.
    const changes = columnsOf(line.alternative ? { ...change, optional: undefined } : change);
    const from = Object.fromEntries(Object.keys(changes).map((key) => [key, line[key as keyof LineRow]]));
    if (Object.keys(changes).length > 0) await lines.update(changes, { where: { id: line.id } });
    entries.push({
      userId: actor.id,
      action: 'line.changed',
      subject: draft.quote.number,
      details: { line: line.position, from, to: { ...changes } },
    });
  }
  await connected().records.audit.bulkCreate(entries);
  return wrong.length > 0 ? fail('invalid', ...wrong) : done(null);
}

/** What cannot be priced as it was typed. */
function wrongIn(each: readonly LineChange[], priced: readonly QuotedLine[]): Failure[] {
  const changed = new Map(each.map(({ line, change }) => [line.id, change]));
  return priced.flatMap(({ line, problems, recurs }): Failure[] => {
    const change = changed.get(line.id);
    if (!change) return [];
    const refused = problems.find(
      ({ code }) =>
        code === 'line.outside' || code === 'line.hand' || (change.term && code === 'line.tooShort'),
    );
    if (refused) return [said(each.length, line, { ...refused, field: fieldOf[refused.code] ?? '' })];
    return change.term && !recurs
      ? [said(each.length, line, { code: 'line.notRecurring', field: 'term' })]
      : [];
  });
}

/** Fills cells of several lines, each with its own value, all or none. */
export async function fillLines(
  actor: Actor,
  id: string,
  { version, rows }: LineValuesInput,
): Promise<Result<QuoteView>> {
  return changeEach(actor, id, version, (draft) => {
    const own = new Map(draft.state.lines.map((line) => [line.id, line]));
    const each = rows.flatMap(({ line, ...change }) => {
      const found = own.get(line);
      return found ? [{ line: found, change }] : [];
    });
    return each.length < rows.length ? fail('missing', { code: 'line.missing' }) : done(each);
  });
}

async function problemOf(
  { revision }: Draft,
  line: LineRow,
  { hand, price, cost, term, rates, quantity }: Change,
): Promise<Failure | undefined> {
  const item = (await reference()).items.get(line.sku);
  const bad =
    quantity === undefined
      ? undefined
      : wrongQuantity({ sku: line.sku, unit: item?.unit ?? 'pc', step: item?.step ?? null }, quantity);
  if (bad) return bad;
  if (hand && !item?.discountable)
    return { code: 'line.notDiscountable', params: { sku: line.sku }, field: 'hand' };
  const { entry, every } = (await entryOn(revision.priceList, line.pricedOn))(line.sku) ?? {};
  if (price !== undefined && (line.buildId !== null || entry?.method !== 'hand'))
    return { code: 'line.priceNotTyped', field: 'price' };
  if (cost !== undefined && (line.buildId !== null || entry?.method !== 'hand'))
    return { code: 'line.costNotTyped', field: 'cost' };
  if (rates && (entry?.method !== 'usage' || entry.slices.length !== rates.each.length))
    return { code: 'line.ratesNotTyped', field: 'rates' };
  if (term && line.buildId === null && !every) return { code: 'line.notRecurring', field: 'term' };
  if (term && every && tooShort(every, term))
    return { code: 'line.tooShort', params: { months: every.leastMonths ?? 0 }, field: 'term' };
  return undefined;
}

const arranged = ({ id, groupName }: LineRow) => ({ id, group: groupName });

/** Writes an order of lines and their groups. */
async function arrange(
  before: readonly LineRow[],
  after: readonly { id: string; group: string | null }[],
): Promise<void> {
  const rows = new Map(before.map((line) => [line.id, line]));
  const moved: { id: string; position: number; groupName: string | null }[] = [];
  for (const [index, { id, group }] of after.entries()) {
    const row = rows.get(id);
    if (row && (row.position !== index + 1 || row.groupName !== group))
      moved.push({ id, position: index + 1, groupName: group });
  }
  if (moved.length === 0) return;
  // One statement, however many there are.
  await connected().sequelize.query(
    'update quote_lines l set position = m.position, group_name = m."groupName" from jsonb_to_recordset($1::jsonb) as m(id uuid, position int, "groupName" text) where l.id = m.id',
    { bind: [JSON.stringify(moved)] },
  );
}

/** Moves lines to a place, counted from 1 among those that stay. */
export async function placeLines(
  actor: Actor,
  id: string,
  { version, lines: ids, to }: PlaceLinesInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = draft.state.lines;
    if (ids.some((each) => !all.some((line) => line.id === each)))
      return fail('missing', { code: 'line.missing' });
    await arrange(all, moved(all.map(arranged), ids, to));
    await record(actor, 'lines.moved', draft.quote.number, { lines: ids.length, to });
    return done(null);
  });
}

/** Another name for a group; the name of another group makes one of both. */
export async function renameGroup(
  actor: Actor,
  id: string,
  { version, from, to }: RenameGroupInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = draft.state.lines;
    const ids = all.filter((line) => line.groupName === from).map((line) => line.id);
    if (ids.length === 0) return fail('missing', { code: 'group.missing', params: { name: from } });
    if (from !== to) await arrange(all, grouped(all.map(arranged), ids, to));
    await record(actor, 'group.renamed', draft.quote.number, { from, to });
    return done(null);
  });
}

/** Takes lines away; the others close up. */
export async function removeLines(
  actor: Actor,
  id: string,
  { version, lines: ids }: LinesInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = draft.state.lines;
    const going = all.filter((line) => ids.includes(line.id));
    if (going.length < new Set(ids).size) return fail('missing', { code: 'line.missing' });
    await connected().records.lines.destroy({ where: { id: { [Op.in]: ids } } });
    const staying = all.filter((line) => !ids.includes(line.id));
    await arrange(all, staying.map(arranged));
    await settleAlternatives(staying);
    await record(actor, 'line.removed', draft.quote.number, {
      lines: going.map(({ sku, quantity }) => ({ sku, quantity })),
    });
    return done(null);
  });
}
