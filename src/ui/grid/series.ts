/** How some cells go on. */
import { isWrong, type Cell } from './row';

/**
 * The cells behind some: decimals that rise or fall by the same go on so, counted exactly; all else is repeated
 * from the first on. `cells` has at least one.
 */
export function series(cells: readonly Cell[]): (nth: number) => Cell {
  const again = (nth: number): Cell => cells[nth % cells.length] ?? '';
  if (cells.length < 2) return again;
  const numbers = cells.map((cell) => (isWrong(cell) ? null : /^-?\d{1,15}(?:\.(\d{1,12}))?$/.exec(cell)));
  if (numbers.some((each) => each === null)) return again;
  const places = Math.max(...numbers.map((each) => each?.[1]?.length ?? 0));
  const values = cells.map((cell) => scaled(cell as string, places));
  const [first = 0n, second = 0n] = values;
  const by = second - first;
  if (by === 0n || values.some((value, at) => value !== first + by * BigInt(at))) return again;
  return (nth) => written(first + by * BigInt(cells.length + nth), places);
}

function scaled(text: string, places: number): bigint {
  const [whole = '', behind = ''] = text.split('.');
  return BigInt(whole + behind.padEnd(places, '0'));
}

function written(value: bigint, places: number): string {
  const digits = (value < 0n ? -value : value).toString().padStart(places + 1, '0');
  const behind = digits.slice(digits.length - places).replace(/0+$/, '');
  const whole = digits.slice(0, digits.length - places);
  return `${value < 0n ? '-' : ''}${whole}${places > 0 && behind !== '' ? `.${behind}` : ''}`;
}
