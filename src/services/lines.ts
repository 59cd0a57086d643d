/** Lines of a draft: changed one by one or many together, moved, grouped, taken away. */
import { randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import { exact } from '../core/exact';
import { tooShort } from '../core/pricing';
import { grouped, moved, plainMoney, typedOf, type ChangeLineInput, type ChangeLinesInput, type LinesInput, type LineValuesInput, type PlaceLinesInput, type QuoteView, type RenameGroupInput } from '../core/quoting';
import { connected, type LineRow, type Stored } from '../data';
import { may, type Actor, type Permission } from './actor';
import { today } from './clock';
import { done, fail, type Failure, type Result } from './failure';
import { partsOf, priceLines } from './quote-pricing';
import { changeQuote, linesOf, type Draft } from './quotes';
import { settleRivals } from './rivals';
import { entriesOf } from './tariffs';
import { record } from './work';
import { isReference } from './reference';

type NewLine = Pick<LineRow, 'sku' | 'quantity' | 'buildId'> & Partial<Omit<LineRow, 'id' | 'revisionId' | 'position' | 'frozen'>>;

/** Adds a line at the end, priced as of today unless another day is given. */
export async function appendLine({ revision }: Pick<Draft, 'revision'>, line: NewLine): Promise<LineRow> {
  const { lines } = connected().records;
  const last = (await lines.max('position', { where: { revisionId: revision.id } })) as number | null;
  const id = randomUUID();
  return lines.create(
    { id, revisionId: revision.id, position: (last ?? 0) + 1, hand: null, locked: false, optional: false, term: null, typedPrice: null, typedCost: null, frozen: null, alternative: false, rivals: null, origin: id, pricedOn: today(), groupName: null, rates: null, resale: null, ...line },
  );
}

export async function lineOf({ revision }: Draft, lineId: string) {
  return isReference(lineId) ? connected().records.lines.findOne({ where: { id: lineId, revisionId: revision.id } }) : null;
}

/** Changes what is typed on a line. */
export async function changeLine(actor: Actor, id: string, lineId: string, { version, ...change }: ChangeLineInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const line = await lineOf(draft, lineId);
    return line ? applyTo(actor, draft, [line], change) : fail('missing', { code: 'line.missing' });
  });
}

/** Changes several lines in the same way, all or none. */
export async function changeLines(actor: Actor, id: string, { version, lines: ids, group, ...change }: ChangeLinesInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = await linesOf(draft);
    const marked = all.filter((line) => ids.includes(line.id));
    if (marked.length < new Set(ids).size) return fail('missing', { code: 'line.missing' });
    if (group !== undefined) {
      await arrange(all, grouped(all.map(arranged), ids, group));
      await record(actor, 'lines.grouped', draft.quote.number, { lines: marked.map(({ position }) => position), group });
    }
    return Object.values(change).some((value) => value !== undefined) ? applyTo(actor, draft, marked, change) : done(null);
  });
}

/** What is to be changed on a line. */
type Change = Omit<ChangeLineInput, 'version'>;

const applyTo = (actor: Actor, draft: Draft, lines: readonly Stored<LineRow>[], change: Change): Promise<Result<null>> => applyEach(actor, draft, lines.map((line) => ({ line, change })));

const columnsOf = ({ hand, price, cost, quantity, rates, resale, ...others }: Change): Partial<LineRow> => ({
  ...(quantity === undefined ? {} : { quantity }),
  ...(hand === undefined ? {} : { hand: hand && typedOf(hand) }),
  ...(rates === undefined ? {} : { rates: rates && { each: rates.each.map((rate) => exact(plainMoney(rate)).toString()), ...(rates.least === undefined ? {} : { least: exact(plainMoney(rates.least)).toString() }) } }),
  ...(resale === undefined ? {} : { resale: resale === null ? null : exact(plainMoney(resale)).toString() }),
  ...(price === undefined ? {} : { typedPrice: exact(plainMoney(price)).toString() }),
  ...(cost === undefined ? {} : { typedCost: cost === null ? null : exact(plainMoney(cost)).toString() }),
  ...Object.fromEntries(Object.entries(others).filter(([, value]) => value !== undefined)),
});

/** What one must be allowed to do for what. */
const wants: readonly (readonly [Permission, (change: Change) => boolean])[] = [
  ['discount', ({ hand, price, cost, locked }) => Boolean(hand) || price !== undefined || cost !== undefined || locked !== undefined],
  ['costs', ({ hand, cost }) => hand?.by === 'margin' || cost !== undefined],
  ['rates', ({ rates }) => Boolean(rates)],
  ['resale', ({ resale }) => resale !== undefined],
];

const fieldOf: Readonly<Record<string, string>> = { 'line.outside': 'quantity', 'line.hand': 'hand', 'line.tooShort': 'term' };

