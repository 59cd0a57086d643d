/** Part numbers: built live from a scheme of segments, cell by cell, and read back. */
import { Exact } from '../exact';
import { checkCharacter } from './check';
import { registeredOf, type Registered } from './registered';
import {
  buildsInside,
  featureAt,
  nameOfBuild,
  open,
  Reading,
  type CompiledModel,
  type Segment,
  type Texts,
  type Values,
} from '../model';

export { checkCharacter } from './check';
export { candidates, type Candidate, type Misread } from './read';
export {
  registeredAs,
  registeredDecisions,
  registeredOf,
  registrations,
  sequenceKey,
  type Registered,
  type Registration,
} from './registered';

/** One segment as it stands. `text` is null while the segment is open. */
export interface Cell {
  /** Separator written before it. */
  before: string;
  text: string | null;
  /** Width to leave while open. */
  width: number;
  /** Row it comes from; absent for fixed text. */
  row?: string;
  /** The number is registered when the build is saved. */
  registered?: boolean;
  /** It checks what stands before it. */
  check?: boolean;
}

/** A part number, and what it still lacks. */
export interface PartNumber {
  cells: Cell[];
  /** The whole number, with middle dots where something is open. */
  text: string;
  complete: boolean;
}

/**
 * Builds the part number; `sequence` is the registered number for what codes cannot say, where the build
 * needs and has one.
 */
export function partNumber(model: CompiledModel, values: Values, sequence?: number): PartNumber {
  const cells = numberBySegment(model, values, sequence).filter((cell) => cell !== null);
  const text = cells.map((cell) => cell.before + (cell.text ?? '·'.repeat(cell.width))).join('');
  return { cells, text, complete: cells.every((cell) => cell.text !== null) };
}

/** What each segment of the scheme comes to, in its order; null for one that is not in this number. */
export function numberBySegment(model: CompiledModel, values: Values, sequence?: number): (Cell | null)[] {
  const reading = new Reading(model, values);
  const cells = model.document.numbering.map((segment, index): Cell | null => {
    const holds = reading.holdsAt(`numbering.${String(index)}.when`);
    if (holds !== true) return null;
    const before = segment.before ?? '';
    const cell =
      segment.kind === 'check'
        ? { text: null, width: 1, check: true }
        : segment.kind === 'marks'
          ? marksOf(reading, segment, index)
          : cellOf(model, reading, segment, sequence);
    // Letters of nothing chosen leave no trace, nor does their separator.
    return cell.text === '' ? null : { before, ...cell };
  });
  withChecks(
    model,
    cells.filter((cell) => cell !== null),
  );
  return cells;
}

const specialMark = /-Z(\d{4,})$/;

/** The part number of a build with special parts: the number registered for them stands behind it. */
export function markedSpecial(number: PartNumber, sequence: number | undefined): PartNumber {
  const cell: Cell = {
    before: '-',
    text: sequence === undefined ? null : `Z${String(sequence).padStart(4, '0')}`,
    width: 5,
    registered: true,
  };
  return {
    cells: [...number.cells, cell],
    text: `${number.text}-${cell.text ?? '·····'}`,
    complete: number.complete && cell.text !== null,
  };
}

/** A part number as typed, and the number of its special parts where it is marked as having some. */
export function withoutSpecial(text: string): { text: string; special?: number } {
  const mark = specialMark.exec(text);
  return mark ? { text: text.slice(0, mark.index), special: Number(mark[1]) } : { text };
}

/** The part numbers of the builds inside, which are parts of their own; with what is registered for them. */
export function numbersInside(
  model: CompiledModel,
  values: Values,
  registered: Registered = {},
  within = '',
): { place: string; name: Texts; number: PartNumber }[] {
  return buildsInside(new Reading(model, values)).flatMap((inside) => {
    const { model: own } = inside.build;
    const place = within + inside.build.place;
    return [
      {
        place,
        name: nameOfBuild(inside),
        number: partNumber(own, inside.values, registeredOf(registered, own, inside.values)),
      },
      ...numbersInside(own, inside.values, registered, `${place}/`),
    ];
  });
}

/** Check characters stand for what comes before them, so they are open while that is. */
function withChecks({ document }: CompiledModel, cells: Cell[]): void {
  if (!document.numbering.some((segment) => segment.kind === 'check')) return;
  let before: string | null = '';
  for (const cell of cells) {
    if (cell.check) cell.text = before === null ? null : checkCharacter(before);
    before = before === null || cell.text === null ? null : before + cell.text;
  }
}

function marksOf(
  reading: Reading,
  { of }: Extract<Segment, { kind: 'marks' }>,
  index: number,
): Omit<Cell, 'before'> {
  const met = of.map(({ text }, at) => ({
    text,
    holds: reading.holdsAt(`numbering.${String(index)}.of.${String(at)}`),
  }));
  return {
    text: met.some(({ holds }) => holds === open)
      ? null
      : met.map(({ text, holds }) => (holds === true ? text : '')).join(''),
    width: 1,
  };
}

/** A whole number with its sign before the zeros that fill it. */
function padded(value: Exact, width: number): string {
  const digits = value.abs().toFixed(0, Exact.ROUND_HALF_UP);
  return (value.isNegative() && !/^0*$/.test(digits) ? '-' : '') + digits.padStart(width, '0');
}

function cellOf(
  model: CompiledModel,
  reading: Reading,
  segment: Exclude<Segment, { kind: 'check' | 'marks' }>,
  sequence: number | undefined,
): Omit<Cell, 'before'> {
  switch (segment.kind) {
    case 'text':
      return { text: segment.text, width: segment.text.length };
    case 'number': {
      const value = reading.named(segment.of);
      const written =
        value instanceof Exact ? padded(value.times(segment.times ?? '1'), segment.width) : null;
      return { text: written, width: segment.width, row: segment.of };
    }
    case 'sequence':
      return {
        text: sequence === undefined ? null : String(sequence).padStart(segment.width, '0'),
        width: segment.width,
        registered: true,
      };
    case 'code':
    case 'letters': {
      const feature = featureAt(model, segment.of);
      const value = reading.named(segment.of);
      const width = Math.max(1, ...(feature?.options.map((option) => option.code?.length ?? 0) ?? []));
      if (value === open) return { text: null, width, row: segment.of };
      const taken =
        feature?.options.filter((option) =>
          Array.isArray(value) ? value.includes(option.id) : value === option.id,
        ) ?? [];
      return { text: taken.map((option) => option.code ?? '').join(''), width, row: segment.of };
    }
  }
}
