/** Keeping families: their names, what they are inside of, and the properties of their items. */
import type { FamilyInput, ItemsView } from '../../contract';
import { familyProblems, itemProblems, type Family } from '../../core/items';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { done, fail, type Failure, type Result } from '../kernel/failure';
import { stampPassed } from '../kernel/request';
import { inTransaction, record } from '../kernel/unit-of-work';
import { familiesIn, familyOf, holdItems, itemOf, seeItems } from './kept';

/** Items named at most where a change does not fit them. */
const mostNamed = 5;

/** Makes a family, or changes one; not so that what its items say would no longer fit. */
export const keepFamily = (
  actor: Actor,
  code: string,
  { version, ...input }: FamilyInput,
): Promise<Result<ItemsView>> =>
  inTransaction(async () => {
    await holdItems();
    const { records } = connected();
    const rows = await records.families.findAll({ raw: true, order: [['position', 'ASC']] });
    const row = rows.find((each) => each.code === code);
    if (row && version === undefined)
      return fail('conflict', { code: 'family.there', params: { family: code }, field: 'code' });
    if (version !== undefined && row?.version !== version)
      return fail('conflict', { code: 'family.stale', params: { family: code } });
    const family: Family = { code, ...input };
    const before = familiesIn({ families: rows });
    const problems: Failure[] = familyProblems(family, before);
    if (!Object.values(family.name).some((text) => text.trim() !== ''))
      problems.push({ code: 'family.noName', field: 'name' });
    if (problems.length > 0) return fail('invalid', ...problems);
    const unfit = await unfitFor(new Map(before).set(code, family));
    if (unfit) return fail('conflict', unfit);
    const last = Math.max(-1, ...rows.map(({ position }) => position));
    await records.families.upsert({
      ...family,
      position: row?.position ?? last + 1,
      version: (row?.version ?? 0) + 1,
    });
    stampPassed();
    await record(actor, row ? 'family.changed' : 'family.added', code, {
      ...(row ? { from: familyOf(row) } : {}),
      to: family,
    });
    return done(await seeItems());
  });

/** Items that say what the families would no longer let them say. */
async function unfitFor(families: ReturnType<typeof familiesIn>): Promise<Failure | null> {
  const rows = await connected().records.items.findAll({ raw: true });
  const all = new Map(rows.map((row) => [row.sku, row]));
  const unfit = rows.flatMap((row) => {
    const problem = itemProblems(itemOf(row), { families, items: all }).find(({ field }) =>
      field.startsWith('properties'),
    );
    return problem ? [{ sku: row.sku, property: problem.field.replace('properties.', '') }] : [];
  });
  const [first] = unfit;
  return first
    ? {
        code: 'family.unfit',
        params: {
          property: first.property,
          items: unfit
            .slice(0, mostNamed)
            .map(({ sku }) => sku)
            .join(', '),
          count: unfit.length,
        },
        field: 'properties',
      }
    : null;
}

/** Takes a family away in which nothing is. */
export const dropFamily = (actor: Actor, code: string, version: number): Promise<Result<ItemsView>> =>
  inTransaction(async () => {
    await holdItems();
    const { records } = connected();
    const row = await records.families.findByPk(code);
    if (!row) return fail('missing', { code: 'family.unknown', params: { family: code } });
    if (row.version !== version) return fail('conflict', { code: 'family.stale', params: { family: code } });
    const [items, inside, grants, discounts, limits] = [
      await records.items.count({ where: { family: code } }),
      await records.families.count({ where: { parent: code } }),
      await records.grants.count({ where: { family: code } }),
      await records.quantityDiscounts.count({ where: { family: code } }),
      await records.limits.count({ where: { family: code } }),
    ];
    if (items + inside + grants + discounts + limits > 0)
      return fail('conflict', {
        code: 'family.inUse',
        params: { family: code, items, inside, rules: grants + discounts + limits },
      });
    await row.destroy();
    stampPassed();
    await record(actor, 'family.removed', code, { from: familyOf(row.get({ plain: true })) });
    return done(await seeItems());
  });
