/** What the items of a draft list at, in each price list. */
import type { DraftEntries } from '../../contract';
import type { ModelDocument } from '../../core/model';
import { today } from '../kernel/clock';
import { done, type Result } from '../kernel/failure';
import { reference } from '../settings/reference-data';
import { fullTariff } from '../settings/tariffs';
import { openDraft } from './draft-row';

/** Every item that a document sells. */
const itemsOf = ({ features, parameters, prices }: ModelDocument): Set<string> =>
  new Set(
    [
      ...features.flatMap(({ options }) => options.map(({ item }) => item)),
      ...parameters.map((each) => ('item' in each ? each.item : undefined)),
      ...prices.map(({ item }) => item),
    ].flatMap((sku) => (sku === undefined || sku === '' ? [] : [sku])),
  );

/** Of those priced in another way than by the piece it is told how, not how much. */
export async function draftEntries(id: string): Promise<Result<DraftEntries>> {
  const found = await openDraft(id);
  if (!found.ok) return found;
  const { priceLists } = await reference();
  const tariffs = await Promise.all(priceLists.map(({ code }) => fullTariff(code, today())));
  const items = Object.fromEntries(
    [...itemsOf(found.value.document)].map((sku) => [
      sku,
      tariffs.map(({ prices, entries }) => prices[sku] ?? entries?.[sku]?.method ?? null),
    ]),
  );
  return done({ lists: priceLists.map(({ code, currency }) => ({ code, currency })), items });
}
