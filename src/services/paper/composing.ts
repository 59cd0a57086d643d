/** Composing the document of a quote: what was chosen, what may be, and the pages. */
import type {
  ComposeInput,
  FileAnswer,
  PaperFormat,
  PaperTemplate,
  PaperText,
  PaperView,
  PaperWarning,
  QuoteView,
} from '../../contract';
import {
  compose,
  composedBy,
  fitOf,
  plainComposition,
  type Composition,
  type PaperDocument,
  type PaperGiven,
  type RichText,
} from '../../core/paper';
import { writingIn, type Market } from '../../core/quotes';
import type { PageDocument } from '../../core/sending';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { askEngine } from '../kernel/engines';
import { askLongPapers, askPapers } from '../kernel/papers';
import { inTransaction, record } from '../kernel/unit-of-work';
import { findQuote, holdQuote, stateOf, type QuoteBase, type QuoteState } from '../quotes/quote-state';
import { seeQuote } from '../quotes/quotes';
import { nameOf, reference } from '../settings/reference-data';
import { marketIn } from '../settings/house';
import { invoicedIn } from '../settings/addressed';
import { keepAnnexes, proposedAnnexes } from './data-sheets';
import { annexBytes, annexesGone, bytesOf, lookAtAnnexes, tooLarge } from './given-bytes';
import { paperWords } from '../../i18n/paper-words';
import { givenOf } from './given';
import { templatesAt, textsAt, textsIn } from './house-texts';

/** A quote with all that its document is chosen from. */
interface Choosing {
  seen: QuoteView;
  base: QuoteBase;
  state: QuoteState;
  revisionId: string;
  market: Market;
  texts: readonly PaperText[];
  /** Those that fit, the best first. */
  templates: readonly PaperTemplate[];
  usual: Composition;
}

async function choosing(actor: Actor, id: string, revision?: number): Promise<Result<Choosing>> {
  const seen = await seeQuote(actor, id, revision);
  if (!seen.ok) return seen;
  const base = await findQuote(actor, id);
  const state = base && (await stateOf(base, seen.value.revision.number));
  if (!base || !state) return fail('missing', { code: 'quote.missing' });
  const market = await marketIn(invoicedIn(seen.value.customer));
  const at = state.revision.settledAt;
  const of = { market: market.code, class: seen.value.customer.class, dealer: base.dealer?.id ?? null };
  const templates = (await templatesAt(at))
    .flatMap((template) => {
      const fit = fitOf(template.content, of);
      return fit === null ? [] : [{ template, fit }];
    })
    .sort((a, b) => b.fit - a.fit)
    .map(({ template }) => template);
  const usual = {
    language: writingIn(seen.value.customer.language, market),
    paper: market.paper,
  };
  const [best] = templates;
  return done({
    seen: seen.value,
    base,
    state,
    revisionId: state.revision.id,
    market,
    texts: await textsAt(at),
    templates,
    usual: best ? composedBy(best.code, best.content, usual) : plainComposition(usual),
  });
}

/** What was chosen: for this revision, for one before it, for the customer, or by the template. */
async function chosenFor({ base, revisionId, seen, usual }: Choosing): Promise<{
  composition: Composition;
  version: number;
  changedBy: string | null;
}> {
  const { paperCompositions, paperHabits } = connected().records;
  const own = await paperCompositions.findByPk(revisionId, { raw: true });
  if (own) return { composition: own.composition, version: own.version, changedBy: own.changedBy };
  const before = await connected().sequelize.query<{ composition: Composition }>(
    `select c.composition from paper_compositions c join quote_revisions r on r.id = c.revision_id
     where r.quote_id = $1 and r.number < $2 order by r.number desc limit 1`,
    { bind: [base.id, seen.revision.number], type: 'SELECT' as never },
  );
  const [earlier] = before as unknown as { composition: Composition }[];
  if (earlier) return { composition: earlier.composition, version: 0, changedBy: null };
  const habit = await paperHabits.findByPk(base.customerId, { raw: true });
  return {
    composition: habit ? habitOver(habit.composition, usual) : usual,
    version: 0,
    changedBy: null,
  };
}

/** What is usual for a customer, without what was written for one quote alone. */
const habitOver = (habit: Composition, usual: Composition): Composition => ({
  ...habit,
  language: usual.language,
  blocks: habit.blocks.map((block) => ({ ...block, own: null })),
  annexes: [],
});

/** The document of a quote as it is composed, with what may be chosen. */
export async function seePaper(actor: Actor, id: string, revision?: number): Promise<Result<PaperView>> {
  const found = await choosing(actor, id, revision);
  if (!found.ok) return found;
  const chosen = await chosenFor(found.value);
  return done(await viewOf(actor, found.value, chosen));
}

