/** Markets: what is usual in countries, and where it shows: numbers, paper, forms, tax, and what is proposed. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { marketsInput, numbersInput, type HouseView, type QuoteView } from '../../contract';
import type { Market } from '../../core/quotes';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { signIn, whoIs } from '../access/sessions';
import { openBench } from '../builds/bench';
import { customerMeans } from '../customers/new-customer';
import type { Result } from '../kernel/failure';
import { openDemo, personOf } from '../kernel/testing';
import { lineTable } from '../paper/line-table';
import { changeMarkets, changeNumbers, seeHouse } from './house';
import { documentOf } from '../paper/composing';
import { openQuote, seeQuote } from '../quotes/quotes';

let ines: Actor, mara: Actor;
beforeAll(async () => {
  await openDemo('markets');
  [ines, mara] = (await Promise.all(
    ['ines', 'mara'].map((who) => personOf(`${who}@harrowmoor.example`)),
  )) as [Actor, Actor];
});
afterAll(() => connected().close());

const value = async <T>(result: Promise<Result<T>>): Promise<T> => {
  const answer = await result;
  if (!answer.ok) throw new Error(JSON.stringify(answer.failures));
  return answer.value;
};
/** Changes one market, as if it were typed in its row. */
async function change(code: string, more: Partial<Market>): Promise<HouseView> {
  const { version, markets } = (await seeHouse()).markets;
  const input = {
    version,
    markets: markets.map((each) => (each.code === code ? { ...each, ...more } : each)),
  };
  return value(changeMarkets(ines, await marketsInput.validate(input)));
}
const customerIn = async (country: string): Promise<string> => {
  const address = await connected().records.addresses.findOne({
    where: { country, kind: 'invoice' },
    order: [['street', 'ASC']],
    raw: true,
  });
  return address?.customerId ?? '';
};
/** The demo's quote for a customer of a country that has the most lines. */
async function quoteFor(country: string): Promise<QuoteView> {
  const rows = await connected().records.quotes.findAll({ raw: true });
  const all = await Promise.all(rows.map(({ id }) => seeQuote(mara, id)));
  const [most] = all
    .flatMap((each) => (each.ok ? [each.value] : []))
    .filter(({ customer }) => customer.addresses.some((each) => each.country === country))
    .sort((one, other) => other.lines.length - one.lines.length);
  if (!most) throw new Error(`nothing is quoted in ${country}`);
  return most;
}
const paperOf = async (quote: QuoteView): Promise<{ size: unknown; text: string }> => {
  const document = await value(documentOf(mara, quote.id));
  return { size: document.paper, text: JSON.stringify(document) };
};

describe('what is wrong in a market', () => {
  it.each([
    [{ code: 'us' }, 'house.market.badCode'],
    [{ code: 'UK' }, 'house.market.twice'],
    [{ countries: [] }, 'house.market.noCountry'],
    [{ countries: ['US', 'GB'] }, 'house.market.countryTwice'],
    [{ countries: ['USA'] }, 'address.badCountry'],
    [{ language: 'fr' }, 'house.market.badChoice'],
    [{ paper: 'foolscap' }, 'house.market.badChoice'],
  ])('%j is refused', async (more, code) => {
    await expect(change('US', more as Partial<Market>)).rejects.toThrow(code);
  });

  it('a price list that nobody has is refused where it stands', async () => {
    const { version, markets } = (await seeHouse()).markets;
    const [first] = markets;
    if (!first) throw new Error('the demo has no markets');
    const result = await changeMarkets(ines, { version, markets: [{ ...first, priceList: 'GONE' }] });
    expect(result).toMatchObject({ failures: [{ field: 'markets[0].priceList' }] });
  });
});

