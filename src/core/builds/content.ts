/** What a person makes a build of: decisions, warnings passed, special parts. */
import type { Decision, Message, State } from '../engine';
import type { ExactText } from '../exact';
import type { Tariff } from '../pricing';

/** A warning that a person has passed, with the reason as typed; colleagues see it on the quote. */
export interface PassedWarning {
  rule: string;
  reason: string;
  by: string;
  /** ISO instant. */
  at: string;
}

/**
 * A part made specially in the place of an item: as text, at its own cost and price for one, in the currency
 * of the price list.
 */
export interface SpecialPart {
  item: string;
  text: string;
  cost: ExactText;
  price: ExactText;
  /** Working days until it is there. */
  days: number;
}

/** What a person makes of a model. */
export interface BuildContent {
  decisions: readonly Decision[];
  passed: readonly PassedWarning[];
  special: readonly SpecialPart[];
}

/** The tariff with special parts, by the piece and once, in the place of the items that they replace. */
export function specialTariff(tariff: Tariff, special: readonly SpecialPart[]): Tariff {
  if (special.length === 0) return tariff;
  const costs = tariff.costs && {
    ...tariff.costs,
    ...Object.fromEntries(special.map((part) => [part.item, part.cost])),
  };
  const replaced = new Set(special.map(({ item }) => item));
  const kept = <T>(table: Readonly<Record<string, T>> | undefined) =>
    table && Object.fromEntries(Object.entries(table).filter(([item]) => !replaced.has(item)));
  const [entries, recurs] = [kept(tariff.entries), kept(tariff.recurs)];
  return {
    ...tariff,
    ...(entries ? { entries } : {}),
    ...(recurs ? { recurs } : {}),
    prices: { ...tariff.prices, ...Object.fromEntries(special.map((part) => [part.item, part.price])) },
    ...(costs ? { costs } : {}),
  };
}

/** How long items take, special parts among them. */
export function specialFacts<T extends { leadDays: number }>(
  facts: Readonly<Record<string, T>>,
  special: readonly SpecialPart[],
): Readonly<Record<string, T | { leadDays: number }>> {
  return special.length === 0
    ? facts
    : {
        ...facts,
        ...Object.fromEntries(special.map(({ item, days }) => [item, { ...facts[item], leadDays: days }])),
      };
}

/**
 * What a registered number of special parts stands for; the same parts, in whatever order, always give the
 * same.
 */
export function specialKey(special: readonly SpecialPart[]): string | null {
  if (special.length === 0) return null;
  const parts = [...special]
    .sort((a, b) => (a.item < b.item ? -1 : 1))
    .map(({ item, text, cost, price, days }) => ({ item, text, cost, price, days }));
  return `special=${JSON.stringify(parts)}`;
}

/** The special parts that a key stands for; null where it stands for something else. */
export function specialOf(key: string): SpecialPart[] | null {
  return key.startsWith('special=') ? (JSON.parse(key.slice('special='.length)) as SpecialPart[]) : null;
}

/** A warning, and who passed it why. */
export interface WarningView {
  rule: string;
  text: Message['text'];
  passed?: Omit<PassedWarning, 'rule'>;
}

/** The warnings of a state. A warning that is gone needs no passing, and comes back passed if it returns. */
export function warningsOf({ messages }: State, passed: readonly PassedWarning[]): WarningView[] {
  return messages.flatMap(({ severity, rule, text }): WarningView[] => {
    if (severity !== 'warning') return [];
    const pass = passed.find((each) => each.rule === rule);
    return [{ rule, text, ...(pass ? { passed: { reason: pass.reason, by: pass.by, at: pass.at } } : {}) }];
  });
}
