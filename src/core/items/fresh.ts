/** Items and families as they begin: sold, active, and nothing said of them yet. */
import type { Family, Item } from './types';

/** An item of which nothing is known but its number and family. */
export const freshItem = (sku: string, family: string): Item => ({
  sku,
  family,
  name: {},
  note: {},
  says: {},
  kind: 'part',
  unit: 'pc',
  cost: '0',
  leadDays: 0,
  mass: null,
  properties: {},
  active: true,
  sold: true,
  bars: [],
  discountable: true,
  taxClass: 'standard',
  usualQuantity: null,
  step: null,
  serials: false,
  coversMonths: null,
  replacedBy: null,
  goesWith: [],
  picture: null,
  dataSheet: null,
});

/** A family inside none, without properties. */
export const freshFamily = (code: string): Family => ({ code, name: {}, parent: null, properties: [] });
