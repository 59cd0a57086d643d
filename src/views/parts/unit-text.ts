import type { TextKey } from '../../i18n';

/** A unit of an item in words. */
export const unitText = (unit: string, t: (key: TextKey) => string): string =>
  ['pc', 'm', 'm2', 'kg', 'l', 'h', 't', 'pair', 'set'].includes(unit) ? t(`unit.${unit}` as TextKey) : unit;
