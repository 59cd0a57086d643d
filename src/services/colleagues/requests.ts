/** What colleagues ask one another about a quote, and what comes of an answer. */
import { randomUUID } from 'node:crypto';
import { answers, requestState } from '../../core/colleagues';
import type { BuildItem, ColleaguesView, RequestAnswerInput, RequestInput } from '../../contract';
import { connected, type BuildRow, type QuoteRequestRow } from '../../data';
import { refusal, type Actor } from '../access/actor';
import { saveContent } from '../builds/save';
import { askEngine } from '../kernel/engines';
import { done, fail, type Result } from '../kernel/failure';
import { tell } from '../kernel/live';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { findQuote, stateOf, type QuoteBase } from '../quotes/quote-state';
import { reference } from '../settings/reference-data';
import { aboutQuote } from './notes';
import { allOf, colleaguesOf } from './people';

/** So many may wait for an answer at one quote. */
const mostOpen = 50;

/** Asks a colleague to look, or a technical question at a line. */
export const askColleague = (
  actor: Actor,
  id: string,
  { kind, of, role, line, item, words }: RequestInput,
): Promise<Result<ColleaguesView>> =>
  aboutQuote(actor, id, async (quote) => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    // A dealer's quotes are seen by nobody in the house.
    if (actor.role === 'dealer') return fail('forbidden', { code: 'colleague.dealer' });
    const asked = await personOrRole(actor, of ?? null, role ?? null);
    if (!asked.ok) return asked;
    const { quoteRequests } = connected().records;
    const open = await quoteRequests.count({ where: { quoteId: id, answeredAt: null, closedAt: null } });
    if (open >= mostOpen)
      return fail('invalid', { code: 'colleague.tooManyOpen', params: { most: mostOpen } });
    const place = await placeOf(quote, line ?? null, item ?? null);
    if (!place.ok) return place;
    await quoteRequests.create({
      id: randomUUID(),
      quoteId: id,
      kind,
      ...place.value,
      item: item ?? null,
      askedOf: of ?? null,
      role: role ?? null,
      words,
      madeBy: actor.id,
      madeAt: new Date(),
      answer: null,
      part: null,
      answeredBy: null,
      answeredAt: null,
      takenAt: null,
      closedAt: null,
    });
    await record(actor, 'colleague.asked', quote.number, { kind });
    await tell(asked.value, { kind: 'colleague', quote: id });
    return done(null);
  });

async function personOrRole(
  actor: Actor,
  of: string | null,
  role: QuoteRequestRow['role'],
): Promise<Result<string[]>> {
  if (role !== null) return done((await allOf(role)).filter((id) => id !== actor.id));
  const person = (await colleaguesOf(actor)).find(({ id }) => id === of);
  return person ? done([person.id]) : fail('invalid', { code: 'colleague.unknown', field: 'of' });
}

type Place = Pick<QuoteRequestRow, 'lineOrigin' | 'lineNamed'>;

/** The line that something is asked at; an item has to be of its build. */
async function placeOf(quote: QuoteBase, id: string | null, item: string | null): Promise<Result<Place>> {
  if (id === null) return done({ lineOrigin: null, lineNamed: null });
  const state = await stateOf(quote);
  const line = state?.lines.find((each) => each.id === id);
  if (!state || !line) return fail('missing', { code: 'line.missing' });
  const build = state.builds.get(line.buildId ?? '');
  if (item !== null && !(build && (await itemsOf(build)).includes(item)))
    return fail('invalid', { code: 'colleague.notInBuild', params: { item }, field: 'item' });
  const name = (await reference()).items.get(line.sku)?.name ?? {};
  return done({ lineOrigin: line.origin, lineNamed: { position: line.position, name } });
}

/** What is in a build, by its item numbers. */
async function itemsOf(build: BuildRow): Promise<string[]> {
  const [made] = await askEngine('making', [{ version: build.modelVersionId, values: build.outcome.values }]);
  return (made?.materials ?? []).map(({ item }) => item);
}

/** Of what items the build of a line is made, each once. */
export async function seeBuildItems(actor: Actor, id: string, line: string): Promise<Result<BuildItem[]>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  const quote = await findQuote(actor, id);
  const state = quote && (await stateOf(quote));
  const found = state?.lines.find((each) => each.id === line);
  if (!state || !found) return fail('missing', { code: 'line.missing' });
  const build = state.builds.get(found.buildId ?? '');
  const { items } = await reference();
  const skus = build ? [...new Set(await itemsOf(build))] : [];
  return done(skus.map((sku) => ({ sku, name: items.get(sku)?.name ?? {} })));
}

