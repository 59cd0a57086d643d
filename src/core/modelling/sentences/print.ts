/**
 * A rule as a sentence: a view of its formulas, which reads back as the very same rule. Where names alone would be
 * read as something else they stand with their ids, and what sentences have no words for stands as a formula.
 */
import type { DecisionValue, Proposed, Rule } from '../../model';
import { treeOf } from './plain';
import type { Frames } from './frames';
import { between, filled, say, type Filling, type Piece } from './pieces';
import { phrasesOf, type Order, type Phrases, type Shape } from './phrases';
import { ConditionPrinter } from './print-condition';
import type { Manner } from './print-value';
import { isSameRule } from './same';
import { readSentence } from './read';
import type { RowWord, Words } from './words';

/** A rule as it is read. */
export interface Sentence {
  text: string;
  /** The text in pieces, each with what it is. */
  pieces: readonly Piece[];
  /**
   * Whether it reads back as the same rule; where it does not, since a formula cannot be read (yet), the rule is
   * edited by its formulas alone.
   */
  exact: boolean;
}

/** The sentence of a rule. */
export function sentenceOf(rule: Rule, words: Words): Sentence {
  for (const manner of manners) {
    const sentence = printed(rule, words, manner);
    const read = readSentence(sentence.text, [words], rule);
    if (read.ok && isSameRule(read.rule, rule)) return { ...sentence, exact: true };
  }
  return { ...printed(rule, words, manners[2]), exact: false };
}

/** Manners of printing, the plainest first. */
const manners = [
  { withIds: false, inBrackets: false, asFormulas: false },
  { withIds: false, inBrackets: true, asFormulas: false },
  { withIds: true, inBrackets: true, asFormulas: false },
  { withIds: true, inBrackets: true, asFormulas: true },
] as const;

function printed(rule: Rule, words: Words, manner: Omit<Manner, 'phrases'>): Omit<Sentence, 'exact'> {
  const phrases = phrasesOf[words.language];
  const pieces = joined(
    new RulePrinter(words, phrases, new ConditionPrinter({ phrases, ...manner })).rule(rule),
  );
  return { pieces, text: pieces.map(({ text }) => text).join('') };
}

/** Words behind each other as one piece, and the first letter large. */
function joined(pieces: readonly Piece[]): Piece[] {
  const found: Piece[] = [];
  for (const piece of pieces) {
    const last = found.at(-1);
    if (last?.is === 'word' && piece.is === 'word') last.text += piece.text;
    else found.push({ ...piece });
  }
  const [first] = found;
  if (first?.is === 'word') first.text = first.text.charAt(0).toUpperCase() + first.text.slice(1);
  return found;
}

class RulePrinter {
  private readonly frames: Frames;

  constructor(
    private readonly words: Words,
    private readonly phrases: Phrases,
    private readonly printer: ConditionPrinter,
  ) {
    this.frames = [{ words }];
  }

  rule(rule: Rule): Filling {
    return [...this.weight(rule), ...this.body(rule), ...this.reason(rule)];
  }

  private weight(rule: Rule): Filling {
    if (rule.kind === 'say' || !('severity' in rule) || (rule.severity ?? 'error') === 'error') return [];
    return say(rule.severity === 'warning' ? this.phrases.warning : this.phrases.note);
  }

  private reason(rule: Rule): Filling {
    const text = (rule.reason[this.words.language] ?? '').trim();
    if (text === '') return [];
    const before = rule.kind === 'say' ? this.phrases.says : this.phrases.because;
    return [...say(before), { is: 'reason', text }];
  }

  private body(rule: Rule): Filling {
    switch (rule.kind) {
      case 'require':
        return this.shape(rule.when === undefined ? 'require' : 'requireWhen', {
          when: rule.when,
          must: rule.must,
        });
      case 'exclude':
        return rule.all.flatMap((all, index) => this.shape(index === 0 ? 'exclude' : 'excludeNext', { all }));
      case 'limit':
        return this.shape(
          rule.when === undefined ? 'limit' : 'limitWhen',
          { when: rule.when },
          { of: this.target(rule.of, this.words), bounds: this.bounds(rule) },
        );
      case 'table': {
        const columns = rule.of.map((each) => this.target(each, this.words));
        return this.shape(rule.listed, {}, { columns: between(columns, ', ') });
      }
      case 'set': {
        const kind = rule.firm ? 'firm' : 'advised';
        return this.proposal(rule, rule.when === undefined ? kind : `${kind}When`);
      }
      case 'usual':
        return this.proposal(rule, rule.when === undefined ? 'usual' : 'usualWhen');
      case 'show':
        return this.shape('show', { when: rule.when }, { of: this.target(rule.of, this.words) });
      case 'say':
        return this.shape(rule.severity === 'warning' ? 'warn' : 'note', { when: rule.when });
    }
  }

