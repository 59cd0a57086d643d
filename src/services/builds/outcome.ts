/** What follows from a build, worked out on the server, and the numbers registered for it. */
import { Op, type Model } from 'sequelize';
import type { Context, Decision } from '../../core/engine';
import { registeredAs, type Registered, type Registration } from '../../core/numbering';
import { specialKey, type BuildContent } from '../../core/builds';
import { connected, type BuildOutcome } from '../../data';
import { askEngine } from '../kernel/engines';
import type { VersionHead } from '../catalogue/models';
import { keepFacts } from '../quotes/figures/quote-facts';
import type { Found } from './find-build';

/** What a build is made of, by whoever answered its needs and by whoever decided. */
export type Content = BuildContent & { asked: readonly Decision[] };

/** What a build comes to counts on its quote where it stands on a line. */
export async function keepFactsOf({ build, home }: Found): Promise<void> {
  if (home.of === 'quote' && (await connected().records.lines.count({ where: { buildId: build.id } })) > 0)
    await keepFacts(home.quote);
}

/** Everything that follows from a build's content, and the numbers registered for it. */
export async function outcomeOf(
  { id: version, modelId }: VersionHead,
  context: Context,
  { asked, decisions, passed, special }: Content,
): Promise<BuildOutcome> {
  const { outcome, own, inside } = await askEngine('outcome', {
    version,
    context,
    asked,
    decisions,
    passed,
  });
  const numbers = await registerAll([...(own ? [own] : []), ...inside]);
  const sequence = own && numbers.get(own);
  const marks = specialKey(special);
  const specialNumber = marks === null ? undefined : await register(modelId, marks);
  const partNumber = await askEngine('number', {
    version,
    values: outcome.values,
    ...(sequence === undefined ? {} : { sequence }),
    ...(marks === null ? {} : { special: { number: specialNumber } }),
  });
  return { ...outcome, partNumber, ...(specialNumber === undefined ? {} : { specialNumber }) };
}

/**
 * Numbers for a build and those inside it; models are locked in one order, so that nobody waits for each
 * other.
 */
async function registerAll(wanted: readonly Registration[]): Promise<Map<Registration, number>> {
  const found = new Map<Registration, number>();
  for (const each of [...wanted].sort((a, b) => (a.model < b.model ? -1 : 1)))
    found.set(each, await register(each.model, each.key));
  return found;
}

/**
 * The number registered for what a part number's codes cannot say; the same content always gets the same
 * number.
 */
async function register(modelId: string, key: string): Promise<number> {
  const { registeredNumbers, models } = connected().records;
  const known = await registeredNumbers.findOne({ where: { modelId, key } });
  if (known) return known.number;
  // The model's row is the lock under which its numbers are given out.
  await models.findByPk(modelId, { lock: true });
  const again = await registeredNumbers.findOne({ where: { modelId, key } });
  if (again) return again.number;
  const last = await registeredNumbers.max<number | null, Model>('number', { where: { modelId } });
  return (await registeredNumbers.create({ modelId, key, number: (last ?? 0) + 1 })).number;
}

/** The numbers that are registered for an outcome by now. */
export async function registeredFor(
  { id: version }: VersionHead,
  { values, specialNumber }: BuildOutcome,
): Promise<{ registered?: Registered; specialNumber?: number }> {
  const wanted = await askEngine('registrations', { version, values });
  const rows =
    wanted.length === 0
      ? []
      : await connected().records.registeredNumbers.findAll({
          where: {
            modelId: { [Op.in]: wanted.map(({ model }) => model) },
            key: { [Op.in]: wanted.map(({ key }) => key) },
          },
          raw: true,
        });
  const registered = Object.fromEntries(
    rows.map(({ modelId, key, number }) => [registeredAs({ model: modelId, key }), number]),
  );
  return {
    ...(rows.length > 0 ? { registered } : {}),
    ...(specialNumber === undefined ? {} : { specialNumber }),
  };
}

/** Of decisions those that a version of a model has a place for. */
export async function withPlace<T extends Decision>(
  { id: version }: VersionHead,
  decisions: readonly T[],
): Promise<T[]> {
  if (decisions.length === 0) return [];
  const lost = new Set((await askEngine('check', { version, decisions })).map(({ on }) => on));
  return decisions.filter(({ on }) => !lost.has(on));
}
