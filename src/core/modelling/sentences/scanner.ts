/**
 * Goes through the text of a sentence: words, names and numbers at a place, and what could have stood at the place
 * that was come to farthest.
 */
import { shapeParts, type PieceKind } from './pieces';
import { folded, withId, type OptionWord, type RowWord, type Words } from './words';

/** Something that could stand at a place. */
export type Expected =
  | { is: 'word'; text: string }
  /** A row of the model or of a build that is spoken of. */
  | { is: 'row'; words: Words }
  /** One of these. */
  | { is: 'option'; options: readonly OptionWord[]; of?: RowWord }
  | { is: 'number'; unit: string }
  | { is: 'formula' }
  | { is: 'end' };

/** A part of a text that was understood. */
export interface Token {
  from: number;
  to: number;
  is: PieceKind;
}

const isWordPart = (character: string | undefined): boolean =>
  character !== undefined && /[\p{L}\p{N}_]/u.test(character);

const isSpace = (character: string | undefined): boolean =>
  character === ' ' || (character !== undefined && /\s/.test(character));

/** The names of things, to be found in a text: by their lengths, the longest first. */
type Names = readonly (readonly [length: number, words: ReadonlyMap<string, OptionWord>])[];

const namesOf = new WeakMap<readonly OptionWord[], Names>();

/** Names by their lengths, so that "Steel ramps" is not read as "Steel", however many there are. */
function indexed(words: readonly OptionWord[]): Names {
  const known = namesOf.get(words);
  if (known) return known;
  const byLength = new Map<number, Map<string, OptionWord>>();
  for (const word of words)
    for (const text of new Set([word.name, withId(word), ...(word.also ?? [])].map(folded))) {
      const own = byLength.get(text.length) ?? new Map<string, OptionWord>();
      // Of two that are called alike the first is meant.
      if (text !== '' && !own.has(text)) own.set(text, word);
      byLength.set(text.length, own);
    }
  const names = [...byLength].sort(([one], [other]) => other - one);
  namesOf.set(words, names);
  return names;
}

/** Reads forward through a text; what does not stand there leaves the place where it was. */
export class Scanner {
  at = 0;
  /** The place come to farthest, and what could stand there. */
  farthest = 0;
  expected: Expected[] = [];
  readonly tokens: Token[] = [];

  constructor(readonly text: string) {}

  /** Tries something; where it is not there nothing was read. */
  attempt<T>(read: () => T | null): T | null {
    const { at } = this;
    const { length } = this.tokens;
    const found = read();
    if (found === null) {
      this.at = at;
      this.tokens.length = length;
    }
    return found;
  }

  /** The first of several that is there. */
  first<T>(...ways: readonly (() => T | null)[]): T | null {
    for (const way of ways) {
      const found = this.attempt(way);
      if (found !== null) return found;
    }
    return null;
  }

  expect(what: Expected): null {
    const at = this.behindSpace();
    if (at > this.farthest) {
      this.farthest = at;
      this.expected = [];
    }
    if (at === this.farthest) this.expected.push(what);
    return null;
  }

  behindSpace(at = this.at): number {
    let next = at;
    while (next < this.text.length && isSpace(this.text[next])) next++;
    return next;
  }

  /** Words as a phrase has them; commas and colons may be left out. */
  words(phrase: string): true | null {
    return this.attempt(() => {
      const parts = phrase.trim().match(/[,:]|[();]|[^\s,:();]+/g) ?? [];
      for (const [index, part] of parts.entries())
        if (!this.word(part)) {
          if (part === ',' || part === ':') continue;
          return this.expect({ is: 'word', text: parts.slice(index).join(' ') });
        }
      return true;
    });
  }

  private word(part: string): boolean {
    const from = this.behindSpace();
    const to = from + part.length;
    if (this.text.slice(from, to).toLowerCase() !== part.toLowerCase()) return false;
    if (isWordPart(part.at(-1)) && isWordPart(this.text[to])) return false;
    this.at = to;
    this.token(from, to, 'word');
    return true;
  }

  token(from: number, to: number, is: PieceKind): void {
    this.tokens.push({ from, to, is });
  }

  /** The longest of the names that stands here. */
  name<T extends OptionWord>(words: readonly T[], is: PieceKind): T | null {
    const from = this.behindSpace();
    for (const [length, names] of indexed(words)) {
      const to = this.endOf(from, length);
      const word = to === null ? undefined : names.get(folded(this.text.slice(from, to)));
      if (to === null || !word) continue;
      if (isWordPart(this.text[to - 1]) && isWordPart(this.text[to])) continue;
      this.token(from, to, is);
      this.at = to;
      return word as T;
    }
    return null;
  }

  /** Where a name of a length ends that begins at a place; however many spaces are between its words. */
  private endOf(from: number, length: number): number | null {
    let at = from;
    for (let count = 0; count < length; count++) {
      if (at >= this.text.length) return null;
      at = isSpace(this.text[at]) ? this.behindSpace(at) : at + 1;
    }
    return at;
  }

  /** What a pattern finds right here. */
  pattern(pattern: RegExp, is: PieceKind): RegExpExecArray | null {
    const from = this.behindSpace();
    const sticky = new RegExp(pattern.source, `${pattern.flags.replace('y', '')}y`);
    sticky.lastIndex = from;
    const found = sticky.exec(this.text);
    if (!found) return null;
    this.at = from + found[0].length;
    this.token(from, this.at, is);
    return found;
  }

  /** A formula in braces, without them; its own braces and texts apart. */
  braced(): { source: string; at: number } | null {
    const from = this.behindSpace();
    if (this.text[from] !== '{') return this.expect({ is: 'formula' });
    let depth = 0;
    for (const found of this.text.slice(from).matchAll(/"(?:\\.|[^"\\])*"|[{}]/g)) {
      if (found[0] === '{') depth++;
      else if (found[0] === '}') depth--;
      if (depth > 0) continue;
      const to = from + found.index + 1;
      this.at = to;
      this.token(from, to, 'formula');
      return { source: this.text.slice(from + 1, to - 1), at: from + 1 };
    }
    return null;
  }

  isAtEnd(): boolean {
    if (this.behindSpace() >= this.text.length) return true;
    this.expect({ is: 'end' });
    return false;
  }

  /**
   * A shape whose places are read, each by its reader, which sees what was read before it; null where something is not
   * there.
   */
  shape<T extends object>(shape: string, readers: Readers<T>): Partial<T> | null {
    return this.attempt(() => {
      const found: Partial<T> = {};
      for (const part of shapeParts(shape)) {
        if ('words' in part) {
          if (this.words(part.words) === null) return null;
          continue;
        }
        const place = part.place as keyof T;
        const read = readers[place](found);
        if (read === null) return null;
        found[place] = read;
      }
      return found;
    });
  }
}

/** What reads each place of a shape. */
export type Readers<T> = { readonly [K in keyof T]: (before: Partial<T>) => T[K] | null };
