import { describe, expect, it } from 'vitest';
import { matcher } from './match';

const find = matcher([
  'GET /quotes/{id}',
  'PATCH /quotes/{id}/lines/{line}',
  'PATCH /quotes/{id}/lines/several',
  'GET /quotes/{id}/lines.{format}',
  'GET /quotes',
]);

describe('an address', () => {
  it('means what is named outright before what a name stands for', () => {
    expect(find('PATCH', '/quotes/1/lines/several')).toEqual({
      path: 'PATCH /quotes/{id}/lines/several',
      at: { id: '1' },
    });
    expect(find('PATCH', '/quotes/1/lines/2')?.at).toEqual({ id: '1', line: '2' });
  });

  it('gives the values of its names as they were meant', () => {
    expect(find('GET', '/quotes/a%2Fb%20c')?.at).toEqual({ id: 'a/b c' });
    expect(find('GET', '/quotes/1/lines.csv')?.at).toEqual({ id: '1', format: 'csv' });
    expect(find('GET', '/quotes/')?.path).toBe('GET /quotes');
  });

  it('means nothing where method or path is another', () => {
    expect([
      find('POST', '/quotes'),
      find('GET', '/quotes/1/lines'),
      find('GET', '/quotesX'),
      find('GET', '/quotes/1/linesXcsv'),
      find('GET', ''),
    ]).toEqual([null, null, null, null, null]);
  });
});
