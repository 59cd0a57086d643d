/** Reads values of sentences into expressions. */
import { exact } from '../../exact';
import { Day, parsed, type Arithmetic, type Expr } from '../../formula';
import { exprOf, type Frame, type Frames, type OptionAt } from './frames';
import { filled, say } from './pieces';
import { phrasesOf, type Phrases } from './phrases';
import type { Scanner } from './scanner';
import { withId, type OptionWord, type RowWord, type Words } from './words';

/** A row that was read, and the frame it is of. */
export interface RowRead {
  row: RowWord;
  frame: Frame;
  expr: Expr;
}

/** An option by its name and that of its row. */
export interface WithinWord extends OptionWord {
  at: OptionAt;
}

const at = 0;
const call = (name: string, ...args: Expr[]): Expr => ({ kind: 'call', name, args, at });
const withinKnown = new WeakMap<Words, readonly WithinWord[]>();

/** All options of a model, called "Beacon of Terminals". */
export function withinWords(words: Words): readonly WithinWord[] {
  const known = withinKnown.get(words);
  if (known) return known;
  const { within } = phrasesOf[words.language];
  const made = words.rows.flatMap((row) =>
    row.options.map((option): WithinWord => {
      const called = (nameOf: (word: OptionWord) => string): string =>
        filled(within, (place) => say(nameOf(place === 'option' ? option : row)))
          .map(({ text }) => text)
          .join('');
      return {
        id: `${row.id}.${option.id}`,
        name: called(({ name }) => name),
        also: [called(withId)],
        at: { row, option, words, inside: words.inside(row.id, option.id) },
      };
    }),
  );
  withinKnown.set(words, made);
  return made;
}

/** Options that bring builds. */
const buildKnown = new WeakMap<Words, readonly WithinWord[]>();
function buildWords(words: Words): readonly WithinWord[] {
  const known = buildKnown.get(words) ?? withinWords(words).filter(({ at: { inside } }) => inside);
  buildKnown.set(words, known);
  return known;
}

const signs: readonly (readonly [pattern: RegExp, op: Arithmetic, tightness: number])[] = [
  [/\+/, '+', 1],
  [/[-−–]/, '-', 1],
  [/×|\*(?!\*)|x(?![\p{L}\p{N}_])/u, '*', 2],
  [/\/|÷/, '/', 2],
  [/\^|\*\*/, '**', 3],
];

/** Reads values: a row, a number, a sum, what is read of an option or a build, a formula in braces. */
export class ValueReader {
  readonly phrases: Phrases;

  constructor(
    readonly scanner: Scanner,
    readonly words: Words,
  ) {
    this.phrases = phrasesOf[words.language];
  }

  /** A row of the innermost frame that has one of this name, the longest name first. */
  row(frames: Frames): RowRead | null {
    let found: { frame: Frame; to: number } | undefined;
    for (const frame of [...frames].reverse()) {
      const to = this.scanner.attempt(() => {
        this.scanner.expect({ is: 'row', words: frame.words });
        return this.scanner.name(frame.words.rows, 'row') && this.scanner.at;
      });
      if (to === null) continue;
      this.scanner.at = this.scanner.tokens.pop()?.from ?? to;
      if (!found || to > found.to) found = { frame, to };
    }
    if (!found) return null;
    const { frame } = found;
    const row = this.scanner.name(frame.words.rows, 'row');
    return row && { row, frame, expr: exprOf(frame, row.id) };
  }

  /** A value; a number may be followed by the unit that it is compared in. */
  value(frames: Frames, unit = ''): Expr | null {
    return this.sum(frames, 1, unit);
  }

  private sum(frames: Frames, tightness: number, unit: string): Expr | null {
    if (tightness > 3) return this.atom(frames, unit);
    let left = this.sum(frames, tightness + 1, unit);
    while (left) {
      const before: Expr = left;
      const next = this.scanner.attempt((): Expr | null => {
        const sign = signs.find(
          ([pattern, , own]) => own === tightness && this.scanner.pattern(pattern, 'word') !== null,
        );
        const right = sign && this.sum(frames, tightness + 1, '');
        return sign && right ? { kind: 'arithmetic', op: sign[1], left: before, right, at } : null;
      });
      if (!next) return left;
      left = next;
      // A power of a power stands in brackets.
      if (tightness === 3) return left;
    }
    return null;
  }

  private atom(frames: Frames, unit: string): Expr | null {
    const { scanner, phrases } = this;
    return scanner.first<Expr>(
      () => this.braced(),
      () => this.day(),
      () => this.number(unit),
      () => this.text(),
      () => this.told(frames),
      () => this.row(frames)?.expr ?? null,
      () => (scanner.words(phrases.today) ? call('today') : null),
      () => this.inBrackets(() => this.value(frames)),
    );
  }