async function viewOf(
  actor: Actor,
  choice: Choosing,
  { composition, version, changedBy }: Awaited<ReturnType<typeof chosenFor>>,
): Promise<PaperView> {
  const { seen, usual, templates, texts } = choice;
  const given = await givenOf(actor, seen, {
    language: composition.language,
    units: choice.market.units,
    // Only the names of views are chosen from; drawing them all would be for nothing.
    drawn: false,
  });
  return {
    quote: {
      id: seen.id,
      number: seen.number,
      title: seen.title,
      revision: seen.revision.number,
      currency: seen.currency,
    },
    customer: seen.customer.name,
    version,
    changedBy: changedBy === null ? null : nameOf(await reference(), changedBy),
    mayEdit: seen.may.edit,
    composition,
    usual,
    templates: [...templates],
    texts: [...texts],
    views: await viewsOf(seen),
    proposed: seen.may.edit ? await proposedAnnexes(choice.state, composition.annexes) : [],
    warnings: await warningsOf(choice, composition, given),
  };
}

/** The views that the builds of a quote are drawn in. */
async function viewsOf({ lines }: QuoteView): Promise<PaperView['views']> {
  const id = lines.flatMap(({ buildId }) => buildId ?? []);
  if (id.length === 0) return [];
  const rows = await connected().records.builds.findAll({
    where: { id },
    attributes: ['modelVersionId'],
    group: ['modelVersionId'],
    order: ['modelVersionId'],
    raw: true,
  });
  return askEngine(
    'viewNames',
    rows.map(({ modelVersionId }) => modelVersionId),
  );
}

/** What whoever sends it should know. */
async function warningsOf(
  { texts, templates }: Choosing,
  composition: Composition,
  given: PaperGiven,
): Promise<PaperWarning[]> {
  const known = new Set(texts.map(({ code }) => code));
  return [
    ...(composition.template !== '' && !templates.some(({ code }) => code === composition.template)
      ? [{ is: 'gone', what: 'template', name: composition.template } as const]
      : []),
    ...composition.blocks.flatMap(({ on, text, own }): PaperWarning[] =>
      on && text !== '' && own === null && !known.has(text) ? [{ is: 'gone', what: 'text', name: text }] : [],
    ),
    ...(await annexesGone(composition.annexes)).map(({ name }): PaperWarning => ({
      is: 'gone',
      what: 'annex',
      name,
    })),
    ...(await askPapers('paperWarnings', {
      given,
      composition,
      texts: textsIn(texts, composition.language),
    })),
  ];
}

/** Keeps what was chosen for the newest revision, and remembers it for the customer. */
export const keepPaper = (
  actor: Actor,
  id: string,
  { version, composition: chosen }: ComposeInput,
): Promise<Result<PaperView>> =>
  inTransaction(async () => {
    const held = await holdQuote(actor, id);
    if (!held) return fail('missing', { code: 'quote.missing' });
    const found = await choosing(actor, id);
    if (!found.ok) return found;
    const { seen, revisionId, base } = found.value;
    if (!seen.may.edit) return fail('conflict', { code: 'paper.settled' });
    const { paperCompositions, paperHabits } = connected().records;
    const before = await paperCompositions.findByPk(revisionId, { raw: true });
    if ((before?.version ?? 0) !== version)
      return fail('conflict', {
        code: 'paper.composedBy',
        params: { name: nameOf(await reference(), before?.changedBy ?? actor.id) },
      });
    const annexes = await keepAnnexes(actor, id, chosen.annexes, before?.composition.annexes ?? []);
    if (!annexes.ok) return annexes;
    const composition = { ...chosen, annexes: annexes.value };
    const refused = await lookAtAnnexes(composition.annexes);
    if (refused) return fail('invalid', refused);
    const row = { composition, version: version + 1, changedBy: actor.id, changedAt: new Date() };
    await paperCompositions.upsert({ revisionId, ...row });
    await paperHabits.upsert({ customerId: base.customerId, composition, changedAt: new Date() });
    await record(actor, 'quote.composed', base.number, { revision: seen.revision.number });
    return done(await viewOf(actor, found.value, { composition, version: version + 1, changedBy: actor.id }));
  });

/** What a document of a quote is made of, as its customer may see it. */
export async function seeGiven(actor: Actor, id: string, revision?: number): Promise<Result<PaperGiven>> {
  const found = await choosing(actor, id, revision);
  if (!found.ok) return found;
  const { seen, market, usual } = found.value;
  return done(await givenOf(actor, seen, { language: usual.language, units: market.units, drawn: false }));
}

