/**
 * What taking an option would do to the list price with all that follows from it by rules and usual values.
 */
import { differences, type Decision, type State } from '../engine';
import { exact, type ExactText } from '../exact';
import type { Formula } from '../formula';
import { priceBuild, type BuildPrice } from '../pricing';
import { rowsRead, type CompiledModel } from '../model';
import { specialTariff, type BuildContent } from './content';
import type { BenchMeans } from './picture';

/** A decision that a person can make with one key. */
export interface Offer {
  /** "feature.option", or the yes/no parameter. */
  key: string;
  decision: Decision;
}

/** In the order of the model: options that are free and not taken, and the other side of each yes or no. */
export function offersOf(model: CompiledModel, { rows }: State): Offer[] {
  return model.entries.flatMap((entry): Offer[] => {
    const row = rows[entry.id];
    if (!row?.shown) return [];
    if (entry.kind === 'feature') {
      const { id, many } = entry;
      return (row.options ?? []).flatMap(({ id: option, taken, standing }): Offer[] => {
        const key = `${id}.${option}`;
        return standing === 'free' && !taken
          ? [{ key, decision: many ? { on: key, value: true } : { on: id, value: option } }]
          : [];
      });
    }
    if (entry.kind !== 'yesno' || typeof row.value !== 'boolean') return [];
    return (row.value ? row.no : row.yes) === 'free'
      ? [{ key: entry.id, decision: { on: entry.id, value: !row.value } }]
      : [];
  });
}

/**
 * What an offer would do to the list price, where that is sure: where the build is complete with it, or the
 * difference cannot be another once it is. Null where it is not. `before` is what is made now, with its
 * price.
 */
export function effectOfOffer(
  means: BenchMeans,
  { decisions, special }: Pick<BuildContent, 'decisions' | 'special'>,
  before: { state: State; price: BuildPrice },
  { decision }: Offer,
): ExactText | null {
  const { engine, tariff } = means;
  const state = engine.state({ decisions: [...decisions.filter(({ on }) => on !== decision.on), decision] });
  const price = priceBuild(engine.model, state.values, specialTariff(tariff, special));
  const difference = exact(price.list).minus(before.price.list).toString();
  if (state.complete) return price.open.length === 0 && price.unpriced.length === 0 ? difference : null;
  return isSettled(engine.model, before, { state, price }, decision.on.split('.')[0] ?? '')
    ? difference
    : null;
}

/**
 * Whether a difference between two builds that are not complete stays what it is: nothing but the row itself
 * moved, and the parts that came or went hang on nothing that anybody has still to settle, nor on what is
 * there by default alone.
 */
function isSettled(
  model: CompiledModel,
  before: { state: State; price: BuildPrice },
  after: { state: State; price: BuildPrice },
  row: string,
): boolean {
  const moved = differences(before.state, after.state).some(
    (each) => each.row !== row && !each.row.startsWith(`${row}/`),
  );
  const open = new Set([...before.price.open, ...after.price.open]);
  if (
    moved ||
    before.state.complete ||
    open.size !== before.price.open.length ||
    open.size !== after.price.open.length
  )
    return false;
  const known = new Map(before.price.parts.map((part) => [part.id, part]));
  const now = new Set(after.price.parts.map(({ id }) => id));
  const changed = [
    ...after.price.parts
      .filter((part) => {
        const was = known.get(part.id);
        return was?.amount !== part.amount || was.quantity !== part.quantity;
      })
      .map(({ id }) => id),
    ...before.price.parts.filter(({ id }) => !now.has(id)).map(({ id }) => id),
  ];
  // Shares of other parts, and what is taken off inside, follow what these come to.
  if (
    changed.some(
      (id) =>
        !model.picks.some(({ on }) => on === id) && !model.document.prices.some((part) => part.id === id),
    )
  )
    return false;
  const readsRow = (formulas: (Formula | undefined)[]): boolean =>
    [
      ...rowsRead(
        model,
        formulas.filter((formula) => formula !== undefined),
      ),
    ].some((each) => each === row || each.startsWith(`${row}/`));
  // What waits must not hang on the row: it would come in with another amount.
  const waits = (id: string): boolean => {
    const pick = model.picks.find(({ on, row: of }) => on === id || of === id);
    const part = model.document.prices.some((each) => each.id === id);
    const surcharge = model.document.surcharges.find((each) => each.id === id);
    if (surcharge)
      return (
        surcharge.of.some((of) => changed.includes(of)) ||
        readsRow([model.formulas.get(`surcharges.${id}.rate`), model.formulas.get(`surcharges.${id}.when`)])
      );
    if (!pick && !part) return true;
    const quantity =
      pick?.quantity === undefined ? undefined : model.entries[model.slots.get(pick.quantity) ?? -1];
    return (
      pick?.row === row ||
      readsRow([
        model.formulas.get(`prices.${id}.quantity`),
        model.formulas.get(`prices.${id}.when`),
        quantity?.kind === 'calculation' ? quantity.formula : undefined,
      ])
    );
  };
  if ([...open].some(waits)) return false;
  const read = rowsRead(
    model,
    changed
      .flatMap((id) => [model.formulas.get(`prices.${id}.quantity`), model.formulas.get(`prices.${id}.when`)])
      .filter((formula) => formula !== undefined),
  );
  for (const { on, quantity } of model.picks) {
    const entry =
      changed.includes(on) && quantity !== undefined
        ? model.entries[model.slots.get(quantity) ?? -1]
        : undefined;
    for (const each of entry?.kind === 'calculation'
      ? rowsRead(model, [entry.formula])
      : entry
        ? [entry.id]
        : [])
      read.add(each);
  }
  const hidden = (id: string) => after.state.rows[id] !== undefined && !after.state.rows[id].shown;
  return [...read].every(
    (id) =>
      id === row ||
      id.startsWith(`${row}/`) ||
      after.state.rows[id] === undefined ||
      hidden(id) ||
      after.state.rows[id].source === 'yours' ||
      after.state.rows[id].source === 'asked',
  );
}

/**
 * What every offer would do, as far as `goOn` lets it come; null where nothing sure can be said. What is
 * known already is not worked out again.
 */
export function effectsOf(
  means: BenchMeans,
  made: Pick<BuildContent, 'decisions' | 'special'>,
  before: { state: State; price: BuildPrice },
  known: Record<string, ExactText | null>,
  goOn: () => boolean,
): Record<string, ExactText | null> {
  for (const offer of offersOf(means.engine.model, before.state)) {
    if (known[offer.key] !== undefined) continue;
    if (!goOn()) break;
    known[offer.key] = effectOfOffer(means, made, before, offer);
  }
  return known;
}

/** Those of which something sure can be said. */
export const sureOf = (effects: Readonly<Record<string, ExactText | null>>): Record<string, ExactText> =>
  Object.fromEntries(
    Object.entries(effects).flatMap(([key, effect]) => (effect === null ? [] : [[key, effect]])),
  );
