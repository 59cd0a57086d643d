import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { CustomerFile } from './demo-files';
import { before, historyOf, lots, type HistoryFile } from './demo-history';

const read = <T>(name: string): T => JSON.parse(readFileSync(`demo/${name}`, 'utf8')) as T;
const [file, customers] = [read<HistoryFile>('history.json'), read<CustomerFile[]>('customers.json')];

describe('the history of the demo', () => {
  const quotes = historyOf(file, customers);

  it('is the same each time, of three years, the oldest first', () => {
    expect(historyOf(file, customers)).toEqual(quotes);
    const days = quotes.map(({ daysAgo }) => daysAgo ?? 0);
    expect(days).toEqual([...days].sort((one, other) => other - one));
    expect(Math.max(...days)).toBeGreaterThan(3 * 365);
    expect(quotes.length).toBeGreaterThan(36 * file.month.least);
  });

  it('tells of each quote in the order of its days, and of each customer in their language', () => {
    const language = new Map(customers.map((customer) => [customer.number, customer.language]));
    for (const { daysAgo = 0, sentDaysAgo = 0, settledDaysAgo = 0, customer, title, accept, lost } of quotes) {
      expect(daysAgo > sentDaysAgo && sentDaysAgo > settledDaysAgo).toBe(true);
      expect(accept && lost).toBeFalsy();
      const [place] = title.split(',');
      expect(file.places[language.get(customer) ?? '']).toContain(place);
    }
    expect(new Set(quotes.map(({ customer }) => customer)).size).toBe(customers.length);
  });

  it('lets a dealer offer what a dealer may', () => {
    const own = new Set(customers.flatMap(({ number, dealer }) => (dealer === null ? [] : [number])));
    const offered = quotes.filter(({ customer }) => own.has(customer));
    expect(offered.length).toBeGreaterThan(0);
    expect(offered.some(({ accept }) => accept)).toBe(false);
    expect(offered.flatMap(({ lines }) => lines).some(({ hand }) => hand !== undefined)).toBe(false);
  });

  it('is won about half the time', () => {
    const share = quotes.filter(({ accept }) => accept).length / quotes.length;
    expect(share).toBeGreaterThan(0.35);
    expect(share).toBeLessThan(0.65);
  });

  it('goes by lots that are spread evenly', () => {
    const lot = lots(1);
    const drawn = Array.from({ length: 10_000 }, lot);
    expect(Math.min(...drawn) >= 0 && Math.max(...drawn) < 1).toBe(true);
    for (let tenth = 0; tenth < 10; tenth += 1)
      expect(drawn.filter((one) => Math.floor(one * 10) === tenth).length).toBeGreaterThan(900);
  });

  it('has prices that were lower before each rise', () => {
    expect(before('310.00', '0.035')).toBe('299.50');
    expect(before('5.80', '0.04')).toBe('5.58');
    expect(before('10.00', '0')).toBe('10.00');
  });
});
