/** What names mean at a place of a sentence: rows of the model, or those of a build that is spoken of. */
import type { Expr } from '../../formula';
import { folded, type OptionWord, type RowWord, type Words } from './words';

/** A model whose rows can be named: the model itself, or that of the build which a name of the formula stands for. */
export interface Frame {
  words: Words;
  /** What the formula calls the build; nothing for the model itself. */
  each?: string;
}

/** Frames from the outermost to the one that is looked into first. */
export type Frames = readonly [Frame, ...Frame[]];

/** A row, and whose it is. */
export interface RowAt {
  row: RowWord;
  words: Words;
}

/** An option of a row, and the words of the model that it brings. */
export interface OptionAt extends RowAt {
  option: OptionWord;
  inside?: Words | undefined;
}

/** The row that an expression is. */
export function rowAt(frames: Frames, expr: Expr): RowAt | undefined {
  if (expr.kind === 'name') return found(frames[0].words, expr.name);
  if (expr.kind !== 'path' || expr.of.kind !== 'name') return undefined;
  const { name } = expr.of;
  const frame = frames.findLast(({ each }) => each === name);
  return frame && found(frame.words, expr.name);
}

function found(words: Words, id: string): RowAt | undefined {
  const row = words.rowOf(id);
  return row && { row, words };
}

/** The option of a row that an expression is, such as `terminals.beacon`. */
export function optionAt(frames: Frames, expr: Expr): OptionAt | undefined {
  if (expr.kind !== 'path') return undefined;
  const at = rowAt(frames, expr.of);
  const option = at?.row.options.find(({ id }) => id === expr.name);
  return at && option && { ...at, option, inside: at.words.inside(at.row.id, option.id) };
}

/** The expression of a row of a frame. */
export const exprOf = ({ each }: Frame, id: string): Expr =>
  each === undefined
    ? { kind: 'name', name: id, at: 0 }
    : { kind: 'path', of: { kind: 'name', name: each, at: 0 }, name: id, at: 0 };

/** What a formula that comes of a sentence calls a build, by how many are spoken of around it. */
export const eachOf = (frames: Frames): string =>
  freeName(
    ['build', 'inner', 'third', 'fourth'][frames.length - 1] ?? `build${String(frames.length)}`,
    frames,
  );

function freeName(name: string, frames: Frames): string {
  return frames[0].words.rowOf(name) ? freeName(`${name}Inside`, frames) : name;
}

/** Whether a build that is spoken of has a row of the same name, which would be read in its place. */
export function isHidden({ row, words }: RowAt, frames: Frames): boolean {
  const own = frames.findIndex((frame) => frame.words === words);
  const name = folded(row.name);
  return frames.slice(own + 1).some((frame) => frame.words.rows.some((each) => folded(each.name) === name));
}
