/** What is typed of the best build, as the engine is asked for it. */
import { describe, expect, it } from 'vitest';
import { exact } from '../../../../core/exact';
import { translator } from '../../../../i18n';
import { plain, wishOf, wrongBound, type Measured } from './wish';

const measures: Measured[] = [
  { id: 'price', name: 'List', unit: 'EUR', decimals: 2, now: '25000' },
  { id: 'mass', name: 'Mass', unit: 'kg', decimals: 0, now: '-500' },
  { id: 'lead', name: 'Lead', unit: 'days', decimals: 0, now: undefined },
  { id: 'zero', name: 'Zero', unit: '', decimals: 0, now: '0' },
];

describe('a wish', () => {
  it('counts each measure by its share of what it is now', () => {
    const settings = Object.fromEntries(measures.map(({ id }) => [id, { ...plain, weight: 5 }]));
    const { weights } = wishOf(measures, settings, new Set(), 'en');
    const worth = new Map(weights.map(({ measure, weight }) => [measure, weight]));
    // One per cent more of either weighs the same.
    expect(
      exact(worth.get('price') ?? 0)
        .times(25_000)
        .toString(),
    ).toBe('5000');
    expect(
      exact(worth.get('mass') ?? 0)
        .times(500)
        .toString(),
    ).toBe('5000');
    // Of what is nothing or not known there is no share.
    expect([worth.get('lead'), worth.get('zero')]).toEqual(['5000', '5000']);
  });

  it('leaves out what counts nothing, and bounds what is typed, as people write numbers', () => {
    const settings = {
      price: { weight: 10, least: '', most: '24.500,50' },
      mass: { weight: 0, least: '1.200', most: '' },
      lead: { weight: 0, least: 'soon', most: '' },
    };
    expect(wishOf(measures, settings, new Set(['vehicle']), 'de')).toEqual({
      weights: [{ measure: 'price', weight: '0.4' }],
      bounds: [
        { measure: 'price', most: '24500.5' },
        { measure: 'mass', least: '1200' },
      ],
      free: ['vehicle'],
    });
  });

  it.each([
    ['', undefined],
    ['  ', undefined],
    ['12.5', undefined],
    ['soon', /soon/],
    ['1.200', undefined],
  ])('says of “%s” what is wrong', (text, sentence) => {
    const said = wrongBound(text, 'de', translator('de'));
    if (sentence === undefined) expect(said).toBeUndefined();
    else expect(said).toMatch(sentence);
  });
});
