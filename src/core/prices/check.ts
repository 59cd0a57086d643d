/** What is wrong with an entry that is to be, and what should be looked at once more. */
import { exact, readExact, type ExactText } from '../exact';
import { entryProblem, type PriceEntry, type Recurrence } from '../pricing';
import { figuresOf, leadingPrice } from './figures';

/** Something about an entry; `params` go into its sentence. */
export interface EntryProblem {
  code:
    | 'entry.empty'
    | 'entry.overlap'
    | 'entry.hole'
    | 'entry.backwards'
    | 'entry.noNumber'
    | 'entry.negative'
    | 'entry.tooFine'
    | 'entry.noFormula'
    | 'entry.ofNothing'
    | 'entry.ofUnknown'
    | 'entry.ofItself'
    | 'entry.noPeriod'
    | 'entry.insideOnlyUnit';
  params?: Record<string, string | number>;
}

/** Against what an entry is held. */
export interface EntryMeans {
  sku: string;
  /** Minor digits of the list's currency. */
  decimals: number;
  /** Whether a name is that of an item or a family. */
  known: (name: string) => boolean;
  /** Whether a formula can be read. */
  reads?: (formula: string) => boolean;
  inside: boolean;
}

const decimalsOf = (value: ExactText): number => exact(value).decimalPlaces();
/** Decimals of a rate for each piece. */
const finest = 6;

/** What must be mended before it can be published. */
export function entryProblems(
  entry: PriceEntry,
  every: Recurrence | undefined,
  means: EntryMeans,
): EntryProblem[] {
  const problems: EntryProblem[] = [];
  const numbers = numbersOf(entry);
  const unread = numbers.find((text) => readExact(text) === null);
  if (unread !== undefined) return [{ code: 'entry.noNumber', params: { value: unread } }];
  const tiers = entryProblem(entry);
  if (tiers) problems.push({ code: `entry.${tiers.code}`, params: { from: tiers.from } });
  for (const { of, value } of figuresOf(entry) ?? []) {
    const most = of === 'rate' ? finest : means.decimals;
    if (exact(value).isNegative()) problems.push({ code: 'entry.negative', params: { value } });
    else if (decimalsOf(value) > most)
      problems.push({ code: 'entry.tooFine', params: { value, decimals: most } });
  }
  if (entry.method === 'costPlus' && exact(entry.markUp).lt(-1))
    problems.push({ code: 'entry.negative', params: { value: entry.markUp } });
  if (entry.method === 'formula' && (entry.formula.trim() === '' || means.reads?.(entry.formula) === false))
    problems.push({ code: 'entry.noFormula' });
  if (entry.method === 'share') problems.push(...shareProblems(entry, means));
  if (every && !(every.baseMonths > 0)) problems.push({ code: 'entry.noPeriod' });
  // Inside a bundle an item has a price of its own by the piece, or none.
  if (means.inside && (entry.method !== 'unit' || every)) problems.push({ code: 'entry.insideOnlyUnit' });
  return problems;
}

function shareProblems(
  { of, rate }: Extract<PriceEntry, { method: 'share' }>,
  { sku, known }: EntryMeans,
): EntryProblem[] {
  if (of.length === 0) return [{ code: 'entry.ofNothing' }];
  const unknown = of.find((name) => !known(name));
  if (unknown !== undefined) return [{ code: 'entry.ofUnknown', params: { name: unknown } }];
  if (of.includes(sku)) return [{ code: 'entry.ofItself' }];
  return exact(rate).isNegative() ? [{ code: 'entry.negative', params: { value: rate } }] : [];
}

/** All texts in an entry that must be numbers. */
function numbersOf(entry: PriceEntry): ExactText[] {
  switch (entry.method) {
    case 'bracket':
      return entry.brackets.flatMap(({ from, below, price }) => [
        from,
        price,
        ...(below === undefined ? [] : [below]),
      ]);
    case 'graduated':
    case 'usage':
      return [
        ...entry.slices.flatMap(({ from, below, rate }) => [
          from,
          rate,
          ...(below === undefined ? [] : [below]),
        ]),
        ...(entry.method === 'usage' && entry.least !== undefined ? [entry.least] : []),
      ];
    case 'unit':
      return [entry.price];
    case 'costPlus':
      return [entry.markUp];
    case 'share':
      return [entry.rate];
    default:
      return [];
  }
}

/** What may be meant, and is worth a look. belowCost: one would be sold for less than it costs. */
export type EntryWarning = 'belowCost' | 'otherKind' | 'ends' | 'missingElsewhere';

/** What is worth a look about what an entry becomes; null for none any more. */
export function entryWarnings(
  before: { entry: PriceEntry; every?: Recurrence | undefined } | undefined,
  after: { entry: PriceEntry; every?: Recurrence | undefined } | null,
  { cost, elsewhere }: { cost: ExactText | undefined; elsewhere: boolean },
): EntryWarning[] {
  if (!after) return ['ends'];
  const warnings: EntryWarning[] = [];
  const margin = leadingPrice(after.entry, cost)?.margin;
  if (margin !== null && margin !== undefined && exact(margin).isNegative()) warnings.push('belowCost');
  if (
    before &&
    (before.entry.method !== after.entry.method || before.every?.baseMonths !== after.every?.baseMonths)
  )
    warnings.push('otherKind');
  if (!elsewhere) warnings.push('missingElsewhere');
  return warnings;
}
