import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answers, dueIn, requestState } from '.';

const stand = fc.record({
  madeBy: fc.constantFrom('mara', 'joss'),
  askedOf: fc.option(fc.constantFrom('mara', 'wen')),
  role: fc.constantFrom('modeller', 'manager'),
  answered: fc.boolean(),
  taken: fc.boolean(),
  closed: fc.boolean(),
});
const person = fc.record({
  id: fc.constantFrom('mara', 'joss', 'wen', 'tobias'),
  role: fc.constantFrom('engineer', 'modeller', 'manager'),
});

describe('what is asked of colleagues', () => {
  it('is answered by whoever is asked, and by nobody who asked it themselves', () => {
    fc.assert(
      fc.property(person, stand, (who, request) => {
        const asked = request.askedOf === null ? who.role === request.role : who.id === request.askedOf;
        const open = !request.answered && !request.taken && !request.closed;
        expect(answers(who, request)).toBe(asked && open && who.id !== request.madeBy);
      }),
    );
  });

  it('stands as answered until whoever asked took it or put it aside', () => {
    const open = {
      madeBy: 'mara',
      askedOf: null,
      role: 'modeller',
      answered: false,
      taken: false,
      closed: false,
    };
    expect(requestState(open)).toBe('open');
    expect(requestState({ ...open, answered: true })).toBe('answered');
    expect(requestState({ ...open, answered: true, closed: true })).toBe('closed');
    expect(requestState({ ...open, answered: true, taken: true, closed: true })).toBe('taken');
    expect(requestState({ ...open, closed: true })).toBe('withdrawn');
  });
});

describe('days to come', () => {
  it('are near by whole days, over the end of a year and of a month', () => {
    expect(dueIn('2026-12-31', '2027-01-01')).toBe('overdue');
    expect(dueIn('2027-01-01', '2027-01-01')).toBe('today');
    expect(dueIn('2027-01-08', '2027-01-01')).toBe('soon');
    expect(dueIn('2027-01-09', '2027-01-01')).toBe('later');
    expect(dueIn('2028-03-01', '2028-02-28')).toBe('soon');
  });
});
