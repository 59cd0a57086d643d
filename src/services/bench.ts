/** What the Bench needs to open a build. */
import { outlineOf, type ModelDocument } from '../core/model';
import { differencesOf, pictureOf, type BenchView } from '../core/quoting';
import { connected } from '../data';
import { may, type Actor } from './actor';
import { buyerOf, grantsFor } from './grants';
import { registeredFor } from './builds';
import { today } from './clock';
import { done, type Result } from './failure';
import { findBuild } from './find-build';
import { compiledVersion, engineOf, newestVersion, versionById } from './models';
import { itemFacts, tariffFor } from './tariffs';

/** Items that a model, or one inside it, can be made of. */
function materialsOf({ materials, library }: ModelDocument): Set<string> {
  return new Set([...materials, ...(library?.models ?? []).flatMap((inner) => inner.materials)].map((row) => row.item));
}

/** Everything the Bench needs, without costs for those who may not see them. */
export async function openBench(actor: Actor, id: string): Promise<Result<BenchView>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { build, quote, revision } = found.value;
  const { lines, items, models, builds } = connected().records;
  const version = await versionById(build.modelVersionId);
  const newest = await newestVersion(version.modelId);
  const [line, tariff, facts] = [await lines.findOne({ where: { buildId: id } }), await tariffFor(actor, revision.priceList, build.context.date), await itemFacts()];
  const listed = await models.findByPk(version.modelId);
  const head = await items.findByPk(listed?.sku ?? '');
  const granted = (await grantsFor(await buyerOf(quote, revision)))(head?.sku ?? '', head?.family ?? '');
  const names = await items.findAll({ attributes: ['sku', 'name'], raw: true });
  const variants = await builds.findAll({ where: { talkId: build.talkId }, attributes: ['id', 'letter'], order: [['letter', 'ASC']], raw: true });
  const model = compiledVersion(version);
  const used = materialsOf(version.document);
  const numbers = await registeredFor(version, build.outcome);
  const terms = { quantity: line?.quantity ?? 1, day: build.context.date, ...granted, ...(line?.hand ? { hand: line.hand } : {}), ...(line?.term ? { term: line.term } : {}) };
  const engine = engineOf(version, build.context);
  const special = may(actor, 'costs') ? build.special : build.special.map((part) => ({ ...part, cost: '0' }));
  const content = { decisions: build.decisions, passed: build.passed, special };
  const { foldBarred = false, units = 'metric' } = actor.preferences;
  const means = { engine, tariff, terms, facts, ...numbers };
  const picture = pictureOf(means, content);
  return done({
    build: { id, version: build.version, letter: build.letter },
    content,
    variants: variants.map((each) => ({ id: each.id, letter: each.letter })),
    modelVersion: { number: version.number, newest: newest?.number ?? version.number },
    document: version.document,
    outline: outlineOf(model),
    context: build.context,
    tariff,
    terms,
    facts,
    itemNames: Object.fromEntries(names.filter((item) => used.has(item.sku)).map((item) => [item.sku, item.name])),
    quote: { id: quote.id, number: quote.number, version: quote.version, customer: revision.customer.name, state: revision.state },
    ...(line ? { line: { id: line.id, position: line.position } } : {}),
    ...numbers,
    today: today(),
    person: actor.name,
    may: { special: may(actor, 'special') },
    preferences: { foldBarred, units },
    picture,
    differences: differencesOf(means, content, picture.state),
  });
}
