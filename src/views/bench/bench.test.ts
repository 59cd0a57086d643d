/** Typed numbers in the units people say, and the words of a model. */
import { describe, expect, it } from 'vitest';
import { demoModel } from '../../../scripts/demo-documents';
import { outlineOf } from '../../core/model';
import { translator } from '../../i18n';
import { readTyped } from './typed';
import { Words } from './words';

describe('typed numbers', () => {
  it.each([
    ['18', 'm', '18'], ['18 m', 'm', '18'], ['12,5', 'm', '12.5'], ['1800cm', 'm', '18'], ['13500 mm', 'm', '13.5'], ['59.0551181102 ft', 'm', '17.99999999998896'], ['10 FT', 'm', '3.048'], ['12 in', 'mm', '304.8'], [' -3 ', 'm', '-3'], ['44', 't', '44'], ['44 t', 't', '44'],
  ])('"%s" in %s is %s', (typed, unit, expected) => {
    expect(readTyped(typed, unit)).toBe(expected);
  });
  it.each([['', 'm'], ['long', 'm'], ['18 kg', 'm'], ['18 m', 't'], ['1.2.3', 'm'], ['1e3', 'm'], ['18 m 20', 'm'], ['--4', 'm'], ['½', 'm']])('"%s" in %s is none', (typed, unit) => {
    expect(readTyped(typed, unit)).toBeNull();
  });
});

describe('words', () => {
  const document = outlineOf(demoModel('ridgeback'));
  const [english, german] = [new Words(document, translator('en'), 'en'), new Words(document, translator('de'), 'de')];

  it('name rows, options and what a decision is about', () => {
    expect([english.row('mounting'), german.row('mounting'), english.option('mounting', 'pit'), german.option('mounting', 'pit')]).toEqual(['Mounting', 'Einbau', 'Pit', 'Grube']);
    expect([english.subject('mounting'), english.subject('approachParts.steelRamps'), english.row('deckMass')]).toEqual(['Mounting', 'Steel ramps (pair)', 'Deck mass']);
    expect([english.row('colour'), english.option('mounting', 'roof')]).toEqual(['colour', 'roof']);
  });

  it('write values of every kind', () => {
    expect([english.value('mounting', 'pit'), english.value('customLength', '13.5'), german.value('customLength', '13.5'), english.value('calibrations', '2')]).toEqual(['Pit', '13.5 m', '13,5 m', '2']);
    expect(english.value('approachParts', ['steelRamps', 'barrier'])).toBe('Steel ramps (pair), Barrier');
    const t = translator('en');
    expect([english.value('guards', true), english.value('guards', false), english.value('mounting', undefined), english.value('approachParts', [])]).toEqual([t('bench.yes'), t('bench.no'), t('bench.open'), t('bench.nothing')]);
  });

  it('tell causes as sentences', () => {
    expect(english.cause({ kind: 'rule', rule: 'pitRamps', reason: { en: 'A pit sits level.', de: 'Eine Grube ist eben.' } })).toBe('A pit sits level.');
    expect(german.cause({ kind: 'rule', rule: 'pitRamps', reason: { en: 'A pit sits level.', de: 'Eine Grube ist eben.' } })).toBe('Eine Grube ist eben.');
    expect(english.cause({ kind: 'decision', decision: { on: 'mounting', value: 'pit' } })).toBe('You chose Mounting: Pit.');
    expect(english.cause({ kind: 'shape', row: 'approachParts' })).toContain('Approach parts');
  });
});
