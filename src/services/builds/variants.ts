/** Variants: several builds next to each other while talking, told apart by letters. */
import { Op } from 'sequelize';
import type { SendVariantsInput, VariantInput, VariantView, QuoteView } from '../../contract';
import { connected, type BuildRow, type Stored } from '../../data';
import type { Actor } from '../access/actor';
import { questionOf } from './bench';
import { createBuild } from './begin';
import { subjectAt } from './home';
import { done, fail, type Result } from '../kernel/failure';
import { findBuild, findOpenBuild } from './find-build';
import { askEngine } from '../kernel/engines';
import { versionById } from '../catalogue/models';
import { appendBuild } from '../quotes/lines/quote-builds';
import { changeQuote } from '../quotes/quotes';
import { makeAlternatives } from '../quotes/lines/alternatives';
import { inTransaction, record } from '../kernel/unit-of-work';

const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** Another variant of a group: a copy of the one at hand, or an empty one of the same model version. */
export async function addVariant(
  actor: Actor,
  id: string,
  { empty }: VariantInput,
): Promise<Result<{ id: string; letter: string }>> {
  return inTransaction(async () => {
    const found = await findOpenBuild(actor, id);
    if (!found.ok) return found;
    const { build, home } = found.value;
    const taken = new Set((await variantsOf(build)).map((each) => each.letter));
    const letter = Array.from(letters).find((each) => !taken.has(each));
    if (letter === undefined) return fail('invalid', { code: 'variant.tooMany' });
    const version = await versionById(build.modelVersionId);
    const { asked, decisions, special } = build;
    const content = empty ? { asked } : { asked, decisions, special };
    const made = await createBuild(actor, {
      home,
      version,
      ...content,
      group: { id: build.variantGroup, letter },
      date: build.context.date,
    });
    return done({ id: made.id, letter });
  });
}

/** Takes a variant away; one that is on the quote, and the last one, stay. */
export async function removeVariant(actor: Actor, id: string): Promise<Result<null>> {
  return inTransaction(async () => {
    const found = await findOpenBuild(actor, id);
    if (!found.ok) return found;
    const { build, home } = found.value;
    const all = await variantsOf(build);
    if (all.length < 2) return fail('invalid', { code: 'variant.last' });
    if (await connected().records.lines.findOne({ where: { buildId: id } }))
      return fail('conflict', { code: 'build.onQuote', params: { number: subjectAt(home) } });
    await build.destroy();
    await record(actor, 'build.removed', subjectAt(home), { build: id, letter: build.letter });
    return done(null);
  });
}

/** Every variant of a group, for the table of differences. */
export async function seeVariants(actor: Actor, id: string): Promise<Result<VariantView[]>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const views: VariantView[] = [];
  for (const build of await variantsOf(found.value.build)) {
    const version = await versionById(build.modelVersionId);
    const line = await connected().records.lines.findOne({ where: { buildId: build.id } });
    const {
      state,
      number,
      line: priced,
      leadDays,
      figures,
    } = await askEngine('picture', await questionOf(actor, { ...found.value, build }, version, line));
    views.push({
      id: build.id,
      letter: build.letter,
      partNumber: build.outcome.partNumber || number.text,
      complete: state.complete,
      values: state.values,
      shown: Object.values(state.rows).flatMap((row) => (row.shown ? [row.id] : [])),
      unitNet: priced.unitNet,
      leadDays,
      figures,
      ...(line ? { line: line.position } : {}),
    });
  }
  return done(views);
}

const variantsOf = (build: BuildRow): Promise<Stored<BuildRow>[]> =>
  connected().records.builds.findAll({
    where: { variantGroup: build.variantGroup },
    order: [['letter', 'ASC']],
  });

/**
 * Puts variants on the quote, each as a line; as alternatives of one another and of what is there of their
 * group already, the first of which counts.
 */
export async function sendVariants(
  actor: Actor,
  quoteId: string,
  { version, builds, alternatives }: SendVariantsInput,
): Promise<Result<QuoteView>> {
  return changeQuote(actor, quoteId, version, async (draft) => {
    const { lines, builds: made } = connected().records;
    const groups = new Set<string>();
    for (const id of builds) {
      const found = await findBuild(actor, id);
      if (!found.ok) return found;
      const { build, home } = found.value;
      if (home.of !== 'quote' || home.quote.id !== quoteId) return fail('missing', { code: 'build.missing' });
      groups.add(build.variantGroup);
      if (alternatives && (await lines.findOne({ where: { buildId: id } }))) continue;
      const put = await appendBuild(actor, draft, build, { quantity: 1 });
      if (!put.ok) return put;
    }
    if (!alternatives) return done(null);
    const own = await made.findAll({ where: { variantGroup: { [Op.in]: [...groups] } }, attributes: ['id'] });
    const onQuote = await lines.findAll({
      where: { revisionId: draft.revision.id, buildId: own.map((build) => build.id) },
    });
    await makeAlternatives(
      draft,
      onQuote.map((line) => line.id),
    );
    return done(null);
  });
}
