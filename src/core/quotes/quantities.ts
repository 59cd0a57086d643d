/** How much of an item is sold: by the piece, or as it is measured. */

/** Units that are measured, so that a quantity may have decimals. */
const measured: ReadonlySet<string> = new Set(['m', 'm2', 'kg', 'l', 'h', 't']);

/** Whether only whole numbers of it are sold. */
export const isWhole = (unit: string): boolean => !measured.has(unit);

/** Decimals of a quantity that is measured, at most. */
export const quantityDecimals = 3;

const words: Readonly<Record<string, string>> = {
  x: 'pc',
  '×': 'pc',
  '*': 'pc',
  pc: 'pc',
  pcs: 'pc',
  piece: 'pc',
  pieces: 'pc',
  off: 'pc',
  ea: 'pc',
  each: 'pc',
  st: 'pc',
  stk: 'pc',
  stck: 'pc',
  stück: 'pc',
  m: 'm',
  metre: 'm',
  metres: 'm',
  meter: 'm',
  mtr: 'm',
  lfm: 'm',
  m2: 'm2',
  'm²': 'm2',
  qm: 'm2',
  sqm: 'm2',
  kg: 'kg',
  l: 'l',
  litre: 'l',
  litres: 'l',
  liter: 'l',
  h: 'h',
  hr: 'h',
  hrs: 'h',
  hour: 'h',
  hours: 'h',
  std: 'h',
  stunden: 'h',
  t: 't',
  set: 'set',
  sets: 'set',
  satz: 'set',
  pair: 'pair',
  pairs: 'pair',
  paar: 'pair',
};

/** The unit that a written word stands for, if any: "pcs", "Stk.", "m". */
export const unitOf = (word: string): string | undefined => {
  const plain = word.toLowerCase().replace(/\.$/, '');
  return Object.hasOwn(words, plain) ? words[plain] : undefined;
};