  private shape(
    shape: Shape,
    conditions: Readonly<Record<string, string | undefined>>,
    values: Readonly<Record<string, Filling>> = {},
  ): Filling {
    return filled(
      this.phrases.rules[shape],
      (place, order = 'main') => values[place] ?? this.condition(conditions[place] ?? '', order as Order),
    );
  }

  private condition(source: string, order: Order): Filling {
    const expr = treeOf(source);
    return expr ? this.printer.condition(expr, this.frames, order) : asWritten(source);
  }

  private bounds({ of, least, most }: Extract<Rule, { kind: 'limit' }>): Filling {
    const bounds = this.phrases.bounds[this.words.rowOf(of)?.is === 'date' ? 'day' : 'number'];
    const shape = least === undefined ? bounds.most : most === undefined ? bounds.least : bounds.both;
    const unit = this.words.rowOf(of)?.unit ?? '';
    return filled(shape, (place) => this.formula((place === 'least' ? least : most) ?? '', unit));
  }

  private formula(source: string, unit: string): Filling {
    const expr = treeOf(source);
    return expr ? this.printer.value(expr, this.frames, unit) : asWritten(source);
  }

  private proposal(rule: Extract<Rule, { kind: 'set' | 'usual' }>, shape: Shape): Filling {
    const value = this.proposed(rule.value, this.targetRow(rule.of, this.words));
    return this.shape(shape, { when: rule.when }, { target: this.target(rule.of, this.words), value });
  }

  private targetRow(of: string, words: Words): RowWord | undefined {
    const [row = '', option = '', , ...inner] = of.split('/');
    const inside = words.inside(row, option);
    return inside && inner.length > 0 ? this.targetRow(inner.join('/'), inside) : words.rowOf(of);
  }

  /** What a rule is about: a row, an option, how many of one, or a row of a build inside. */
  private target(of: string, words: Words): Filling {
    const row = words.rowOf(of);
    if (row) return this.printer.name(row, 'row');
    const [dotted = '', option = ''] = of.split('.');
    const [first = '', second = '', third = '', ...inner] = of.split('/');
    const atOption = this.optionOf(words, dotted, option) ?? this.optionOf(words, first, second);
    if (!atOption) return asWritten(of);
    if (!of.includes('/')) return this.printer.option(atOption, this.frames);
    if (third === 'quantity' && inner.length === 0) {
      const name = words.properties.find(({ id }) => id === 'quantity') ?? {
        id: 'quantity',
        name: 'quantity',
      };
      return filled(this.phrases.property, (place) =>
        place === 'name' ? this.printer.name(name, 'option') : this.printer.option(atOption, this.frames),
      );
    }
    const inside = words.inside(first, second);
    if (!inside || inner.length === 0) return asWritten(of);
    return filled(this.phrases.inBuild, (place) => {
      switch (place) {
        case 'inner':
          return this.target(inner.join('/'), inside);
        case 'index':
          return [{ is: 'value', text: third }];
        case 'option':
          return this.printer.name(atOption.option, 'option');
        default:
          return this.printer.name(atOption.row, 'row');
      }
    });
  }

  private optionOf(words: Words, rowId: string, id: string) {
    const row = words.rowOf(rowId);
    const option = row?.options.find((each) => each.id === id);
    return row && option && { row, option, words };
  }

  private proposed(value: Proposed, row: RowWord | undefined): Filling {
    if (value !== null && typeof value === 'object') {
      // A number alone is a value and no formula.
      const expr = treeOf(value.formula);
      const plain = expr?.kind === 'literal' || (expr?.kind === 'negate' && expr.of.kind === 'literal');
      return plain ? asWritten(value.formula) : this.formula(value.formula, '');
    }
    return this.value(value, row);
  }

  private value(value: DecisionValue, row: RowWord | undefined): Filling {
    const { phrases } = this;
    if (value === null) return say(phrases.nothing);
    if (typeof value === 'boolean') return say(value ? phrases.taken : phrases.takenNot);
    const option = row?.options.find(({ id }) => id === value);
    if (option) return this.printer.name(option, 'option');
    if (/^-?\d+(\.\d+)?$/.test(value) && row?.is !== 'text' && (row?.options.length ?? 0) === 0) {
      const unit = row?.unit ?? '';
      const digits = value.replace('.', phrases.decimal).replace('-', '−');
      return [{ is: 'value', text: unit === '' ? digits : `${digits} ${unit}` }];
    }
    if (row?.is === 'date') return [{ is: 'value', text: value }];
    return this.printer.text(value);
  }
}

/** What cannot be read, as it stands. */
const asWritten = (source: string): Filling => [{ is: 'formula', text: `{${source}}` }];
