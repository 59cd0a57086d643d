import { describe, expect, it } from 'vitest';
import { mentionsIn, mentionsInCell, type Mention } from './mentions';

/** What is mentioned, as a line a piece; the text at its place is what it says. */
const heard = (source: string, mentions: readonly Mention[] | null): string[] | null =>
  mentions &&
  mentions.map((each) => {
    const at = source.slice(each.from, each.to);
    return each.is === 'name'
      ? `${at}${each.within.length > 0 ? ` in ${each.within.join()}` : ''}`
      : each.is === 'field'
        ? `${each.of} . ${at}`
        : `${each.of.join()} = ${at}`;
  });
const formula = (source: string, gives?: string) => heard(source, mentionsIn(source, gives));
const cell = (name: string, source: string) => heard(source, mentionsInCell(name, source));

describe('a formula mentions', () => {
  it('names, and texts that stand for an option', () => {
    expect(formula('surface = "steel" and  length >= 12')).toEqual([
      'surface',
      'surface = "steel"',
      'length',
    ]);
    expect(formula('surface in ["steel", "grid"]')).toEqual([
      'surface',
      'surface = "steel"',
      'surface = "grid"',
    ]);
    expect(formula('list contains(extras, "loop") or "pit" != mounting')).toEqual([
      'extras',
      'extras = "loop"',
      'mounting = "pit"',
      'mounting',
    ]);
    expect(formula('(if wet then upper else lower) = "steel"')).toEqual([
      'wet',
      'upper',
      'lower',
      'upper,lower = "steel"',
    ]);
  });

  it('fields, by what stands before them', () => {
    expect(formula('terminals.beacon.housing = "desk"')).toEqual([
      'terminals',
      'terminals . beacon',
      'terminals.beacon . housing',
      'terminals.beacon.housing = "desk"',
    ]);
    expect(formula('more.lamp.quantity * 2')).toEqual(['more', 'more . lamp', 'more.lamp . quantity']);
  });

  it('no names of its own, and tells which may be of the items of a list', () => {
    expect(formula('for i in 1..count return i * width')).toEqual(['count', 'width']);
    expect(formula('count(terminals.beacon[housing = "desk"]) > slots')).toEqual([
      'terminals',
      'terminals . beacon',
      'housing in terminals.beacon',
      'housing = "desk"',
      'slots',
    ]);
    expect(formula('some x in sizes satisfies x > least')).toEqual(['sizes', 'least']);
    expect(formula('sizes[item > 3]')).toEqual(['sizes']);
  });

  it('the options that it gives', () => {
    expect(formula('if wet then "grid" else "steel"', 'surface')).toEqual([
      'wet',
      'surface = "grid"',
      'surface = "steel"',
    ]);
    expect(formula('"a" + "b"', 'surface')).toEqual([]);
  });

  it('nothing in what is text alone, and cannot be told where it cannot be read', () => {
    expect(formula('title = "a \\"surface\\" b"')).toEqual(['title', 'title = "a \\"surface\\" b"']);
    expect(formula('surface =')).toBeNull();
  });
});

describe('a cell mentions', () => {
  it('the options of its column, and what it reads beside', () => {
    expect(cell('surface', '"steel", "grid"')).toEqual(['surface = "steel"', 'surface = "grid"']);
    expect(cell('surface', 'not("steel")')).toEqual(['surface = "steel"']);
    expect(cell('length', '[6..deckLength]')).toEqual(['deckLength']);
    expect(cell('length', '> surface')).toEqual(['surface']);
    expect(cell('length', '-')).toEqual([]);
  });
});