  inBrackets<T>(inner: () => T | null): T | null {
    const { scanner } = this;
    if (!scanner.pattern(/\(/, 'word')) return null;
    const found = inner();
    return found !== null && scanner.words(')') ? found : null;
  }

  private braced(): Expr | null {
    const found = this.scanner.braced();
    return found && parsed(found.source);
  }

  /** A number as the language writes it, with the unit it is asked in or without. */
  number(unit: string): Expr | null {
    const { scanner, phrases } = this;
    scanner.expect({ is: 'number', unit });
    const found = scanner.pattern(
      phrases.decimal === ',' ? /([-−]?)(\d+(?:,\d+)?)(?![\d.])/ : /([-−]?)(\d+(?:\.\d+)?)(?![\d])/,
      'value',
    );
    if (!found) return null;
    const value = exact((found[2] ?? '').replace(',', '.'));
    if (unit !== '') this.unit(unit);
    const literal: Expr = { kind: 'literal', value, at };
    return found[1] === '' ? literal : { kind: 'negate', of: literal, at };
  }

  /** A unit is part of its number. */
  private unit(unit: string): void {
    const { scanner } = this;
    const number = scanner.tokens.at(-1);
    const from = scanner.behindSpace();
    const to = from + unit.length;
    const inWord = /[\p{L}\p{N}_]/u;
    if (scanner.text.slice(from, to) !== unit) {
      scanner.expect({ is: 'word', text: unit });
      return;
    }
    if (inWord.test(unit.at(-1) ?? '') && inWord.test(scanner.text[to] ?? '')) return;
    scanner.at = to;
    if (number) number.to = to;
  }

  day(): Expr | null {
    const found = this.scanner.pattern(/\d{4}-\d\d-\d\d(?![\d-])/, 'value');
    const value = found && Day.read(found[0]);
    return value ? { kind: 'literal', value, at } : null;
  }

  text(): Expr | null {
    const found = this.scanner.pattern(/[“„]([^“”„"]*)[”“]|"([^"]*)"/, 'value');
    return found && { kind: 'literal', value: found[1] ?? found[2] ?? '', at };
  }

  private told(frames: Frames): Expr | null {
    const { scanner, phrases } = this;
    return scanner.first<Expr>(
      () => this.property(frames),
      () => this.one(phrases.length, () => this.row(frames)?.expr ?? null, 'string length'),
      () => this.one(phrases.number, () => this.counted(frames), 'count'),
      () => this.several(phrases.least, 'min', frames),
      () => this.several(phrases.greatest, 'max', frames),
      () => this.several(phrases.sum, 'sum', frames),
    );
  }

  private one(shape: string, of: () => Expr | null, name: string): Expr | null {
    const found = this.scanner.shape<{ of: Expr }>(shape, { of })?.of;
    return found ? call(name, found) : null;
  }

  private several(head: string, name: string, frames: Frames): Expr | null {
    if (!this.scanner.words(head)) return null;
    const values = this.inBrackets(() => this.separated(() => this.value(frames)));
    return values && values.length > 1 ? call(name, ...values) : null;
  }

  /** At least one, with semicolons between. */
  separated<T>(read: () => T | null): T[] | null {
    const first = read();
    if (first === null) return null;
    const found = [first];
    for (;;) {
      const next = this.scanner.attempt(() => (this.scanner.pattern(/;/, 'word') ? read() : null));
      if (next === null) return found;
      found.push(next);
    }
  }

  private counted(frames: Frames): Expr | null {
    return this.scanner.first<Expr>(
      () => this.within(frames, withinWords)?.expr ?? null,
      () => {
        const read = this.row(frames);
        return read?.row.is === 'several' ? read.expr : null;
      },
    );
  }

  /** "Beacon of Terminals", of the innermost frame that has it. */
  within(frames: Frames, of = buildWords): { expr: Expr; at: OptionAt } | null {
    for (const frame of [...frames].reverse()) {
      const options = of(frame.words);
      this.scanner.expect({ is: 'option', options });
      const found = this.scanner.name(options, 'option');
      if (!found) continue;
      const { row, option } = found.at;
      return { expr: { kind: 'path', of: exprOf(frame, row.id), name: option.id, at }, at: found.at };
    }
    return null;
  }

  private property(frames: Frames): Expr | null {
    const of = (): Expr | null =>
      this.scanner.first<Expr>(
        () => this.within(frames, withinWords)?.expr ?? null,
        () => this.row(frames)?.expr ?? null,
      );
    for (const { words } of [...frames].reverse()) {
      const name = (): string | null => this.scanner.name(words.properties, 'option')?.id ?? null;
      const found = this.scanner.shape<{ name: string; of: Expr }>(this.phrases.property, { name, of });
      if (found?.of && found.name !== undefined) return { kind: 'path', of: found.of, name: found.name, at };
    }
    return null;
  }
}
