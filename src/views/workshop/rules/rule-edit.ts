/** Rules as edits: one put in the place of another, a new one, and the formulas that a rule has. */
import type { ModelDocument, Rule } from '../../../core/model';
import { differences, editOf, sentenceOf, wordsOf, type Edit } from '../../../core/modelling';

/** The edit that puts a rule in the place of the one of its id. */
export function ruleEdit(document: ModelDocument, rule: Rule): Edit | null {
  const rules = document.rules.map((each) => (each.id === rule.id ? rule : each));
  const edits = differences(document, { ...document, rules }).map(editOf);
  return edits.length === 0 ? null : { do: 'several', edits };
}

/** An id that no rule has. */
export function freeRuleId(document: ModelDocument): string {
  const taken = new Set(document.rules.map(({ id }) => id));
  let count = document.rules.length + 1;
  while (taken.has(`rule${String(count)}`)) count++;
  return `rule${String(count)}`;
}

/** What a new rule is before its sentence says what it is. */
export const blankRule = (id: string): Rule => ({ id, kind: 'require', must: 'true', reason: {} });

/**
 * The rule with a reason in every language: where nobody has written one, what the rule says is why, so that it can be
 * tried as soon as its sentence is understood. A reason that is only what `before` said follows what is said now.
 */
export function withReasons(rule: Rule, before: Rule, document: ModelDocument): Rule {
  const missing = document.languages.filter((language) => {
    const text = (rule.reason[language] ?? '').trim();
    return text === '' || text === said(before, document, language);
  });
  if (missing.length === 0) return rule;
  const own = missing.map((language): [string, string] => [language, said(rule, document, language)]);
  return { ...rule, reason: { ...rule.reason, ...Object.fromEntries(own) } };
}

const mostSaid = 400;

/** What a rule says in a language, without its reason. */
const said = (rule: Rule, document: ModelDocument, language: string): string => {
  const words = wordsOf(document, language === 'de' ? 'de' : 'en');
  return `${sentenceOf({ ...rule, reason: {} }, words).text}.`.slice(0, mostSaid);
};

/** A formula of a rule: where it is, and the name of the row whose values it gives. */
export interface RuleFormula {
  name: 'when' | 'must' | 'all' | 'least' | 'most' | 'value';
  /** Among those that cannot all hold. */
  at?: number;
  source: string;
}

/** The formulas of a rule, in their order; those that may be there and are not are empty. */
export function formulasOf(rule: Rule): RuleFormula[] {
  const when: RuleFormula[] =
    'when' in rule || (rule.kind !== 'exclude' && rule.kind !== 'table')
      ? [{ name: 'when', source: ('when' in rule ? rule.when : undefined) ?? '' }]
      : [];
  switch (rule.kind) {
    case 'require':
      return [...when, { name: 'must', source: rule.must }];
    case 'exclude':
      return rule.all.map((source, at) => ({ name: 'all', at, source }));
    case 'limit':
      return [
        ...when,
        { name: 'least', source: rule.least ?? '' },
        { name: 'most', source: rule.most ?? '' },
      ];
    case 'table':
      return [];
    case 'set':
    case 'usual': {
      const { value } = rule;
      return typeof value === 'object' && value !== null
        ? [...when, { name: 'value', source: value.formula }]
        : when;
    }
    default:
      return when;
  }
}

/** The rule with another formula at a place; an empty one is taken away where it may be. */
export function withFormula(
  rule: Rule,
  { name, at }: Pick<RuleFormula, 'name' | 'at'>,
  source: string,
): Rule {
  if (rule.kind === 'exclude' && name === 'all')
    return { ...rule, all: rule.all.map((each, index) => (index === at ? source : each)) };
  if (name === 'value') return { ...rule, value: { formula: source } } as Rule;
  if (source !== '' || (name === 'when' && (rule.kind === 'show' || rule.kind === 'say')))
    return { ...rule, [name]: source };
  const { [name as 'when']: _, ...others } = rule as Rule & { when?: string };
  return others as Rule;
}
