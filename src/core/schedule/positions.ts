/** Positions of a site schedule: what stands where on a site, each under a tag of its own. */
import { exact, type ExactText } from '../exact';

/** A schedule has so many positions at most. */
export const mostPositions = 5_000;
/** So long at most, in characters. */
export const longest = { tag: 40, area: 80, remark: 500, words: 200 } as const;

/** What a position is of: a line of a quote (the same in all revisions), a kept build, an item, or words alone. */
export type PositionOf =
  | { is: 'line'; quote: string; line: string }
  | { is: 'build'; build: string }
  | { is: 'item'; sku: string }
  | { is: 'words'; text: string };

/** A position as it is typed. */
export interface Position {
  tag: string;
  area: string;
  quantity: ExactText;
  remark: string;
}

/** What is wrong with a position, by its place and field. */
export interface PositionProblem {
  at: number;
  field: keyof Position;
  code: string;
  params?: Record<string, string | number>;
}

/** By which tags are told apart: however their letters and blanks are written, one tag is one place. */
export const tagKey = (tag: string): string =>
  tag.normalize('NFKC').trim().replace(/\s+/g, ' ').toLowerCase();

/** All that keeps positions from being a schedule; in their order, each tag that is there twice at its second place. */
export function positionProblems(positions: readonly Position[]): PositionProblem[] {
  const problems: PositionProblem[] = [];
  const seen = new Map<string, number>();
  for (const [at, { tag, area, quantity, remark }] of positions.entries()) {
    const key = tagKey(tag);
    if (key === '') problems.push({ at, field: 'tag', code: 'schedule.noTag' });
    else if (seen.has(key))
      problems.push({
        at,
        field: 'tag',
        code: 'schedule.tagTwice',
        params: { tag: tag.trim(), row: (seen.get(key) ?? 0) + 1 },
      });
    else seen.set(key, at);
    if (tag.trim().length > longest.tag) problems.push({ at, field: 'tag', code: 'input.tooLong' });
    if (area.length > longest.area) problems.push({ at, field: 'area', code: 'input.tooLong' });
    if (remark.length > longest.remark) problems.push({ at, field: 'remark', code: 'input.tooLong' });
    if (!exact(quantity).gt(0)) problems.push({ at, field: 'quantity', code: 'schedule.noQuantity' });
  }
  return problems;
}

/** A tag that none has yet: the wanted word and the next number after those that begin with it. */
export function freshTags(word: string, count: number, taken: readonly string[]): string[] {
  const keys = new Set(taken.map(tagKey));
  const made: string[] = [];
  for (let number = 1; made.length < count; number += 1) {
    const tag = `${word} ${String(number)}`;
    if (keys.has(tagKey(tag))) continue;
    keys.add(tagKey(tag));
    made.push(tag);
  }
  return made;
}

/** Positions by their areas, in the order in which an area is first named; those without one stand first. */
export function byArea<P extends Pick<Position, 'area'>>(
  positions: readonly P[],
): { area: string; positions: P[] }[] {
  const areas = new Map<string, { area: string; positions: P[] }>();
  for (const position of positions) {
    const key = tagKey(position.area);
    const found = areas.get(key) ?? { area: position.area.trim(), positions: [] };
    found.positions.push(position);
    areas.set(key, found);
  }
  const all = [...areas.values()];
  return [...all.filter(({ area }) => area === ''), ...all.filter(({ area }) => area !== '')];
}

/** A tag as the name of a file: what no system takes is left out; it never leads anywhere. */
export function fileTag(tag: string): string {
  const plain = tag
    .normalize('NFC')
    .replace(/[^\p{L}\p{N} ._-]/gu, '_')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '');
  return plain === '' ? '_' : plain.slice(0, 60);
}
