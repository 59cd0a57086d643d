/**
 * FEEL over a whole quote: prices that depend on all of it, such as freight, and policies on who must sign.
 */
import { exact, type ExactText } from '../../exact';
import type { FreightRate } from './quote-types';
import {
  compileFormula,
  noUnit,
  type Formula,
  type FormulaProblem,
  type FeelType,
  type Scope,
  type Value,
} from '../../formula';

/** What a formula may read, and of which kind it is; amounts of money and masses in kg are plain numbers. */
export type Names = Readonly<Record<string, 'number' | 'text' | 'yesno'>>;

/**
 * A price over the quote reads what the lines that are priced by themselves come to, their mass in kg, its own
 * line's quantity, and what freight of that mass comes to; nothing where no freight is known to there.
 */
export const priceNames = {
  net: 'number',
  mass: 'number',
  quantity: 'number',
  freight: 'number',
} as const satisfies Names;

/** What freight of a mass comes to. */
export function freightOf({ base, perKg, least }: FreightRate, mass: ExactText): ExactText {
  const by = exact(perKg).times(mass).plus(base);
  return (by.lt(least) ? exact(least) : by).toString();
}

/**
 * A policy reads the net, the share given away on all of it, the margin where it is known, days until
 * payment, special parts and warnings passed in builds, the longest term in months, how many lines count, and
 * who buys where.
 */
export const policyNames = {
  net: 'number',
  discount: 'number',
  margin: 'number',
  paymentDays: 'number',
  specialParts: 'number',
  passedWarnings: 'number',
  months: 'number',
  lines: 'number',
  customerClass: 'text',
  country: 'text',
  leased: 'yesno',
} as const satisfies Names;

export type FactsOf<N extends Names> = {
  [K in keyof N]: N[K] extends 'number' ? ExactText | null : N[K] extends 'text' ? string : boolean;
};

const typeOf = (kind: Names[string]): FeelType =>
  kind === 'number' ? { is: 'number', unit: noUnit } : kind === 'text' ? { is: 'text' } : { is: 'yesno' };
const compiled = new Map<string, { formula: Formula } | { problems: FormulaProblem[] }>();

function compiledOver(source: string, names: Names, wanted: 'number' | 'yesno') {
  const key = `${wanted} ${Object.keys(names).join(',')} ${source}`;
  let known = compiled.get(key);
  if (!known) {
    const scope: Scope = new Map(
      Object.entries(names).map(([name, kind], slot) => [name, { slot, type: typeOf(kind) }]),
    );
    const answer = compileFormula(source, scope, typeOf(wanted));
    known = answer.ok ? { formula: answer.formula } : { problems: answer.problems };
    compiled.set(key, known);
  }
  return known;
}

/** What is wrong with a formula over a quote; nothing where it can be worked out. */
export function problemsOver(source: string, names: Names, wanted: 'number' | 'yesno'): FormulaProblem[] {
  const known = compiledOver(source, names, wanted);
  return 'problems' in known ? known.problems : [];
}

function run(
  source: string,
  names: Names,
  wanted: 'number' | 'yesno',
  facts: Readonly<Record<string, string | boolean | null>>,
): Value | undefined {
  const known = compiledOver(source, names, wanted);
  if ('problems' in known) return undefined;
  const slots = Object.entries(names).map(([name, kind]): Value => {
    const value = facts[name] ?? null;
    return kind === 'number' && typeof value === 'string' ? exact(value) : value;
  });
  return known.formula.run((slot) => slots[slot] ?? null);
}

/** The price by a formula; undefined where it has none. */
export function priceOver(source: string, facts: FactsOf<typeof priceNames>): ExactText | undefined {
  const value = run(source, priceNames, 'number', facts);
  return value !== null && typeof value === 'object' && 'toDecimalPlaces' in value
    ? value.toString()
    : undefined;
}

/** Something that somebody must sign, whatever the limits say. */
export interface Policy {
  id: string;
  /** FEEL over `policyNames`. */
  when: string;
  /** Role that signs. */
  signs: string;
}

/**
 * A policy that a quote runs into, with what it read, so that a sign-off holds as long as none of that is
 * worse.
 */
export interface PolicyHit {
  id: string;
  signs: string;
  read: string;
  /**
   * Of a number read whether more of it is worse, or less; what is in neither list has no worse, and must
   * stay as it was.
   */
  worse?: Readonly<Record<string, 'more' | 'less'>>;
}

/**
 * The policies that hold for a quote. One that cannot be read counts as one that holds: it is for a person to
 * look at.
 */
export function policiesHit(policies: readonly Policy[], facts: FactsOf<typeof policyNames>): PolicyHit[] {
  return policies.flatMap(({ id, when, signs }) => {
    const known = compiledOver(when, policyNames, 'yesno');
    if ('formula' in known && run(when, policyNames, 'yesno', facts) !== true) return [];
    const names =
      'formula' in known ? Object.keys(policyNames).filter((name) => known.formula.names.includes(name)) : [];
    return [
      {
        id,
        signs,
        worse: worseOf(when, names, facts),
        read: names.map((name) => `${name}=${String(facts[name as keyof typeof policyNames])}`).join(';'),
      },
    ];
  });
}

/** Beyond any figure of a quote. */
const far = '1000000000000000000';

/**
 * A policy that holds of a figure however large, and not however small, holds the more the larger it is; and
 * the other way round.
 */
function worseOf(
  when: string,
  names: readonly string[],
  facts: FactsOf<typeof policyNames>,
): Record<string, 'more' | 'less'> {
  const holdsAt = (name: string, value: string) =>
    run(when, policyNames, 'yesno', { ...facts, [name]: value }) === true;
  return Object.fromEntries(
    names
      .filter((name) => policyNames[name as keyof typeof policyNames] === 'number')
      .flatMap((name): [string, 'more' | 'less'][] => {
        const [small, large] = [holdsAt(name, `-${far}`), holdsAt(name, far)];
        return small === large ? [] : [[name, large ? 'more' : 'less']];
      }),
  );
}
