/**
 * Formulas of price changes as people write them, in English and German: "+3.5 %, to the next 0.50",
 * "margin at least 38 %", "EUR x 0.86, to 1.00".
 */
import { exact, readWritten, type ExactText } from '../exact';
import type { ChangeFormula, PriceStep } from './formula';

/** A list, by its code and its currency: either names it, where only one list has that currency. */
export interface NamedList {
  code: string;
  currency: string;
}

/** What was read, or where it was not understood: the part, and at which character it begins. */
export type ReadFormula = { ok: true; formula: ChangeFormula } | { ok: false; part: string; at: number };

interface Wording {
  cost: string;
  margin: string;
  atLeast: string;
  atMost: string;
  near: string;
  up: string;
  down: string;
}

const wordings: Record<'en' | 'de', Wording> = {
  en: {
    cost: 'cost',
    margin: 'margin',
    atLeast: 'at least',
    atMost: 'at most',
    near: 'to',
    up: 'to the next',
    down: 'down to',
  },
  de: {
    cost: 'Kosten',
    margin: 'Marge',
    atLeast: 'mindestens',
    atMost: 'höchstens',
    near: 'auf',
    up: 'auf die nächsten',
    down: 'ab auf',
  },
};

const wordsIn = (language: string): Wording => wordings[language === 'de' ? 'de' : 'en'];

/** Writes a formula so that `readFormula` reads the same again. */
export function writeFormula(formula: ChangeFormula, language: string): string {
  const words = wordsIn(language);
  const number = (value: ExactText, least = 0): string => {
    const plain = exact(value);
    // Three digits behind the sign could be read as thousands; four cannot.
    const decimals = Math.max(least, plain.decimalPlaces());
    const text = plain.toFixed(decimals === 3 ? 4 : decimals);
    return language === 'de' ? text.replace('.', ',') : text;
  };
  const money = (value: ExactText): string => number(value, 2);
  const signed = (value: ExactText, write: (value: ExactText) => string): string =>
    exact(value).isNegative() ? `-${write(exact(value).neg().toString())}` : `+${write(value)}`;
  const share = (value: ExactText): string => `${number(exact(value).times(100).toString())} %`;
  const write = (step: PriceStep): string => {
    switch (step.does) {
      case 'share':
        return `${signed(exact(step.by).times(100).toString(), number)} %`;
      case 'add':
        return signed(step.amount, money);
      case 'times':
        return `x ${number(step.factor)}`;
      case 'list':
        return `${step.list} x ${number(step.factor)}`;
      case 'cost':
        return `${words.cost} x ${number(step.factor)}`;
      case 'margin':
        return `${words.margin} ${step.atLeast ? `${words.atLeast} ` : ''}${share(step.rate)}`;
      case 'least':
        return `${words.atLeast} ${money(step.amount)}`;
      case 'most':
        return `${words.atMost} ${money(step.amount)}`;
      case 'round':
        return `${words[step.how]} ${money(step.to)}`;
    }
  };
  return formula.map(write).join(', ');
}

/** Reads a formula; steps are set apart by a comma and a blank, a semicolon or a line. */
export function readFormula(typed: string, language: string, lists: readonly NamedList[]): ReadFormula {
  const formula: PriceStep[] = [];
  let at = 0;
  for (const part of typed.split(/(,\s+|;|\n)/)) {
    const text = part.trim();
    if (text !== '' && !/^[,;]$/.test(text)) {
      const step = readStep(text, language, lists);
      if (!step) return { ok: false, part: text, at: at + part.indexOf(text) };
      formula.push(step);
    }
    at += part.length;
  }
  return { ok: true, formula };
}

const numberPattern = "([\\d.,\\u00a0\\u202f' ]*\\d)";

function readStep(text: string, language: string, lists: readonly NamedList[]): PriceStep | null {
  const words = wordsIn(language);
  // An amount that could be two numbers is not guessed; nobody writes a factor or a share with thousands.
  const number = (written: string | undefined): ExactText | null => {
    const read = readWritten(written ?? '', language);
    return read.is === 'number' ? read.value : null;
  };
  const factorOf = (written: string | undefined): ExactText | null => {
    const read = readWritten(written ?? '', language);
    return read.is === 'twoWays' ? read.values[0] : number(written);
  };
  const match = (pattern: string): RegExpExecArray | null =>
    new RegExp(`^${pattern}$`, 'iu').exec(text.replace(/\s+/g, ' '));
  const made = <T>(value: ExactText | null, make: (value: ExactText) => T): T | null =>
    value === null ? null : make(value);
  const hundredth = (value: ExactText): ExactText => exact(value).div(100).toString();

  const change = match(`([+\\-−]) ?${numberPattern} ?(%?)`);
  if (change) {
    const [, sign, value, share] = change;
    return made(share === '' ? number(value) : factorOf(value), (amount) => {
      const by = sign === '+' ? amount : exact(amount).neg().toString();
      return share === '' ? { does: 'add', amount: by } : { does: 'share', by: hundredth(by) };
    });
  }
  const times = match(`(?:(\\S+) )?[x×*] ?${numberPattern}`);
  if (times) {
    const [, of, value] = times;
    return made(factorOf(value), (factor): PriceStep | null => {
      if (of === undefined) return { does: 'times', factor };
      if (of.toLowerCase() === words.cost.toLowerCase()) return { does: 'cost', factor };
      const list = listNamed(of, lists);
      return list === null ? null : { does: 'list', list, factor };
    });
  }
  const margin = match(`${words.margin} (${words.atLeast} )?${numberPattern} ?%`);
  if (margin)
    return made(factorOf(margin[2]), (rate) => ({
      does: 'margin',
      rate: hundredth(rate),
      atLeast: margin[1] !== undefined,
    }));
  const border = match(`(${words.atLeast}|${words.atMost}) ${numberPattern}`);
  if (border)
    return made(number(border[2]), (amount) => ({
      does: border[1]?.toLowerCase() === words.atLeast.toLowerCase() ? 'least' : 'most',
      amount,
    }));
  for (const how of ['up', 'down', 'near'] as const) {
    const round = match(`${words[how]} ${numberPattern}`);
    if (round) return made(number(round[1]), (to) => ({ does: 'round', to, how }));
  }
  return null;
}

/** The list that a name means: its code, or a currency that only one list has. */
function listNamed(name: string, lists: readonly NamedList[]): string | null {
  const alike = (one: string): boolean => one.toLowerCase() === name.toLowerCase();
  const byCode = lists.find(({ code }) => alike(code));
  if (byCode) return byCode.code;
  const byCurrency = lists.filter(({ currency }) => alike(currency));
  return byCurrency.length === 1 ? (byCurrency[0]?.code ?? null) : null;
}
