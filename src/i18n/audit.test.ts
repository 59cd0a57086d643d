import { expect, it } from 'vitest';
import { detailsText } from './audit';

it('tells what changed, from what to what, and all else by its name', () => {
  expect(
    detailsText({ line: 2, from: { quantity: 1, group: null }, to: { quantity: 3, group: 'Gate' } }),
  ).toBe('line: 2, quantity: 1 → 3, group: – → Gate');
  expect(detailsText({ from: 'Gate', to: 'North gate' })).toBe('from: Gate, to: North gate');
  expect(detailsText({ lines: [{ sku: 'YE-KIOSK', quantity: 2 }] })).toBe(
    'lines: (sku YE-KIOSK, quantity 2)',
  );
  expect(detailsText({ lines: [4, 5], whole: true })).toBe('lines: 4, 5, whole: true');
  expect(detailsText({})).toBe('');
});
