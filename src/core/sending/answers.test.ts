import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mayAnswer, shareState, waitsFor, type Standing } from '.';

const standing = fc.record<Standing>({
  state: fc.constantFrom('draft', 'sent', 'lost', 'accepted'),
  newest: fc.boolean(),
  expired: fc.boolean(),
  mayOrder: fc.boolean(),
  obstacles: fc.subarray(['quote.unsigned', 'line.todo', 'price.missing']),
});

describe('a yes', () => {
  it('is an order at once just where the engineer could make one of it', () => {
    fc.assert(
      fc.property(standing, (of) => {
        const free =
          of.newest && of.state === 'sent' && !of.expired && of.mayOrder && of.obstacles.length === 0;
        expect(waitsFor(of).length === 0).toBe(free);
      }),
    );
  });

  it('is offered only where something can come of it', () => {
    fc.assert(
      fc.property(standing, fc.boolean(), (of, accepted) => {
        const may = mayAnswer({ quote: true, accepted, ...of });
        expect(may).toContain('question');
        if (may.includes('accepted')) {
          expect(of).toMatchObject({ newest: true, state: 'sent', expired: false });
          expect(accepted).toBe(false);
        }
      }),
    );
    expect(mayAnswer({ quote: false, newest: true, state: 'sent', expired: false, accepted: false })).toEqual(
      ['question'],
    );
  });
});

describe('a share', () => {
  it('opens up to its last day, unless it was revoked', () => {
    const on = (until: string, revoked = false) => shareState({ until, revoked }, '2026-11-30');
    expect([on('2026-11-30'), on('2026-11-29'), on('2027-01-01', true)]).toEqual([
      'open',
      'ended',
      'revoked',
    ]);
  });
});