describe('a market says', () => {
  it('how its paper is written: size, days and units', async () => {
    const american = await paperOf(await quoteFor('US'));
    expect(american.size).toBe('letter');
    expect(american.text).toMatch(/"[A-Z][a-z]{2} \d\d, \d{4}"/);
    expect(american.text).toMatch(/"[\d.]+ ft"/);
    const british = await paperOf(await quoteFor('GB'));
    expect(british.size).toBe('A4');
    expect(british.text).toMatch(/"\d\d [A-Z][a-z]{2,3} \d{4}"/);
    expect(british.text).not.toMatch(/"[\d.]+ ft"/);
  });

  it('whether tax is spoken of', async () => {
    const before = await quoteFor('DE');
    expect([before.tax === undefined, before.taxApart]).toEqual([false, false]);
    await change('DE', { tax: 'apart' });
    const now = await value(seeQuote(mara, before.id));
    expect([now.tax, now.taxApart]).toEqual([undefined, true]);
    expect((await paperOf(now)).text).toMatch(/ohne Steuer/);
    await change('DE', { tax: 'added' });
    expect((await value(seeQuote(mara, before.id))).tax).toEqual(before.tax);
  });

  it('what is proposed for a new customer; a dealer is proposed no list but their own', async () => {
    const means = await customerMeans(mara);
    expect(means.usual.find(({ countries }) => countries.includes('US'))).toEqual({
      countries: ['US'],
      priceList: 'USD-2026',
      language: 'en',
      region: 'na',
    });
    await change('EU', { countries: ['SE', 'FR'], region: 'north' });
    const grown = await customerMeans(mara);
    expect([grown.countries.includes('FR'), grown.regions.includes('north')]).toEqual([true, true]);
    const rhona = await personOf('rhona@dunmere.example');
    const lists = (await customerMeans(rhona)).usual.map(({ priceList }) => priceList);
    expect(lists.filter((each) => each !== null)).toHaveLength(1);
  });

  it('with which forms and units people there read, as long as they chose no others', async () => {
    const signedIn = await value(
      signIn({ email: 'rhona@dunmere.example', password: 'harrowmoor', address: '192.0.2.9' }),
    );
    const rhona = async (): Promise<Actor> => {
      const known = await whoIs(signedIn.token);
      if (!known) throw new Error('signed out');
      return known;
    };
    expect([(await rhona()).language, (await rhona()).units]).toEqual(['en', 'metric']);
    await change('UK', { language: 'en-US', units: 'imperial' });
    const now = await rhona();
    expect([now.language, now.units]).toEqual(['en-US', 'imperial']);
    const build = await connected().records.builds.findOne({ raw: true });
    const bench = await openBench({ ...mara, units: now.units }, build?.id ?? '');
    expect(bench.ok && bench.value.preferences.units).toBe('imperial');
    await change('UK', { language: 'en', units: 'metric' });
  });

  it('nothing where no market has a country', async () => {
    await change('US', { countries: ['MX'] });
    expect((await paperOf(await quoteFor('US'))).size).toBe('A4');
    await change('US', { countries: ['US'] });
  });

  it('how a table for its customers is written', async () => {
    const { id } = await quoteFor('DE');
    const table = await value(lineTable(mara, id, 'csv', 'customer'));
    expect(new TextDecoder().decode(table.bytes)).toContain(';');
  });
});

describe('numbers', () => {
  it('count in each market for itself where they name it, twenty at once, none twice and none lost', async () => {
    const { numbers } = await seeHouse();
    const quote = { pattern: 'Q-{market}-{yyyy}-{000}', yearly: true };
    const view = await value(changeNumbers(ines, await numbersInput.validate({ ...numbers, quote })));
    const year = new Date().getFullYear();
    expect([view.home, view.next.quote]).toEqual(['UK', `Q-UK-${String(year)}-001`]);
    const [british, american] = [await customerIn('GB'), await customerIn('US')];
    const made = await Promise.all(
      Array.from({ length: 20 }, async (_, at) => {
        const quoted = await value(
          openQuote(mara, { customerId: at % 2 === 0 ? british : american, title: '' }),
        );
        return quoted.number;
      }),
    );
    const wanted = (code: string): string[] =>
      Array.from({ length: 10 }, (_, at) => `Q-${code}-${String(year)}-${String(at + 1).padStart(3, '0')}`);
    expect(made.sort()).toEqual([...wanted('UK'), ...wanted('US')]);
  });
});
