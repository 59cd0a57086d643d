/** What somebody wants of the best build, as it is typed, and as it is asked of the engine. */
import { exact, readWritten } from '../../../../core/exact';
import type { BestWish } from '../../../../core/builds';
import { number, type Translate } from '../../../../i18n';

/** What a build is judged by: its price, its lead time, or a calculation. */
export interface Measured {
  id: string;
  name: string;
  unit: string;
  decimals: number;
  /** What it is now; absent while open. */
  now: string | undefined;
}

/** How much a measure counts, and between which bounds it must be, as typed. */
export interface Setting {
  weight: number;
  least: string;
  most: string;
}

/** By measure; what is not said counts nothing. */
export type Settings = Readonly<Record<string, Setting>>;

/** Nothing is wanted of a measure. */
export const plain: Setting = { weight: 0, least: '', most: '' };

/** The setting of a measure. */
export const settingOf = (settings: Settings, id: string): Setting => settings[id] ?? plain;

/** A bound as the engine takes it; undefined where nothing is typed that can be read. */
export function boundIn(text: string, language: string): string | undefined {
  const read = readWritten(text, language);
  return read.is === 'number' ? read.value : undefined;
}

/** What is wrong with a bound as it is typed. */
export function wrongBound(text: string, language: string, t: Translate): string | undefined {
  if (text.trim() === '') return undefined;
  const read = readWritten(text, language);
  if (read.is === 'twoWays')
    return t('decision.twoWays', {
      typed: text.trim(),
      one: number(read.values[1], language),
      other: number(read.values[0], language),
    });
  return read.is === 'none' ? t('decision.notANumber', { value: text.trim() }) : undefined;
}

/**
 * The wish as the engine is asked. Each measure counts by its share of what it is now, so that tonnes and money
 * can stand on one scale.
 */
export function wishOf(
  measures: readonly Measured[],
  settings: Settings,
  free: ReadonlySet<string>,
  language: string,
): BestWish {
  return {
    weights: measures.flatMap(({ id, now }) => {
      const { weight } = settingOf(settings, id);
      const scale = now === undefined || exact(now).isZero() ? exact(1) : exact(now).abs();
      const counted = exact(weight).times(1000).div(scale).toSignificantDigits(8);
      return weight === 0 ? [] : [{ measure: id, weight: counted.toString() }];
    }),
    bounds: measures.flatMap(({ id }) => {
      const { least, most } = settingOf(settings, id);
      const [from, to] = [boundIn(least, language), boundIn(most, language)];
      if (from === undefined && to === undefined) return [];
      return [
        {
          measure: id,
          ...(from === undefined ? {} : { least: from }),
          ...(to === undefined ? {} : { most: to }),
        },
      ];
    }),
    free: [...free],
  };
}
