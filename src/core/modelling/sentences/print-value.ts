/** Values as sentences have them: names, numbers, sums, and what is read of options and builds. */
import { Exact } from '../../exact';
import { Day, written, type Expr } from '../../formula';
import { isHidden, optionAt, rowAt, type Frames, type OptionAt, type RowAt } from './frames';
import { between, filled, say, spaced, type Filling, type PieceKind } from './pieces';
import type { Phrases } from './phrases';
import { withId, type OptionWord } from './words';

/** How sentences are printed. */
export interface Manner {
  phrases: Phrases;
  /** Names with their ids, where names alone could be read as something else. */
  withIds: boolean;
  /** Each of several conditions in brackets, where what follows one could be read as part of it. */
  inBrackets: boolean;
  /** Conditions as formulas, where no words tell what they mean. */
  asFormulas: boolean;
}

/** How tightly parts of a sum hold together. */
const tightness = { '+': 1, '-': 1, '*': 2, '/': 2, '**': 3 } as const;
const signs = { '+': '+', '-': '−', '*': '×', '/': '/', '**': '^' } as const;

/** A formula as it is, in braces. */
export const asFormula = (expr: Expr): Filling => [{ is: 'formula', text: `{${written(expr)}}` }];

/** Prints values. */
export class ValuePrinter {
  constructor(readonly manner: Manner) {}

  name(word: OptionWord, is: PieceKind): Filling {
    return [{ is, text: this.manner.withIds ? withId(word) : word.name }];
  }

  /** A row; with its id where a build that is spoken of has one of this name. */
  row(at: RowAt, frames: Frames): Filling {
    return this.marked(at.row, 'row', isHidden(at, frames));
  }

  private marked(word: OptionWord, is: PieceKind, hidden: boolean): Filling {
    return hidden ? [{ is, text: withId(word) }] : this.name(word, is);
  }

  /** "Beacon of Terminals". */
  option(at: OptionAt, frames: Frames): Filling {
    const hidden = isHidden(at, frames);
    return filled(this.manner.phrases.within, (place) =>
      place === 'option' ? this.marked(at.option, 'option', hidden) : this.marked(at.row, 'row', hidden),
    );
  }

  number(value: Exact, unit = ''): Filling {
    const digits = value.toFixed().replace('.', this.manner.phrases.decimal).replace('-', '−');
    return [{ is: 'value', text: unit === '' ? digits : `${digits} ${unit}` }];
  }

  text(text: string): Filling {
    const [open, close] = this.manner.phrases.quotes;
    return [{ is: 'value', text: `${open}${text}${close}` }];
  }

  /** A value, compared with something of a unit; what sentences have no words for stands as a formula. */
  value(expr: Expr, frames: Frames, unit = ''): Filling {
    return this.sum(expr, frames, 0, unit);
  }

  private sum(expr: Expr, frames: Frames, within: number, unit = ''): Filling {
    if (expr.kind === 'arithmetic') {
      const own = tightness[expr.op];
      const left = this.sum(expr.left, frames, expr.op === '**' ? own + 1 : own);
      const parts = spaced(left, say(signs[expr.op]), this.sum(expr.right, frames, own + 1));
      return own < within ? [...say('('), ...parts, ...say(')')] : parts;
    }
    if (expr.kind === 'literal') return this.literal(expr.value, unit) ?? asFormula(expr);
    if (expr.kind === 'negate' && expr.of.kind === 'literal' && expr.of.value instanceof Exact)
      return this.number(expr.of.value.negated(), unit);
    const row = rowAt(frames, expr);
    if (row) return this.row(row, frames);
    return this.told(expr, frames) ?? asFormula(expr);
  }

  private literal(value: Extract<Expr, { kind: 'literal' }>['value'], unit: string): Filling | null {
    if (value instanceof Exact) return this.number(value, unit);
    if (value instanceof Day) return [{ is: 'value', text: value.toString() }];
    return typeof value === 'string' ? this.text(value) : null;
  }

  /** What is read of an option, a text or the builds of an option; null for anything else. */
  private told(expr: Expr, frames: Frames): Filling | null {
    const { phrases } = this.manner;
    if (expr.kind === 'path') return this.property(expr, frames);
    if (expr.kind !== 'call') return null;
    const [first] = expr.args;
    switch (expr.name) {
      case 'today':
        return expr.args.length === 0 ? say(phrases.today) : null;
      case 'string length': {
        const at = first && rowAt(frames, first);
        return at ? filled(phrases.length, () => this.row(at, frames)) : null;
      }
      case 'count': {
        const of = first && this.counted(first, frames);
        return of ? filled(phrases.number, () => of) : null;
      }
      case 'min':
        return this.ofSeveral(phrases.least, expr.args, frames);
      case 'max':
        return this.ofSeveral(phrases.greatest, expr.args, frames);
      case 'sum':
        return this.ofSeveral(phrases.sum, expr.args, frames);
      default:
        return null;
    }
  }

  private ofSeveral(of: string, values: readonly Expr[], frames: Frames): Filling | null {
    if (values.length < 2) return null;
    const parts = between(
      values.map((each) => this.value(each, frames)),
      '; ',
    );
    return [...say(`${of} (`), ...parts, ...say(')')];
  }

  private counted(expr: Expr, frames: Frames): Filling | null {
    const at = optionAt(frames, expr);
    if (at) return this.option(at, frames);
    const row = rowAt(frames, expr);
    return row?.row.is === 'several' ? this.row(row, frames) : null;
  }

  /** "the quantity of Lamp of More". */
  private property(expr: Extract<Expr, { kind: 'path' }>, frames: Frames): Filling | null {
    const option = optionAt(frames, expr.of);
    const at = option ?? rowAt(frames, expr.of);
    const property = at?.words.properties.find(({ id }) => id === expr.name);
    if (!at || !property) return null;
    return filled(this.manner.phrases.property, (place) =>
      place === 'name'
        ? this.name(property, 'option')
        : option
          ? this.option(option, frames)
          : this.row(at, frames),
    );
  }
}