/** The pages of a document as it would be; nothing is kept. */
export async function pagesOf(
  actor: Actor,
  id: string,
  composition: Composition,
  revision?: number,
): Promise<Result<FileAnswer>> {
  const found = await choosing(actor, id, revision);
  return found.ok ? written(actor, found.value, composition, 'pdf') : found;
}

const media: Readonly<Record<PaperFormat, string>> = {
  pdf: 'application/pdf',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  html: 'text/html; charset=utf-8',
  xml: 'application/xml; charset=utf-8',
};

/** The media type of a format of quotations; none of what is no such format. */
export const mediaOf = (format: string): string | undefined =>
  Object.hasOwn(media, format) ? media[format as PaperFormat] : undefined;

/** The quotation of a revision in a format. */
export async function quotation(
  actor: Actor,
  id: string,
  format: string,
  revision?: number,
): Promise<Result<FileAnswer>> {
  if (!Object.hasOwn(media, format)) return fail('missing', { code: 'file.format' });
  const found = await choosing(actor, id, revision);
  if (!found.ok) return found;
  const { composition } = await chosenFor(found.value);
  return written(actor, found.value, composition, format as PaperFormat);
}

/** Lines of a quote from which on its pages take long. */
const manyLines = 250;
/** And annexes. */
const fewAnnexes = 4;

async function written(
  actor: Actor,
  { seen, market, texts, templates }: Choosing,
  composition: Composition,
  format: PaperFormat,
): Promise<Result<FileAnswer>> {
  // Nobody's memory is spent on what would not become a document.
  const large = await tooLarge(composition.annexes);
  if (large) return fail('invalid', large);
  const drawn = composition.blocks.some(({ kind, on }) => kind === 'drawings' && on);
  const given = await givenOf(actor, seen, { language: composition.language, units: market.units, drawn });
  const template = templates.find(({ code }) => code === composition.template);
  const mark = template?.content.mark ?? given.house.mark;
  // Only a document of pages has others joined to it; pictures stand in all but figures.
  const annexes = composition.annexes.filter(({ kind }) =>
    kind === 'pdf' ? format === 'pdf' : format !== 'xlsx',
  );
  const long = given.lines.length > manyLines || annexes.length > fewAnnexes;
  const ask = long ? askLongPapers : askPapers;
  const made = await ask('paper', {
    given: { ...given, house: { ...given.house, mark } },
    composition,
    texts: textsIn(texts, composition.language) satisfies Record<string, RichText>,
    format,
    files: { ...(await bytesOf(mark === null ? [] : [mark])), ...(await annexBytes(actor, annexes)) },
  });
  if (made.is === 'refused') return fail('invalid', { code: made.code, params: { name: made.name } });
  return done({
    name: `${seen.number}-R${String(seen.revision.number)}.${format}`,
    type: media[format],
    bytes: made.bytes,
    ...(format === 'html'
      ? {
          headers: {
            'content-security-policy':
              "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
          },
        }
      : {}),
  });
}

/** The document of a revision for a page, with all that the page may name of the quote. */
export async function quotationPage(
  actor: Actor,
  id: string,
  revision: number,
): Promise<Result<{ page: PageDocument; given: PaperGiven }>> {
  const found = await choosing(actor, id, revision);
  if (!found.ok) return found;
  const { seen, market, texts, templates } = found.value;
  const { composition } = await chosenFor(found.value);
  const given = await givenOf(actor, seen, {
    language: composition.language,
    units: market.units,
    drawn: composition.blocks.some(({ kind, on }) => kind === 'drawings' && on),
  });
  const mark = templates.find(({ code }) => code === composition.template)?.content.mark ?? given.house.mark;
  const long = given.lines.length > manyLines;
  const page = await (long ? askLongPapers : askPapers)('quotationPage', {
    given: { ...given, house: { ...given.house, mark } },
    composition,
    texts: textsIn(texts, composition.language),
  });
  return done({ page, given });
}

/** The composed document of a revision, before it is written in any format. */
export async function documentOf(
  actor: Actor,
  id: string,
  revision?: number,
  chosen?: (composition: Composition) => Composition,
): Promise<Result<PaperDocument>> {
  const found = await choosing(actor, id, revision);
  if (!found.ok) return found;
  const { seen, market, texts } = found.value;
  const kept = (await chosenFor(found.value)).composition;
  const composition = chosen?.(kept) ?? kept;
  const given = await givenOf(actor, seen, {
    language: composition.language,
    units: market.units,
    drawn: true,
  });
  return done(
    compose({
      given,
      composition,
      texts: textsIn(texts, composition.language),
      words: paperWords(composition.language, given.decimals),
    }),
  );
}
