import { describe, expect, it } from 'vitest';
import { translator } from '../../../i18n';
import { isFirmTab, isFirmValue, sourceText } from './source';
import type { TabInfo } from './tab-info';

const t = translator('en');
const tab = (given: Partial<TabInfo>): TabInfo => ({
  key: 'x.y',
  name: 'Y',
  standing: 'free',
  taken: false,
  source: 'open',
  target: { on: 'x', value: 'y' },
  decision: { on: 'x', value: 'y' },
  changeable: true,
  unproven: false,
  ...given,
});

describe('the word at the joint', () => {
  it('says of what follows and of what is advised whether it may be changed, and only of those', () => {
    expect((['yours', 'asked', 'usual'] as const).map((source) => sourceText(source, false, t))).toEqual([
      'yours',
      'asked',
      'usual',
    ]);
    expect([
      sourceText('follows', true, t),
      sourceText('follows', false, t),
      sourceText('advised', false, t),
    ]).toEqual(['follows · firm', 'follows · may be changed', 'advised · may be changed']);
  });

  it('is firm for one choice where nothing else is free, for several where it cannot be left', () => {
    const taken = tab({ taken: true, source: 'follows', changeable: false });
    expect(isFirmTab(taken, [taken, tab({ standing: 'swap' }), tab({ standing: 'barred' })], false)).toBe(
      true,
    );
    expect(isFirmTab(taken, [taken, tab({})], false)).toBe(false);
    expect(isFirmTab(taken, [taken, tab({})], true)).toBe(true);
    expect(isFirmTab({ ...taken, changeable: true }, [taken], true)).toBe(false);
    expect(isFirmTab({ ...taken, source: 'usual' }, [taken], false)).toBe(false);
  });

  it('is firm for a number where exactly one can be had', () => {
    const one = [{ least: '4', most: '4' }];
    expect(isFirmValue({ source: 'follows', allowed: one })).toBe(true);
    expect(isFirmValue({ source: 'follows', allowed: one, mayBeEmpty: true })).toBe(false);
    expect(isFirmValue({ source: 'follows', allowed: [{ least: '4', most: '5' }] })).toBe(false);
    expect(isFirmValue({ source: 'follows', allowed: [...one, { least: '6', most: '6' }] })).toBe(false);
    expect(isFirmValue({ source: 'usual', allowed: one })).toBe(false);
  });
});
