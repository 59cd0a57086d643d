import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foundBy, similarity, wordsOf } from '.';

const things = [
  'Beacon terminal, desk',
  'Remote display',
  'Junction box RB-JBOX-8',
  'Norrvik Skog AB',
  'Concrete ramp kit',
];
const found = (typed: string) => foundBy(things, typed, (thing) => [thing]);

describe('finding by words', () => {
  it('takes parts of words, in any order, whatever the case', () => {
    expect(found('DESK beac')).toEqual(['Beacon terminal, desk']);
    expect(found('kit')).toEqual(['Concrete ramp kit']);
    expect(found('  ')).toEqual(things);
  });

  it.each([
    ['termnal', 0],
    ['beacn', 0],
    ['dispaly', 1],
    ['RB-JBOX8', 2],
    ['norvik', 3],
    ['concrte ramp', 4],
  ])('forgives "%s"', (typed, index) => {
    expect(found(typed)[0]).toBe(things[index]);
  });

  it.each(['zebra', 'xy', 'lamp'])('finds nothing for "%s"', (typed) => {
    expect(found(typed)).toEqual([]);
  });

  it('never lets what is only alike stand beside what has the word', () => {
    expect(found('ramp')).toEqual(['Concrete ramp kit']);
  });

  it('finds every text by each of its own words', () => {
    fc.assert(
      fc.property(fc.constantFrom(...things), (thing) =>
        wordsOf(thing).every((word) => found(word).includes(thing)),
      ),
    );
  });

  it('says how alike words are from 0 to 1, and 1 of the same', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (a, b) => similarity(a, b) >= 0 && similarity(a, b) <= 1),
    );
    expect(similarity('beacon', 'Beacon')).toBe(1);
    expect(similarity('', 'Beacon')).toBe(0);
  });
});
