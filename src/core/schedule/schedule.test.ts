import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { byArea, fileTag, freshTags, positionProblems, tagKey, type Position } from '.';

const tag = fc.oneof(
  fc.constantFrom('Gate 1', 'gate  1', ' GATE 1 ', 'Lane 2', '', '../x', 'Größe 3', 'Ｇate 1'),
  fc.string({ maxLength: 50 }),
);
const position: fc.Arbitrary<Position> = fc.record({
  tag,
  area: fc.constantFrom('', 'North', 'north ', 'Quarry floor'),
  quantity: fc.constantFrom('0', '1', '2.5', '-1'),
  remark: fc.string({ maxLength: 30 }),
});

describe('positions', () => {
  it('are a schedule where no tag is empty or there twice, however it is written', () => {
    fc.assert(
      fc.property(fc.array(position, { maxLength: 12 }), (positions) => {
        const wrong = positionProblems(positions);
        const tags = positions.map((each) => tagKey(each.tag));
        const bad = wrong.filter(({ code }) => code === 'schedule.tagTwice' || code === 'schedule.noTag');
        expect(bad.map(({ at }) => at)).toEqual(
          tags.flatMap((key, at) => (key === '' || tags.indexOf(key) < at ? [at] : [])),
        );
        const none = wrong.filter(({ code }) => code === 'schedule.noQuantity');
        expect(none.map(({ at }) => at)).toEqual(
          positions.flatMap(({ quantity }, at) => (Number(quantity) > 0 ? [] : [at])),
        );
      }),
    );
  });

  it('of one place in two ways of writing it are one place', () => {
    expect(tagKey(' Gate  1')).toBe(tagKey('ＧATE 1'));
    expect(tagKey('Gate 1')).not.toBe(tagKey('Gate 11'));
  });

  it('get fresh tags that nobody has, as many as are wanted', () => {
    fc.assert(
      fc.property(fc.array(tag, { maxLength: 20 }), fc.nat({ max: 10 }), (taken, count) => {
        const made = freshTags('Gate', count, taken);
        const keys = made.map(tagKey);
        expect(new Set(keys).size).toBe(count);
        expect(keys.filter((key) => taken.map(tagKey).includes(key))).toEqual([]);
      }),
    );
    expect(freshTags('Gate', 2, ['gate 1', 'Gate 3'])).toEqual(['Gate 2', 'Gate 4']);
  });

  it('stand by areas, each once, none lost', () => {
    fc.assert(
      fc.property(fc.array(position, { maxLength: 12 }), (positions) => {
        const areas = byArea(positions);
        expect(areas.flatMap((each) => each.positions)).toHaveLength(positions.length);
        expect(new Set(areas.map(({ area }) => tagKey(area))).size).toBe(areas.length);
      }),
    );
  });

  it('have names of files that lead nowhere', () => {
    fc.assert(
      fc.property(tag, (text) => {
        const name = fileTag(text);
        expect(name).toMatch(/^[\p{L}\p{N} ._-]+$/u);
        expect(name).not.toMatch(/^\.|\.$|^ | $/);
      }),
    );
    expect(fileTag('../../etc/passwd')).toBe('_.._etc_passwd');
  });
});
