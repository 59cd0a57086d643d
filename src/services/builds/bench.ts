/** What the Bench needs to open a build. */
import type { BenchView, BestInput } from '../../contract';
import type { BestAnswer } from '../../core/engine';
import type { Sale } from '../../core/items';
import { connected, type BuildRow, type ItemRow, type LineRow } from '../../data';
import { translator } from '../../i18n';
import { refusedInside, saleOf } from '../items/selling';
import { may, type Actor } from '../access/actor';
import { buyerAt, customerAt, goesTo, isOpen, type Home } from './home';
import { registeredFor } from './outcome';
import { today } from '../kernel/clock';
import { askEngine, askPatiently, factsKey, tariffKey } from '../kernel/engines';
import { done, type Result } from '../kernel/failure';
import { findBuild, type Found } from './find-build';
import { grantsFor } from '../settings/grants';
import { versionInForce, versionById, type VersionHead } from '../catalogue/models';
import { deliveryFrom } from '../settings/house';
import { reference } from '../settings/reference-data';
import type { BenchQuestion } from '../kernel/threads/tasks';

/** How a build is priced and timed where it belongs, as an engine is asked about it. */
export async function questionOf(
  actor: Actor,
  { build, home }: Found,
  version: VersionHead,
  line: LineRow | null,
): Promise<Omit<BenchQuestion, 'making' | 'registered' | 'specialNumber'>> {
  const known = await reference();
  const head = known.items.get(known.models.find(({ id }) => id === version.modelId)?.sku ?? '');
  const buyer = buyerAt(home);
  const granted = (await grantsFor(buyer))(head?.sku ?? '', head?.family ?? '', today());
  return {
    version: version.id,
    context: build.context,
    asked: build.asked,
    decisions: build.decisions,
    special: specialFor(actor, build),
    tariff: await tariffKey(buyer.priceList, build.context.date),
    withoutCosts: !may(actor, 'costs'),
    facts: await factsKey(),
    terms: {
      quantity: line?.quantity ?? 1,
      day: build.context.date,
      ...granted,
      ...(line?.hand ? { hand: line.hand } : {}),
      ...(line?.term ? { term: line.term } : {}),
    },
  };
}

const specialFor = (actor: Actor, { special }: BuildRow) =>
  may(actor, 'costs') ? special : special.map((part) => ({ ...part, cost: '0' }));

/** By whom, and to whom, a build is sold where it belongs; for nobody yet no customer bars anything. */
const saleAt = (actor: Actor, home: Home): Sale =>
  home.of === 'quote'
    ? saleOf(actor, home.revision)
    : { class: home.pricedFor.customer?.class ?? '', region: home.region, role: actor.role };

/** What is known of items, with why one may not be sold here, and its picture. */
function withSales(
  items: ReadonlyMap<string, ItemRow>,
  facts: BenchView['facts'],
  sale: Sale,
  actor: Actor,
): BenchView['facts'] {
  const t = translator(actor.language);
  return Object.fromEntries(
    Object.entries(facts).map(([sku, fact]) => {
      const [refused] = refusedInside(items, [sku], sale, actor);
      const picture = items.get(sku)?.picture ?? null;
      return [
        sku,
        {
          ...fact,
          ...(refused ? { unsold: t(refused.code as 'line.barred', refused.params) } : {}),
          ...(picture === null ? {} : { picture }),
        },
      ];
    }),
  );
}

/** Whether an actor is told how things are made: materials, cut sizes, operations. */
const seesMaking = (actor: Actor): boolean => may(actor, 'workOrders');

/**
 * Everything the Bench needs: without costs for those who may not see them, and without how it is made for
 * those who are not to know.
 */
export async function openBench(actor: Actor, id: string): Promise<Result<BenchView>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { build, home } = found.value;
  const { lines, builds } = connected().records;
  const version = await versionById(build.modelVersionId);
  const newest = await versionInForce(version.modelId);
  const line = await lines.findOne({ where: { buildId: id } });
  const variants = await builds.findAll({
    where: { variantGroup: build.variantGroup },
    attributes: ['id', 'letter'],
    order: [['letter', 'ASC']],
    raw: true,
  });
  const numbers = await registeredFor(version, build.outcome);
  const question = await questionOf(actor, found.value, version, line);
  const { document, outline, made, tariff, facts, picture, scene, differences, leadDays } = await askEngine(
    'bench',
    {
      ...question,
      ...numbers,
      making: seesMaking(actor),
    },
  );
  const { foldBarred = false, units = actor.units } = actor.preferences;
  const { items } = await reference();
  return done({
    build: { id, version: build.version, letter: build.letter },
    content: { decisions: build.decisions, passed: build.passed, special: question.special },
    variants: variants.map((each) => ({ id: each.id, letter: each.letter })),
    modelVersion: { number: version.number, newest: newest?.number ?? version.number },
    document,
    outline,
    context: build.context,
    asked: build.asked,
    tariff,
    terms: question.terms,
    facts: withSales(items, facts, saleAt(actor, home), actor),
    itemNames: Object.fromEntries(
      made.flatMap((sku) => {
        const item = items.get(sku);
        return item ? [[sku, item.name]] : [];
      }),
    ),
    customer: customerAt(home),
    mayChange: isOpen(home),
    ...(home.of === 'quote' ? { quote: { id: home.quote.id, number: home.quote.number } } : {}),
    ...(line ? { line: { id: line.id, position: line.position } } : {}),
    ...numbers,
    today: today(),
    delivery: await deliveryFrom(today(), goesTo(home)),
    person: actor.name,
    may: { special: may(actor, 'special'), making: seesMaking(actor) },
    preferences: { foldBarred, units },
    picture,
    differences,
    scene,
    leadDays,
  });
}

/**
 * The best build that keeps what is made, by weights and bounds. It takes as long as it takes, up to a
 * minute, and ends where nobody waits for it any more.
 */
export async function bestBuild(
  actor: Actor,
  id: string,
  { weights, bounds, free }: BestInput,
): Promise<Result<BestAnswer>> {
  const found = await findBuild(actor, id);
  if (!found.ok) return found;
  const { build, home } = found.value;
  return done(
    await askPatiently('best', {
      version: build.modelVersionId,
      context: build.context,
      asked: build.asked,
      tariff: await tariffKey(buyerAt(home).priceList, build.context.date),
      facts: await factsKey(),
      made: { decisions: build.decisions, special: build.special },
      wish: { weights, bounds, free },
    }),
  );
}
