/** What a typed number is: an item that is sold so, a build that it is read back as, or nothing, and why. */
import { refusedIn, type Sale } from '../../../core/items';
import type { ReadNumber, ReadNumbersInput } from '../../../contract';
import { connected, type ItemRow } from '../../../data';
import type { Actor } from '../../access/actor';
import { contextFor } from '../../builds/home';
import { nearestIn } from '../../builds/nearest';
import { readAll } from '../../builds/read-back';
import { refusalOf, saleOf } from '../../items/selling';
import { done, fail, type Failure, type Result } from '../../kernel/failure';
import { reference } from '../../settings/reference-data';
import { findQuote } from '../quote-state';

/** The item that is sold under a number, in such a sale. */
export function soldAs(items: ReadonlyMap<string, ItemRow>, typed: string, sale: Sale): ItemRow | undefined {
  const item = items.get(typed.trim().toUpperCase());
  return item && refusedIn(item, sale) === null ? item : undefined;
}

/** In what a number is looked for. */
interface LookedIn {
  items: ReadonlyMap<string, ItemRow>;
  sale: Sale;
  actor: Actor;
}

/** What is wrong with a number that is neither of an item that is sold so nor read back. */
export function unknownNumber(
  { items, sale, actor }: LookedIn,
  failure: Failure | undefined,
  typed: string,
): Failure {
  const item = items.get(typed.trim().toUpperCase());
  const refused = item && refusedIn(item, sale);
  if (refused) return refusalOf(items, item, refused, actor);
  return failure && failure.code !== 'number.unknown'
    ? { ...failure, field: 'sku' }
    : { code: 'line.unknownItem', params: { sku: typed }, field: 'sku' };
}

/**
 * What the numbers of a pasted list are: items, builds that they are read back as, or wrong, with what comes
 * nearest. Nothing is changed.
 */
export async function readNumbers(
  actor: Actor,
  id: string,
  { numbers }: ReadNumbersInput,
): Promise<Result<ReadNumber[]>> {
  const quote = await findQuote(actor, id);
  const revision =
    quote &&
    (await connected().records.revisions.findOne({
      where: { quoteId: id },
      order: [['number', 'DESC']],
      raw: true,
    }));
  if (!quote || !revision) return fail('missing', { code: 'quote.missing' });
  const { items, models } = await reference();
  const sale = saleOf(actor, revision);
  const heads = new Map(models.map((model) => [model.id, model.sku]));
  const plain = (typed: string) => typed.trim().toUpperCase();
  // The same number is mostly there more than once.
  const asked = [...new Set(numbers.map(plain))];
  const unknown = asked.filter((number) => !soldAs(items, number, sale));
  const back = new Map(
    (await readAll(unknown, contextFor(revision))).map((result, index) => [unknown[index] as string, result]),
  );
  const nearest = nearestIn(
    [...items.values()].flatMap((item) =>
      item.kind !== 'model' && refusedIn(item, sale) === null ? [item.sku] : [],
    ),
  );
  const read = new Map(
    asked.map((number): [string, ReadNumber] => {
      const item = soldAs(items, number, sale);
      if (item && item.kind !== 'model')
        return [number, { is: 'item', sku: item.sku, name: item.name, unit: item.unit }];
      const found = back.get(number);
      if (found?.ok)
        return [
          number,
          {
            is: 'build',
            name: items.get(heads.get(found.value.version.modelId) ?? '')?.name ?? {},
            complete: found.value.complete,
          },
        ];
      const { code, params = {} } = item
        ? { code: 'line.needsBuild', params: { sku: number } }
        : unknownNumber({ items, sale, actor }, found?.failures[0], number);
      const near = code === 'line.unknownItem' ? nearest(number) : undefined;
      return [
        number,
        {
          is: 'wrong',
          code,
          params,
          ...(near === undefined ? {} : { nearest: { number: near, name: items.get(near)?.name ?? {} } }),
        },
      ];
    }),
  );
  return done(numbers.map((typed) => read.get(plain(typed)) as ReadNumber));
}
