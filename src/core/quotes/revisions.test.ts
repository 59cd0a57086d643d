import { describe, expect, it } from 'vitest';
import { compareRevisions, shownState, type Side, type SideLine } from './revisions';

const line = (origin: string, position: number, more: Partial<SideLine> = {}): SideLine => ({
  origin,
  position,
  name: { en: origin },
  partNumber: origin.toUpperCase(),
  quantity: 1,
  counts: true,
  unitNet: '10.00',
  net: '10.00',
  choices: [],
  ...more,
});
const side = (number: number, lines: SideLine[]): Side => ({
  number,
  currency: 'EUR',
  decimals: 2,
  validUntil: '2026-12-31',
  customer: 'North Face',
  totals: { list: '0', net: '0', oneTime: '0', recurring: '0', firstYear: '0' },
  lines,
});
const choice = (row: string, value: string) => ({ row, name: { en: row }, value: { en: value } });

describe('what differs between two revisions', () => {
  it('pairs lines by where they come from, whatever place they have now', () => {
    const { lines } = compareRevisions(
      side(1, [line('a', 1), line('b', 2)]),
      side(2, [line('b', 1), line('a', 2)]),
    );
    expect(lines.map((each) => each.is)).toEqual(['same', 'same']);
  });
  it('tells what was added, and what was removed where it stood', () => {
    const { lines } = compareRevisions(
      side(1, [line('a', 1), line('b', 2), line('c', 3)]),
      side(2, [line('a', 1), line('c', 2), line('d', 3)]),
    );
    expect(
      lines.map((each) => [each.is, each.is === 'removed' ? each.before.origin : each.after.origin]),
    ).toEqual([
      ['same', 'a'],
      ['removed', 'b'],
      ['same', 'c'],
      ['added', 'd'],
    ]);
  });
  it('puts what was removed first where nothing before it is left', () => {
    const { lines } = compareRevisions(
      side(1, [line('a', 1), line('b', 2), line('c', 3)]),
      side(2, [line('c', 1)]),
    );
    expect(lines.map((each) => (each.is === 'removed' ? each.before.origin : each.after.origin))).toEqual([
      'a',
      'b',
      'c',
    ]);
  });
  it.each([
    ['quantity', { quantity: 2, net: '20.00' }],
    ['price', { unitNet: '9.50', net: '9.50' }],
    ['place in the totals', { counts: false }],
  ])('sees another %s', (_what, more) => {
    expect(compareRevisions(side(1, [line('a', 1)]), side(2, [line('a', 1, more)])).lines[0]?.is).toBe(
      'changed',
    );
  });
  it('names the choices of a build that differ, gone and new ones among them', () => {
    const before = line('a', 1, {
      choices: [choice('length', '18 m'), choice('ramps', 'steel'), choice('width', '3.2 m')],
    });
    const after = line('a', 1, {
      choices: [choice('length', '24 m'), choice('width', '3.2 m'), choice('pit', 'drain')],
    });
    const [only] = compareRevisions(side(1, [before]), side(2, [after])).lines;
    expect(only?.is === 'changed' && only.choices).toEqual([
      { row: 'length', name: { en: 'length' }, before: { en: '18 m' }, after: { en: '24 m' } },
      { row: 'pit', name: { en: 'pit' }, after: { en: 'drain' } },
      { row: 'ramps', name: { en: 'ramps' }, before: { en: 'steel' } },
    ]);
  });
});

describe('how a revision stands', () => {
  const of = (more: Partial<Parameters<typeof shownState>[0]>) =>
    shownState(
      { state: 'draft', validUntil: '2026-12-31', asked: false, sendable: false, ...more },
      '2026-11-26',
    );
  it('is a draft, in sign-off, or ready', () => {
    expect(of({})).toBe('draft');
    expect(of({ asked: true, sendable: false })).toBe('signOff');
    expect(of({ sendable: true })).toBe('ready');
  });
  it('runs out on the day after its last', () => {
    expect(of({ state: 'sent', validUntil: '2026-11-26' })).toBe('sent');
    expect(of({ state: 'sent', validUntil: '2026-11-25' })).toBe('expired');
    expect(of({ state: 'accepted', validUntil: '2026-11-25' })).toBe('accepted');
  });
});
