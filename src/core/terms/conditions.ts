/**
 * Conditions of policies as sentences: "net is more than 250,000 and margin is less than 35 %". The sentence is a view of
 * the formula: what it cannot say is left as FEEL.
 */
import { exact, readWritten, type ExactText } from '../exact';
import { compileFormula, noUnit, type Comparison, type Expr, type Scope } from '../formula';
import { policyNames } from '../pricing';

type PolicyName = keyof typeof policyNames;

/** A comparison of something of a quote with a value. */
interface Clause {
  name: PolicyName;
  op: Comparison;
  value: ExactText | boolean;
}

interface Wording {
  names: Record<PolicyName, string>;
  is: string;
  ops: Record<Comparison, string>;
  and: string;
  or: string;
  yes: string;
  no: string;
}

const wordings: Record<'en' | 'de', Wording> = {
  en: {
    names: {
      net: 'net',
      discount: 'discount',
      margin: 'margin',
      paymentDays: 'days to pay',
      specialParts: 'special parts',
      passedWarnings: 'warnings passed',
      months: 'longest term in months',
      lines: 'lines',
      customerClass: 'class of the customer',
      country: 'country',
      leased: 'leased',
    },
    is: 'is',
    ops: { '>': 'more than', '>=': 'at least', '<': 'less than', '<=': 'at most', '!=': 'not', '=': '' },
    and: 'and',
    or: 'or',
    yes: 'yes',
    no: 'no',
  },
  de: {
    names: {
      net: 'Netto',
      discount: 'Nachlass',
      margin: 'Marge',
      paymentDays: 'Zahlungsziel in Tagen',
      specialParts: 'Zahl der Sonderteile',
      passedWarnings: 'Zahl übergangener Warnungen',
      months: 'längste Laufzeit in Monaten',
      lines: 'Zahl der Positionen',
      customerClass: 'Klasse des Kunden',
      country: 'Land',
      leased: 'geleast',
    },
    is: 'ist',
    ops: {
      '>': 'mehr als',
      '>=': 'mindestens',
      '<': 'weniger als',
      '<=': 'höchstens',
      '!=': 'nicht',
      '=': '',
    },
    and: 'und',
    or: 'oder',
    yes: 'ja',
    no: 'nein',
  },
};

const wordsIn = (language: string): Wording => wordings[language === 'de' ? 'de' : 'en'];
/** Figures that are shares, and are read in percent. */
const shares: ReadonlySet<PolicyName> = new Set(['discount', 'margin']);

const scope: Scope = new Map(
  Object.entries(policyNames).map(([name, kind], slot) => [
    name,
    {
      slot,
      type:
        kind === 'number'
          ? { is: 'number', unit: noUnit }
          : kind === 'text'
            ? { is: 'text' }
            : { is: 'yesno' },
    },
  ]),
);

/** Clauses joined by one word; null for a formula that says more than that. */
function clausesOf(source: string): { join: 'and' | 'or'; clauses: Clause[] } | null {
  const compiled = compileFormula(source, scope, { is: 'yesno' });
  if (!compiled.ok) return null;
  const { expr } = compiled.formula;
  const join = expr.kind === 'logic' ? expr.op : 'and';
  const clauses: Clause[] = [];
  const collect = (each: Expr): boolean => {
    if (each.kind === 'logic') return each.op === join && collect(each.left) && collect(each.right);
    const clause = clauseOf(each);
    if (clause) clauses.push(clause);
    return clause !== null;
  };
  return collect(expr) ? { join, clauses } : null;
}

function clauseOf(expr: Expr): Clause | null {
  if (expr.kind === 'name') return { name: expr.name as PolicyName, op: '=', value: true };
  if (expr.kind !== 'compare' || expr.left.kind !== 'name') return null;
  const right = expr.right.kind === 'negate' ? expr.right.of : expr.right;
  if (right.kind !== 'literal' || right.value === null) return null;
  const { value } = right;
  if (typeof value === 'object' && !('toDecimalPlaces' in value)) return null;
  const text =
    typeof value === 'object' ? (expr.right.kind === 'negate' ? value.neg() : value).toString() : value;
  return { name: expr.left.name as PolicyName, op: expr.op, value: text };
}

/** A condition as a sentence; null where it says more than a sentence of this kind can. */
export function writeCondition(source: string, language: string): string | null {
  const found = clausesOf(source);
  if (!found) return null;
  const words = wordsIn(language);
  const number = (value: ExactText): string => {
    const plain = exact(value);
    // Three digits behind the sign could be read as thousands; four cannot.
    const text = plain.decimalPlaces() === 3 ? plain.toFixed(4) : plain.toString();
    return language === 'de' ? text.replace('.', ',') : text;
  };
  const write = ({ name, op, value }: Clause): string => {
    const said =
      typeof value === 'boolean'
        ? value
          ? words.yes
          : words.no
        : policyNames[name] === 'number'
          ? shares.has(name)
            ? `${number(exact(value).times(100).toString())} %`
            : number(value)
          : value;
    return [words.names[name], words.is, words.ops[op], said].filter((part) => part !== '').join(' ');
  };
  return found.clauses.map(write).join(` ${words[found.join]} `);
}

/** A sentence as a condition; null where it is none. */
export function readCondition(typed: string, language: string): string | null {
  const words = wordsIn(language);
  const text = typed.trim().replace(/\s+/g, ' ');
  const join = text.includes(` ${words.or} `) ? 'or' : 'and';
  const clauses = text.split(` ${words[join]} `).map((part) => readClause(part, language, words));
  return clauses.includes(null) ? null : clauses.join(` ${join} `);
}

function readClause(part: string, language: string, words: Wording): string | null {
  const name = (Object.keys(words.names) as PolicyName[]).find((each) =>
    part.toLowerCase().startsWith(`${words.names[each].toLowerCase()} ${words.is} `),
  );
  if (!name) return null;
  const rest = part.slice(words.names[name].length + words.is.length + 2);
  const op = (['>=', '<=', '>', '<', '!=', '='] as const).find(
    (each) => words.ops[each] === '' || rest.toLowerCase().startsWith(`${words.ops[each]} `),
  );
  if (!op) return null;
  const said = rest.slice(words.ops[op] === '' ? 0 : words.ops[op].length + 1).trim();
  const value = valueOf(name, said, language, words);
  return value === null ? null : `${name} ${op} ${value}`;
}

function valueOf(name: PolicyName, said: string, language: string, words: Wording): string | null {
  switch (policyNames[name]) {
    case 'yesno':
      return said === words.yes ? 'true' : said === words.no ? 'false' : null;
    case 'text':
      return /^[\w .-]{1,40}$/.test(said) ? JSON.stringify(said) : null;
    case 'number': {
      const share = shares.has(name);
      if (share && !said.endsWith('%')) return null;
      const read = readWritten(said.replace(/\s*%$/, ''), language);
      if (read.is !== 'number') return null;
      return share ? exact(read.value).div(100).toString() : read.value;
    }
  }
}
