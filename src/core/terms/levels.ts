/** Shares from quantities on, as one text: "4: 0.04; 12: 0.07". */
import { exact, readExact, type ExactText } from '../exact';

/** A share from a quantity on. */
export interface Level {
  from: ExactText;
  rate: ExactText;
}

/** Levels as one text. */
export const writeLevels = (levels: readonly Level[]): string =>
  levels.map(({ from, rate }) => `${exact(from).toString()}: ${exact(rate).toString()}`).join('; ');

/** Reads them; null where they cannot be read, do not rise in their quantities, or go beyond all. */
export function readLevels(text: string): Level[] | null {
  const levels: Level[] = [];
  for (const part of text.split(';')) {
    const [, from = '', rate = ''] = /^\s*(\S+)\s*:\s*(\S+)\s*$/.exec(part) ?? [];
    const [at, share] = [readExact(from), readExact(rate)];
    if (!at || !share || at.lt(0) || share.lt(0) || share.gt(1)) return null;
    const last = levels.at(-1);
    if (last && at.lte(last.from)) return null;
    levels.push({ from: at.toString(), rate: share.toString() });
  }
  return levels.length === 0 ? null : levels;
}
