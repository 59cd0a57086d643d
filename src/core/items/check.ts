/** What is wrong with an item before it is kept, and what should be looked at once more. */
import { exact, readExact, type ExactText } from '../exact';
import type { Texts } from '../model';
import { chainOf, propertiesOf, valueProblem, type Families } from './families';
import type { Item, ItemProblem } from './types';

/** All others, as far as an item is held against them. */
export interface Around {
  families: Families;
  /** What each item is replaced by. */
  items: ReadonlyMap<string, Pick<Item, 'replacedBy'>>;
}

/** How a number of an item is written. */
export const skuPattern = /^[A-Z0-9][A-Z0-9.+/-]{0,39}$/;

const notNegative = (text: ExactText): boolean => exact(text).gte(0);

const plain = (amount: ExactText | null): ExactText | null =>
  amount === null ? null : exact(amount).toString();

/** A text without languages in which nothing is said. */
const said = (texts: Texts): Texts =>
  Object.fromEntries(Object.entries(texts).filter(([, text]) => text.trim() !== ''));

/** An item as it is kept: amounts in their one form, and no text that says nothing. What cannot be read stays. */
export function tidied(item: Item, families: Families): Item {
  const numbers = new Set(
    propertiesOf(families, item.family).flatMap(({ id, is }) => (is === 'number' ? id : [])),
  );
  return {
    ...item,
    name: said(item.name),
    note: said(item.note),
    says: said(item.says),
    cost: plain(item.cost) ?? '0',
    mass: plain(item.mass),
    usualQuantity: plain(item.usualQuantity),
    step: plain(item.step),
    bars: item.bars.map((bar) => ({ ...bar, reason: said(bar.reason) })),
    properties: Object.fromEntries(
      Object.entries(item.properties).map(([id, value]) => [
        id,
        numbers.has(id) && typeof value === 'string' && readExact(value) !== null
          ? exact(value).toString()
          : value,
      ]),
    ),
  };
}

/** What must be mended before it is kept. */
export function itemProblems(item: Item, around: Around): ItemProblem[] {
  return [
    ...plainProblems(item),
    ...propertyProblems(item, around.families),
    ...barProblems(item),
    ...otherItems(item, around.items),
  ];
}

function plainProblems({ sku, name, cost, mass, usualQuantity, step }: Item): ItemProblem[] {
  const problems: ItemProblem[] = [];
  if (!skuPattern.test(sku)) problems.push({ code: 'item.badNumber', field: 'sku', params: { sku } });
  if (!Object.values(name).some((text) => text.trim() !== ''))
    problems.push({ code: 'item.noName', field: 'name' });
  if (!notNegative(cost)) problems.push({ code: 'item.negative', field: 'cost' });
  if (mass !== null && !notNegative(mass)) problems.push({ code: 'item.negative', field: 'mass' });
  if (step !== null && !exact(step).gt(0)) problems.push({ code: 'item.noStep', field: 'step' });
  if (usualQuantity !== null) {
    if (!exact(usualQuantity).gt(0)) problems.push({ code: 'item.noStep', field: 'usualQuantity' });
    else if (!inSteps(step, usualQuantity))
      problems.push({ code: 'item.notInSteps', field: 'usualQuantity', params: { step: step ?? '1' } });
  }
  return problems;
}

/** Whether a quantity is so many whole steps. */
export const inSteps = (step: ExactText | null, quantity: ExactText): boolean =>
  step === null || !exact(step).gt(0) || exact(quantity).mod(step).isZero();

function propertyProblems({ family, properties }: Item, families: Families): ItemProblem[] {
  if (!families.has(family)) return [{ code: 'family.unknown', field: 'family', params: { family } }];
  const known = new Map(propertiesOf(families, family).map((property) => [property.id, property]));
  return Object.entries(properties).flatMap(([id, value]): ItemProblem[] => {
    const property = known.get(id);
    const field = `properties.${id}`;
    if (!property) return [{ code: 'item.noProperty', field, params: { property: id, family } }];
    const problem = valueProblem(property, value);
    return problem ? [{ ...problem, field }] : [];
  });
}

/** Who is not told why learns nothing by trying; and what bars nobody bars everybody. */
const barProblems = ({ bars }: Item): ItemProblem[] =>
  bars.flatMap((bar, at): ItemProblem[] => {
    const field = `bars.${String(at)}`;
    if (bar.class === null && bar.region === null && bar.role === null)
      return [{ code: 'item.barsNobody', field }];
    return Object.values(bar.reason).some((text) => text.trim() !== '')
      ? []
      : [{ code: 'item.noReason', field }];
  });

function otherItems({ sku, replacedBy, goesWith }: Item, items: Around['items']): ItemProblem[] {
  const problems: ItemProblem[] = [];
  if (replacedBy !== null) {
    if (!items.has(replacedBy))
      problems.push({ code: 'item.unknown', field: 'replacedBy', params: { sku: replacedBy } });
    else if (leadsBack(sku, replacedBy, items))
      problems.push({ code: 'item.circle', field: 'replacedBy', params: { sku: replacedBy } });
  }
  const seen = new Set<string>();
  goesWith.forEach((each, at) => {
    const field = `goesWith.${String(at)}`;
    if (each === sku) problems.push({ code: 'item.withItself', field });
    else if (!items.has(each)) problems.push({ code: 'item.unknown', field, params: { sku: each } });
    else if (seen.has(each)) problems.push({ code: 'item.twice', field, params: { sku: each } });
    seen.add(each);
  });
  return problems;
}

/** Whether what an item is replaced by comes back to it. */
function leadsBack(sku: string, replacedBy: string, items: Around['items']): boolean {
  const seen = new Set<string>();
  for (let at: string | null = replacedBy; at !== null && !seen.has(at);) {
    if (at === sku) return true;
    seen.add(at);
    at = items.get(at)?.replacedBy ?? null;
  }
  return false;
}

/** Properties that an item says nothing of, by their ids: filters do not find it by them. */
export const unsaid = (
  { family, properties }: Pick<Item, 'family' | 'properties'>,
  families: Families,
): string[] =>
  chainOf(families, family).flatMap(({ properties: own }) =>
    own.flatMap(({ id }) => (properties[id] === undefined ? id : [])),
  );