/** Makes changes, all or none; of several, each refusal names its line. */
async function applyEach(actor: Actor, draft: Draft, each: readonly { line: Stored<LineRow>; change: Change }[]): Promise<Result<null>> {
  const missing = wants.find(([permission, wanted]) => !may(actor, permission) && each.some(({ change }) => wanted(change)))?.[0];
  if (missing) return fail('forbidden', { code: 'refused.permission', params: { permission: missing } });
  const wrong: Failure[] = [];
  const said = (line: LineRow, failure: Failure) => wrong.push(each.length === 1 ? failure : { code: 'line.of', params: { ...failure.params, line: line.position, code: failure.code } });
  for (const { line, change } of each) {
    const bad = await problemOf(draft, line, change);
    if (bad) {
      said(line, bad);
      continue;
    }
    // Whether an alternative stands beside all lines is said of the one that counts in its set.
    const changes = columnsOf(line.alternative ? { ...change, optional: undefined } : change);
    const from = Object.fromEntries(Object.keys(changes).map((key) => [key, line[key as keyof LineRow]]));
    await line.update(changes);
    await record(actor, 'line.changed', draft.quote.number, { line: line.position, from, to: { ...changes } });
  }
  if (wrong.length > 0) return fail('invalid', ...wrong);
  // What would be priced, tried on all that the lines now say.
  const changed = new Map(each.map(({ line, change }) => [line.id, change]));
  for (const { line, problems, recurs } of await priceLines(await partsOf(draft.quote))) {
    const change = changed.get(line.id);
    if (!change) continue;
    const refused = problems.find(({ code }) => code === 'line.outside' || code === 'line.hand' || (change.term && code === 'line.tooShort'));
    if (refused) said(line, { ...refused, field: fieldOf[refused.code] ?? '' });
    else if (change.term && !recurs) said(line, { code: 'line.notRecurring', field: 'term' });
  }
  return wrong.length > 0 ? fail('invalid', ...wrong) : done(null);
}

/** Fills cells of several lines, each with its own value, all or none. */
export async function fillLines(actor: Actor, id: string, { version, rows }: LineValuesInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const own = new Map((await linesOf(draft)).map((line) => [line.id, line]));
    const each = rows.flatMap(({ line, ...change }) => {
      const found = own.get(line);
      return found ? [{ line: found, change }] : [];
    });
    return each.length < rows.length ? fail('missing', { code: 'line.missing' }) : applyEach(actor, draft, each);
  });
}

async function problemOf({ revision }: Draft, line: LineRow, { hand, price, cost, term, rates }: Change): Promise<Failure | undefined> {
  const item = await connected().records.items.findByPk(line.sku);
  if (hand && !item?.discountable) return { code: 'line.notDiscountable', params: { sku: line.sku }, field: 'hand' };
  const { entry, every } = (await entriesOf(revision.priceList, line.pricedOn, [line.sku])).get(line.sku) ?? {};
  if (price !== undefined && (line.buildId !== null || entry?.method !== 'hand')) return { code: 'line.priceNotTyped', field: 'price' };
  if (cost !== undefined && (line.buildId !== null || entry?.method !== 'hand')) return { code: 'line.costNotTyped', field: 'cost' };
  if (rates && (entry?.method !== 'usage' || entry.slices.length !== rates.each.length)) return { code: 'line.ratesNotTyped', field: 'rates' };
  if (term && line.buildId === null && !every) return { code: 'line.notRecurring', field: 'term' };
  if (term && every && tooShort(every, term)) return { code: 'line.tooShort', params: { months: every.leastMonths ?? 0 }, field: 'term' };
  return undefined;
}

const arranged = ({ id, groupName }: LineRow) => ({ id, group: groupName });

/** Writes an order of lines and their groups. */
async function arrange(before: readonly Stored<LineRow>[], after: readonly { id: string; group: string | null }[]): Promise<void> {
  const rows = new Map(before.map((line) => [line.id, line]));
  for (const [index, { id, group }] of after.entries()) {
    const row = rows.get(id);
    if (row && (row.position !== index + 1 || row.groupName !== group)) await row.update({ position: index + 1, groupName: group });
  }
}

/** Moves lines to a place, counted from 1 among those that stay. */
export async function placeLines(actor: Actor, id: string, { version, lines: ids, to }: PlaceLinesInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = await linesOf(draft);
    if (ids.some((each) => !all.some((line) => line.id === each))) return fail('missing', { code: 'line.missing' });
    await arrange(all, moved(all.map(arranged), ids, to));
    await record(actor, 'lines.moved', draft.quote.number, { lines: ids.length, to });
    return done(null);
  });
}

/** Another name for a group; the name of another group makes one of both. */
export async function renameGroup(actor: Actor, id: string, { version, from, to }: RenameGroupInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = await linesOf(draft);
    const ids = all.filter((line) => line.groupName === from).map((line) => line.id);
    if (ids.length === 0) return fail('missing', { code: 'group.missing', params: { name: from } });
    if (from !== to) await arrange(all, grouped(all.map(arranged), ids, to));
    await record(actor, 'group.renamed', draft.quote.number, { from, to });
    return done(null);
  });
}

/** Takes lines away; the others close up. */
export async function removeLines(actor: Actor, id: string, { version, lines: ids }: LinesInput): Promise<Result<QuoteView>> {
  return changeQuote(actor, id, version, async (draft) => {
    const all = await linesOf(draft);
    const going = all.filter((line) => ids.includes(line.id));
    if (going.length < new Set(ids).size) return fail('missing', { code: 'line.missing' });
    await connected().records.lines.destroy({ where: { id: { [Op.in]: ids } } });
    const staying = all.filter((line) => !ids.includes(line.id));
    await arrange(all, staying.map(arranged));
    await settleRivals(staying);
    await record(actor, 'line.removed', draft.quote.number, { lines: going.map(({ sku, quantity }) => ({ sku, quantity })) });
    return done(null);
  });
}
