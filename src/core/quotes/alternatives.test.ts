import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { against, apart, countsFor, instead, settledAlternatives, type Alternative } from './alternatives';

const alone = (...ids: string[]): Alternative[] =>
  ids.map((id) => ({ id, alternativeSet: null, alternative: false, optional: false }));
const counting = (lines: readonly Alternative[]): string =>
  lines.flatMap((line) => (line.alternative ? [] : [line.id])).join('');

describe('lines that are alternatives of one another', () => {
  it('have one that counts, the first', () => {
    const lines = against(alone('a', 'b', 'c'), ['c', 'b'], 's');
    expect(counting(lines)).toBe('ab');
    expect(lines.map((line) => line.alternativeSet)).toEqual([null, 's', 's']);
    expect(countsFor(lines, lines[2] as Alternative)?.id).toBe('b');
    expect(countsFor(lines, lines[1] as Alternative)).toBeUndefined();
  });
  it('change places', () => {
    const lines = against(alone('a', 'b', 'c'), ['a', 'b', 'c'], 's');
    expect(counting(instead(lines, 'c'))).toBe('c');
    expect(counting(instead(instead(lines, 'c'), 'a'))).toBe('a');
    expect(instead(alone('a'), 'a')).toEqual(alone('a'));
  });
  it('are offered beside the others only as the one that counts is', () => {
    const aside = (lines: readonly Alternative[]) =>
      lines.flatMap(({ id, optional }) => (optional ? [id] : [])).join('');
    const all = alone('a', 'b', 'c').map((line) => ({ ...line, optional: line.id !== 'c' }));
    const lines = against(all, ['a', 'b'], 's');
    expect(aside(lines)).toBe('a');
    expect(aside(instead(lines, 'b'))).toBe('b');
    expect(aside(instead(against(all, ['c', 'a'], 's'), 'c'))).toBe('bc');
    expect(
      aside(
        against(
          all.map((line) => ({ ...line, optional: line.id === 'b' })),
          ['a', 'b'],
          's',
        ),
      ),
    ).toBe('');
  });
  it('come together with the other lines of their sets', () => {
    const pairs = against(against(alone('a', 'b', 'c', 'd'), ['a', 'b'], 's'), ['c', 'd'], 't');
    const all = against(pairs, ['b', 'd'], 'u');
    expect(all.map((line) => line.alternativeSet)).toEqual(['u', 'u', 'u', 'u']);
    expect(counting(all)).toBe('a');
  });
  it('part, and the last of a set stands by itself', () => {
    const lines = against(alone('a', 'b', 'c'), ['a', 'b', 'c'], 's');
    expect(counting(apart(lines, ['a']))).toBe('ab');
    expect(apart(lines, ['a', 'b'])).toEqual(alone('a', 'b', 'c'));
  });
  it('always have exactly one that counts, whatever is done to them', () => {
    const act = fc.tuple(
      fc.constantFrom('against', 'apart', 'instead', 'gone'),
      fc.subarray(['a', 'b', 'c', 'd', 'e'], { minLength: 1 }),
    );
    fc.assert(
      fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
        let lines = alone('a', 'b', 'c', 'd', 'e');
        for (const [index, [what, ids]] of acts.entries()) {
          if (what === 'against') lines = against(lines, ids, `set ${String(index)}`);
          else if (what === 'apart') lines = apart(lines, ids);
          else if (what === 'instead') lines = instead(lines, ids[0] as string);
          else lines = settledAlternatives(lines.filter((line) => !ids.includes(line.id)));
          for (const { alternativeSet } of lines)
            if (alternativeSet !== null)
              expect(
                lines.filter((each) => each.alternativeSet === alternativeSet && !each.alternative),
              ).toHaveLength(1);
          for (const line of lines) if (line.alternativeSet === null) expect(line.alternative).toBe(false);
          for (const { alternativeSet } of lines)
            if (alternativeSet !== null)
              expect(lines.filter((each) => each.alternativeSet === alternativeSet).length).toBeGreaterThan(
                1,
              );
        }
      }),
    );
  });
});
