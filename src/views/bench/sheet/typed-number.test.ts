/** Numbers as somebody types them into a row, judged before they are decided. */
import { describe, expect, it } from 'vitest';
import type { NumberParameter } from '../../../core/model';
import { translator } from '../../../i18n';
import type { Words } from '../words';
import { TypedNumber } from './typed-number';

const parameter: NumberParameter = {
  id: 'cable',
  type: 'number',
  name: { en: 'Cable' },
  unit: 'm',
  least: '5',
  most: '100',
  step: '5',
  standard: { of: 'drum', values: { '50': 'short' } },
};
const words = (units: 'metric' | 'imperial') =>
  ({ units, row: (id: string) => `“${id}”` }) as unknown as Words;
const typed = (units: 'metric' | 'imperial' = 'metric', language = 'en') =>
  new TypedNumber(parameter, words(units), translator(language), language);
const all = [{ least: '5', most: '100' }];
const some = [
  { least: '5', most: '20' },
  { least: '80', most: '80' },
];

describe('a typed number', () => {
  it.each([
    ['', { is: 'empty' }],
    ['25', { is: 'number', value: '25', stepped: undefined }],
    ['2500 cm', { is: 'number', value: '25', stepped: undefined }],
    ['long', { is: 'wrong' }],
    ['25 kg', { is: 'wrong' }],
  ])('“%s” is read', (text, found) => {
    expect(typed().read(text)).toMatchObject(found);
  });

  it('near a step becomes it, and says so in the unit it is shown in', () => {
    const read = typed('imperial').read('82 ft');
    expect(read).toMatchObject({ is: 'number', value: '25' });
    expect(read.is === 'number' && read.stepped).toMatch(/82 ft.*82\.02/);
  });

  it.each([
    ['25', all, 'sound', []],
    ['120', all, 'wrong', ['100']],
    ['7', all, 'wrong', ['5', '10']],
    ['40', some, 'forbidden', ['20', '80']],
    ['80', some, 'sound', []],
    ['50', some, 'standard', []],
  ] as const)('%s is judged by what is allowed now', (plain, allowed, is, offers) => {
    const judged = typed().judge(plain, allowed);
    expect(judged.is).toBe(is);
    if (judged.is !== 'sound') {
      expect(judged.wrong.offers).toEqual(offers);
      // Whatever is offered can be had.
      for (const offer of judged.wrong.offers) expect(typed().judge(offer, allowed).is).toBe('sound');
      for (const offer of offers) expect(judged.wrong.sentence).toContain(`${offer} m`);
    }
  });

  it('that an option stands for is that option', () => {
    const judged = typed().judge('50', some);
    expect(judged).toMatchObject({ wrong: { standard: { on: 'drum', value: 'short' } } });
    // Where the number itself can be had, it is taken as it is.
    expect(typed().judge('50', all).is).toBe('sound');
  });
});
