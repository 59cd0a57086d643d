/** Whether two rules are the same: every value alike, every formula saying the same. */
import type { Proposed, Rule, Texts } from '../../model';
import { alike } from '../differences';
import { saysTheSame } from './plain';

/** Whether two rules are the same, their severity and texts included. */
export function isSameRule(one: Rule, other: Rule): boolean {
  if (one.kind !== other.kind) return false;
  const [a, b]: [Held, Held] = [{ ...one }, { ...other }];
  const names = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...names].every((name) => isSameAt(name, a[name], b[name]));
}

type Held = Readonly<Record<string, unknown>>;
const formulas: ReadonlySet<string> = new Set(['when', 'must', 'least', 'most']);

function isSameAt(name: string, one: unknown, other: unknown): boolean {
  if (name === 'severity') return (one ?? 'error') === (other ?? 'error');
  if (formulas.has(name) && typeof one === 'string' && typeof other === 'string')
    return saysTheSame(one, other);
  if (name === 'all') return isSameList(one as readonly string[], other as readonly string[]);
  if (name === 'value') return isSameValue(one as Proposed, other as Proposed);
  if (name === 'reason') return isSameTexts((one ?? {}) as Texts, (other ?? {}) as Texts);
  return alike(one, other);
}

const isSameList = (one: readonly string[], other: readonly string[]): boolean =>
  one.length === other.length && one.every((each, index) => saysTheSame(each, other[index] ?? ''));

function isSameValue(one: Proposed, other: Proposed): boolean {
  if (one === null || other === null || typeof one !== 'object' || typeof other !== 'object')
    return one === other;
  return saysTheSame(one.formula, other.formula);
}

const isSameTexts = (one: Texts, other: Texts): boolean =>
  [...new Set([...Object.keys(one), ...Object.keys(other)])].every(
    (language) => (one[language] ?? '').trim() === (other[language] ?? '').trim(),
  );
