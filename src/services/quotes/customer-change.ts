/**
 * Another customer for a quote: price list, addresses, language, region and what is granted come along, and
 * everything is priced anew.
 */
import { sumLines } from '../../core/pricing';
import type { CustomerChange, CustomerInput, QuoteView } from '../../contract';
import { connected, type CustomerRow } from '../../data';
import { refusal, type Actor } from '../access/actor';
import { contextFor } from '../builds/home';
import { outcomeOf } from '../builds/outcome';
import { copyOf, ownCustomers } from '../customers/customers';
import { done, fail, type Result } from '../kernel/failure';
import { versionById } from '../catalogue/models';
import { counted, partsOf, priceLines, type QuotedLine, type QuoteParts } from './figures/quote-pricing';
import { changeQuote, type Draft } from './quotes';
import { findQuote, holdQuote } from './quote-state';
import { forget } from './history/steps';
import { record, tryOut } from '../kernel/unit-of-work';
import { isReference } from '../kernel/reference';

async function customerOf(actor: Actor, id: string): Promise<CustomerRow | null> {
  return isReference(id)
    ? connected().records.customers.findOne({ where: { id, ...ownCustomers(actor) } })
    : null;
}

/**
 * Money that was typed in another currency says nothing in the new one: it is taken back. Gives the lines
 * where it was, 0 for the whole quote.
 */
async function takeBackMoney({ revision }: Pick<Draft, 'revision'>): Promise<number[]> {
  const { lines, revisions } = connected().records;
  const taken: number[] = [];
  for (const line of await lines.findAll({ where: { revisionId: revision.id } })) {
    const inMoney = line.hand?.by === 'net' || line.hand?.by === 'amount';
    if (
      !inMoney &&
      line.typedPrice === null &&
      line.typedCost === null &&
      line.rates === null &&
      line.resale === null
    )
      continue;
    taken.push(line.position);
    await lines.update(
      { ...(inMoney ? { hand: null } : {}), typedPrice: null, typedCost: null, rates: null, resale: null },
      { where: { id: line.id } },
    );
  }
  if (revision.whole?.by === 'net' || revision.whole?.by === 'amount') {
    taken.push(0);
    await revisions.update({ whole: null }, { where: { id: revision.id } });
  }
  return taken;
}

/** Makes the change; gives what was typed in money and is taken back. */
async function apply(
  { quote, revision }: Pick<Draft, 'quote' | 'revision'>,
  customer: CustomerRow,
): Promise<Result<number[]>> {
  const { quotes, revisions, builds, priceLists } = connected().records;
  const [before, after] = [
    await priceLists.findByPk(revision.priceList),
    await priceLists.findByPk(customer.priceList),
  ];
  const otherCurrency = before?.currency !== after?.currency;
  const own = await builds.findAll({ where: { revisionId: revision.id } });
  if (otherCurrency && own.some((build) => build.special.length > 0))
    return fail('invalid', {
      code: 'customer.special',
      params: { from: before?.currency ?? '', to: after?.currency ?? '' },
    });
  await quotes.update({ customerId: customer.id }, { where: { id: quote.id } });
  await revisions.update(
    { customer: await copyOf(customer), priceList: customer.priceList },
    { where: { id: revision.id } },
  );
  const [fresh] = await revisions.findAll({ where: { id: revision.id } });
  if (!fresh) throw new Error(`quote ${quote.number} lost its revision`);
  // What a region allows may be another: every build is worked out again under it.
  const { values } = contextFor(fresh);
  for (const build of own) {
    const context = { ...build.context, values: values as Record<string, string> };
    await build.update({
      context,
      outcome: await outcomeOf(await versionById(build.modelVersionId), context, build),
      version: build.version + 1,
    });
  }
  return done(otherCurrency ? await takeBackMoney({ revision: fresh }) : []);
}

const summed = (parts: QuoteParts, priced: readonly QuotedLine[]) => ({
  currency: parts.list.currency,
  decimals: parts.list.decimals,
  priceList: parts.revision.priceList,
  net: sumLines(
    counted(priced).map((each) => each.price),
    parts.list.decimals,
  ).net,
});

/** What another customer would change, worked out without changing anything. */
export async function seeCustomerChange(
  actor: Actor,
  id: string,
  customerId: string,
): Promise<Result<CustomerChange>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  return tryOut(async () => {
    const quote = await holdQuote(actor, id);
    const customer = await customerOf(actor, customerId);
    if (!quote) return fail('missing', { code: 'quote.missing' });
    if (!customer) return fail('invalid', { code: 'quote.unknownCustomer', field: 'customerId' });
    const before = await partsOf(quote);
    if (before.revision.state !== 'draft')
      return fail('conflict', { code: 'quote.settled', params: { number: quote.number } });
    const was = await priceLines(before);
    const applied = await apply({ quote, revision: before.revision }, customer);
    if (!applied.ok) return applied;
    const again = await findQuote(actor, id);
    const after = await partsOf(again ?? quote);
    const is = await priceLines(after);
    return done({
      customer: { name: customer.name, class: customer.class },
      before: summed(before, was),
      after: summed(after, is),
      takenBack: applied.value,
      lines: is.map(({ line, item, price, problems }, at) => ({
        position: line.position,
        name: item.name,
        before: was[at]?.price.net ?? '0',
        after: price.net,
        problems,
      })),
    });
  });
}

/** Gives a draft to another customer, as was shown before. */
export async function changeCustomer(
  actor: Actor,
  id: string,
  { version, customerId }: CustomerInput,
): Promise<Result<QuoteView>> {
  return changeQuote(
    actor,
    id,
    version,
    async (draft) => {
      const customer = await customerOf(actor, customerId);
      if (!customer) return fail('invalid', { code: 'quote.unknownCustomer', field: 'customerId' });
      const applied = await apply(draft, customer);
      if (!applied.ok) return applied;
      await record(actor, 'quote.customer', draft.quote.number, {
        from: draft.revision.customer.number,
        to: customer.number,
        takenBack: applied.value,
      });
      // What is shown next is priced for the new one.
      draft.quote.customerId = customer.id;
      await forget(draft.revision.id);
      return done(null);
    },
    { steps: false },
  );
}