/** Something that was asked, with its quote, for who sees that. */
async function about(
  actor: Actor,
  id: string,
  work: (request: QuoteRequestRow, quote: QuoteBase) => Promise<Result<unknown>>,
): Promise<Result<ColleaguesView>> {
  const { quoteRequests } = connected().records;
  const missing = fail('missing', { code: 'colleague.missing' });
  const found = isReference(id) ? await quoteRequests.findByPk(id, { raw: true }) : null;
  if (!found || !(await findQuote(actor, found.quoteId))) return missing;
  return aboutQuote(actor, found.quoteId, async (quote) => {
    // Read again, as of two answers at once the second one meets the first.
    const row = await quoteRequests.findByPk(id, { raw: true });
    return row ? work(row, quote) : missing;
  });
}

const standOf = (row: QuoteRequestRow) => ({
  ...row,
  answered: row.answeredAt !== null,
  taken: row.takenAt !== null,
  closed: row.closedAt !== null,
});

/** Answers it, once. */
export const answerColleague = (
  actor: Actor,
  id: string,
  { words, part }: RequestAnswerInput,
): Promise<Result<ColleaguesView>> =>
  about(actor, id, async (row, quote) => {
    const stand = standOf(row);
    if (requestState(stand) !== 'open') return fail('conflict', { code: 'colleague.answered' });
    if (!answers(actor, stand)) return fail('forbidden', { code: 'colleague.notAsked' });
    if (part && row.item === null) return fail('invalid', { code: 'colleague.noItem', field: 'part' });
    await connected().records.quoteRequests.update(
      {
        answer: words,
        part: part && row.item !== null ? { ...part, item: row.item } : null,
        answeredBy: actor.id,
        answeredAt: new Date(),
      },
      { where: { id } },
    );
    await record(actor, 'colleague.answered', quote.number, { kind: row.kind, part: Boolean(part) });
    await tell([...new Set([row.madeBy, quote.ownerId])], { kind: 'colleague', quote: quote.id });
    return done(null);
  });

/** Puts the special part into the build, as it stands in the newest revision, in the place of whatever was there. */
export const takePart = (actor: Actor, id: string): Promise<Result<ColleaguesView>> =>
  inTransaction(() =>
    about(actor, id, async (row, quote) => {
      const { part } = row;
      if (requestState(standOf(row)) !== 'answered' || !part)
        return fail('conflict', { code: 'colleague.nothingToTake' });
      const state = await stateOf(quote);
      const line = state?.lines.find(({ origin }) => origin === row.lineOrigin);
      const build = state?.builds.get(line?.buildId ?? '');
      if (!build) return fail('conflict', { code: 'colleague.lineGone' });
      if (!(await itemsOf(build)).includes(part.item))
        return fail('conflict', { code: 'colleague.itemGone', params: { item: part.item } });
      const { decisions, passed, special, version } = build;
      const saved = await saveContent(actor, build.id, {
        version,
        decisions: [...decisions],
        passed: passed.map(({ rule, reason }) => ({ rule, reason })),
        special: [...special.filter(({ item }) => item !== part.item), part],
      });
      if (!saved.ok) return saved;
      const now = new Date();
      await connected().records.quoteRequests.update({ takenAt: now, closedAt: now }, { where: { id } });
      await record(actor, 'colleague.taken', quote.number, { item: part.item, text: part.text });
      await tell([row.madeBy, quote.ownerId], { kind: 'desk', quote: quote.id });
      return done(null);
    }),
  );

/** Puts an answer aside, or withdraws what nobody answered yet; whoever asked may. */
export const closeRequest = (actor: Actor, id: string): Promise<Result<ColleaguesView>> =>
  about(actor, id, async (row, quote) => {
    if (row.madeBy !== actor.id) return fail('forbidden', { code: 'colleague.notYours' });
    if (row.closedAt !== null) return done(null);
    await connected().records.quoteRequests.update({ closedAt: new Date() }, { where: { id } });
    const asked = row.askedOf === null ? await allOf(row.role ?? 'modeller') : [row.askedOf];
    await tell([...asked, actor.id], { kind: 'desk', quote: quote.id });
    return done(null);
  });
