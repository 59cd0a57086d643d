/**
 * Units as products of named symbols: "m", "m2", "kg/m2". A unit unknown to the formula (a bare number) fits
 * any.
 */
export type Unit = ReadonlyMap<string, number> | 'any';

/** A number without a unit. */
export const noUnit: Unit = new Map();

/** Reads "kg/m2" or "m*t"; an empty text is a pure number. */
export function readUnit(text: string): Unit {
  const powers = new Map<string, number>();
  text.split('/').forEach((part, index) => {
    for (const factor of part.split('*').filter(Boolean)) {
      const [, symbol = factor, power = '1'] = /^(.*?)(\d*)$/.exec(factor) ?? [];
      const sign = index === 0 ? 1 : -1;
      powers.set(symbol, (powers.get(symbol) ?? 0) + sign * Number(power || '1'));
    }
  });
  return trimmed(powers);
}

/** Whether two units measure the same in the same steps. */
export function sameUnit(a: Unit, b: Unit): boolean {
  if (a === 'any' || b === 'any') return true;
  return a.size === b.size && [...a].every(([symbol, power]) => b.get(symbol) === power);
}

/** The unit of a sum or of either branch: the one that is known. */
export const known = (a: Unit, b: Unit): Unit => (a === 'any' ? b : a);

/** The unit of a product, or with -1 of a quotient. */
export function product(a: Unit, b: Unit, sign: 1 | -1): Unit {
  if (a === 'any' || b === 'any') return 'any';
  const powers = new Map(a);
  for (const [symbol, power] of b) powers.set(symbol, (powers.get(symbol) ?? 0) + sign * power);
  return trimmed(powers);
}

/** A unit as it is written. */
export function writeUnit(unit: Unit): string {
  if (unit === 'any') return '?';
  const write = ([symbol, power]: [string, number]) =>
    symbol + (Math.abs(power) === 1 ? '' : String(Math.abs(power)));
  const above = [...unit].filter(([, power]) => power > 0).map(write);
  const below = [...unit].filter(([, power]) => power < 0).map(write);
  return above.join('*') + below.map((part) => `/${part}`).join('') || '1';
}

function trimmed(powers: Map<string, number>): Unit {
  for (const [symbol, power] of powers) if (power === 0) powers.delete(symbol);
  return powers;
}
