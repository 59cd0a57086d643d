/** What taking an option would do to the list price with all that follows from it by rules and usual values. */
import type { Decision, State } from '../engine';
import { exact, type ExactText } from '../exact';
import { priceBuild, type BuildPrice } from '../pricing';
import type { CompiledModel } from '../model';
import { specialTariff, type BuildContent } from './content';
import type { BenchMeans } from './picture';

/** A decision that a person can make with one key. */
export interface Offer {
  /** "feature.option", or the yes/no parameter. */
  key: string;
  decision: Decision;
  /** Its row has no value yet. */
  open: boolean;
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
        return standing === 'free' && !taken ? [{ key, decision: many ? { on: key, value: true } : { on: id, value: option }, open: row.value === undefined }] : [];
      });
    }
    if (entry.kind !== 'yesno' || typeof row.value !== 'boolean') return [];
    return (row.value ? row.no : row.yes) === 'free' ? [{ key: entry.id, decision: { on: entry.id, value: !row.value }, open: false }] : [];
  });
}

/**
 * What an offer would do to the list price. Null where there is none to tell yet: where it opens a part of the price, or settles
 * its row but no part. What it settles counts in full. `before` is the price of what is made now.
 */
export function effectOfOffer({ engine, tariff }: BenchMeans, { decisions, special }: Pick<BuildContent, 'decisions' | 'special'>, before: BuildPrice, { decision, open }: Offer): ExactText | null {
  const { values } = engine.state({ decisions: [...decisions.filter(({ on }) => on !== decision.on), decision] });
  const after = priceBuild(engine.model, values, specialTariff(tariff, special));
  const opens = after.open.some((part) => !before.open.includes(part));
  const settlesNone = open && after.open.length > 0 && after.open.length === before.open.length;
  return opens || settlesNone ? null : exact(after.list).minus(before.list).toString();
}

/** Effects known for what the quick differences said then. */
export interface Effects {
  quick: Readonly<Record<string, ExactText>>;
  found: Readonly<Record<string, ExactText | null>>;
}

/** Quick differences, and effects instead where these are known and the quick ones say what they said then. */
export function differencesWith(quick: Readonly<Record<string, ExactText>>, effects: Effects): Readonly<Record<string, ExactText>> {
  const merged: Record<string, ExactText> = {};
  for (const key of new Set([...Object.keys(quick), ...Object.keys(effects.found)])) {
    const effect = effects.quick[key] === quick[key] ? effects.found[key] : undefined;
    const said = effect === undefined ? quick[key] : effect;
    if (said !== undefined && said !== null) merged[key] = said;
  }
  return merged;
}
