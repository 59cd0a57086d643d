import { describe, expect, it } from 'vitest';
import { byMarket, elsewhere, languageIn, marketOf, numberBy, rangeProblem, writingIn, type Market } from '.';

const market = (code: string, more: Partial<Market>): Market => ({ ...elsewhere, code, ...more });
const markets = [
  market('UK', { countries: ['GB', 'IE'] }),
  market('US', { countries: ['US'], language: 'en-US', units: 'imperial', paper: 'letter' }),
  market('DE', { countries: ['DE', 'AT'], language: 'de' }),
];

describe('a market', () => {
  it('is that of a country; what no market has is elsewhere', () => {
    expect(['IE', 'US', 'AT', 'FR', ''].map((country) => marketOf(markets, country).code)).toEqual([
      'UK',
      'US',
      'DE',
      'XX',
      'XX',
    ]);
  });

  it('gives English the forms that are usual in it, and German its own', () => {
    const written = (language: string) => markets.map((each) => writingIn(language, each));
    expect(written('en')).toEqual(['en', 'en-US', 'en']);
    expect(written('de')).toEqual(['de', 'de', 'de']);
    expect(['en', 'en-US', 'de'].map((each) => languageIn(each as 'en'))).toEqual(['en', 'en', 'de']);
  });
});

describe('numbers by market', () => {
  it('name it, and count for each', () => {
    const range = { pattern: 'Q-{market}-{yy}-{000}', yearly: true };
    expect([rangeProblem(range), byMarket(range)]).toEqual([null, true]);
    expect(numberBy(range.pattern, { year: 2026, count: 7, market: 'US' })).toBe('Q-US-26-007');
    expect(byMarket({ pattern: 'Q-{000}', yearly: false })).toBe(false);
  });

  it('have it apart from the count, and not in work orders, whose order names it', () => {
    expect(rangeProblem({ pattern: 'Q{market}{000}', yearly: false })).toBe('house.pattern.sign');
    expect(rangeProblem({ pattern: 'W-{market}-{order}-{0}', yearly: false }, 'order')).toBe(
      'house.pattern.sign',
    );
  });
});
