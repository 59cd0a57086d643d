import { describe, expect, it } from 'vitest';
import { commandsFor, type Command } from './commands';

const act = () => undefined;
const all: Command[] = [
  { id: 'new', text: 'New quote', act },
  { id: 'dark', text: 'Dark theme', act },
  { id: 'de', text: 'Deutsch', also: 'German language', act },
  { id: 'configure', text: 'Configure', act },
  { id: 'quotes', text: 'Go to Quotes', act },
  { id: 'sign', text: 'Ask for sign-off', act },
];
const ids = (typed: string, meant = false) => commandsFor(typed, meant, all).map(({ id }) => id);

describe('commands by typing', () => {
  it.each([
    ['new', ['new']],
    ['conf', ['configure']],
    ['dark', ['dark']],
    ['German', ['de']],
    ['quot', ['new', 'quotes']],
    ['quote n', ['new']],
    ['sign-off', ['sign']],
    ['sign o', ['sign']],
    ['', []],
    ['-', []],
    ['ark', []],
  ])('"%s"', (typed, found) => {
    expect(ids(typed)).toEqual(found);
  });

  it('gives what was probably meant only when asked to', () => {
    expect(ids('confgure')).toEqual([]);
    expect(ids('confgure', true)).toEqual(['configure']);
  });
});
