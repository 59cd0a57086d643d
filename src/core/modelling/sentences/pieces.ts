/** A sentence while it is put together: pieces of text, each with what it stands for. */

/** What a piece of a sentence is. */
export type PieceKind = 'word' | 'row' | 'option' | 'value' | 'formula' | 'reason';

/** A piece of a sentence. */
export interface Piece {
  is: PieceKind;
  text: string;
}

/** What stands at a place of a shape. */
export type Filling = readonly Piece[];

/** Words as they stand. */
export const say = (text: string): Filling => (text === '' ? [] : [{ is: 'word', text }]);

/** Pieces behind each other, with spaces between. */
export const spaced = (...parts: readonly Filling[]): Filling =>
  parts
    .filter((part) => part.length > 0)
    .flatMap((part, index) => (index === 0 ? part : [...say(' '), ...part]));

/** Pieces with something between each two. */
export const between = (parts: readonly Filling[], separator: string): Filling =>
  parts.flatMap((part, index) => (index === 0 ? part : [...say(separator), ...part]));

/** "A, B or C". */
export function listed(parts: readonly Filling[], or: string): Filling {
  const last = parts.at(-1) ?? [];
  return parts.length < 2 ? last : [...between(parts.slice(0, -1), ', '), ...say(` ${or} `), ...last];
}

/** A part of a shape: words, or a place with the order of what stands there. */
export type ShapePart = { words: string } | { place: string; order?: string };

const shapes = new Map<string, readonly ShapePart[]>();

/** A shape in its parts: `When {when:sub}, ...`. */
export function shapeParts(shape: string): readonly ShapePart[] {
  const known = shapes.get(shape);
  if (known) return known;
  const parts = shape
    .split(/(\{[^}]*\})/)
    .filter((part) => part !== '')
    .map((part): ShapePart => {
      if (!part.startsWith('{')) return { words: part };
      const [place = '', order] = part.slice(1, -1).split(':');
      return { place, ...(order === undefined ? {} : { order }) };
    });
  shapes.set(shape, parts);
  return parts;
}

/** A shape with its places filled. */
export const filled = (shape: string, fill: (place: string, order: string | undefined) => Filling): Filling =>
  shapeParts(shape).flatMap((part) => ('words' in part ? say(part.words) : fill(part.place, part.order)));
