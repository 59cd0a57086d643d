/** What typed rows of entries are held against. */
import { priceMethods, sheetColumns, type SheetColumn, type SheetMeans } from '../../core/prices';
import { translator } from '../../i18n';
import type { Reference } from '../settings/reference-data';
import { entriesOn, placeOf } from '../settings/tariffs';
import { dayBefore, entryOfRow } from './kept';
import { titleOf } from './prices';

/** For rows typed in a language into a change of a day; `list` is that of rows that name none. */
export async function sheetMeans(
  language: string,
  known: Reference,
  list: string,
  inForce: string,
): Promise<SheetMeans> {
  const languages = ['en', 'de'].map((each) => translator(each));
  const words = new Map(
    ([...priceMethods, 'none'] as const).flatMap((method) =>
      [method, ...languages.map((t) => t(`prices.method.${method}`))].map(
        (word) => [word.toLowerCase(), method] as const,
      ),
    ),
  );
  const before = new Map(
    await Promise.all(
      known.priceLists.map(
        async ({ code }) => [code, await entriesOn(known, code, dayBefore(inForce))] as const,
      ),
    ),
  );
  const bundles = new Set(known.models.map(({ sku }) => sku));
  return {
    language,
    list,
    titles: Object.fromEntries(
      sheetColumns.map((column) => [column, languages.map((t) => titleOf(column, t))]),
    ) as unknown as Record<SheetColumn, string[]>,
    hasItem: (sku) => known.items.has(sku),
    hasList: (code) => known.priceLists.some((each) => each.code === code),
    isBundle: (sku) => bundles.has(sku),
    before: (place) => entryOfRow(before.get(place.list)?.get(placeOf(place))) ?? undefined,
    methodOf: (word) => words.get(word.toLowerCase()),
  };
}
