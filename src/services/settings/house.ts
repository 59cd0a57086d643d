/** The house's own data: who it is, when it works, how it counts, where it sells. */
import { QueryTypes } from 'sequelize';
import type {
  CalendarInput,
  Company,
  CompanyInput,
  HouseCalendar,
  HouseMarkets,
  HouseNumbers,
  HouseView,
  HouseWorkshop,
  MarketsInput,
  NumbersInput,
  WorkshopInput,
} from '../../contract';
import {
  afterWorkingDays,
  calendarFor,
  plainWeek,
  promisedDay,
  type WorkingCalendar,
} from '../../core/production';
import { marketOf, type Market } from '../../core/quotes';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { endUse, filesOf, use } from '../files/files';
import { done, fail, type Result } from '../kernel/failure';
import { moveSchedules } from '../kernel/jobs/schedule';
import { inTransaction, record } from '../kernel/unit-of-work';
import { nextOf } from './numbers';
import { reference } from './reference-data';

/** The parts of what the house says of itself. */
export interface House {
  company: Company;
  calendar: HouseCalendar;
  numbers: HouseNumbers;
  markets: HouseMarkets;
  workshop: HouseWorkshop;
}
type Part = keyof House;

/** As it is before anybody has said anything. */
const unsaid: House = {
  company: {
    name: '',
    street: '',
    postcode: '',
    town: '',
    country: 'GB',
    phone: '',
    email: '',
    web: '',
    taxNumber: '',
    registered: '',
    bank: '',
    iban: '',
    bic: '',
    addresses: [],
    taxIds: [],
    mark: null,
  },
  calendar: { zone: 'Europe/London', workdays: [...plainWeek.workdays], closed: [] },
  numbers: {
    quote: { pattern: 'Q-{yy}-{0000}', yearly: false },
    order: { pattern: 'O-{yy}-{0000}', yearly: false },
    workOrder: { pattern: 'W-{order}-{0}', yearly: false },
  },
  markets: { markets: [] },
  workshop: { secondEyes: false },
};

/** A part as it is now. */
export async function housePart<P extends Part>(part: P): Promise<House[P]> {
  const { house } = await reference();
  return { ...unsaid[part], ...(house.get(part)?.value as House[P] | undefined) };
}

/** The market that has a country; of none, of the house's own. */
export async function marketIn(country: string): Promise<Market> {
  const { markets } = await housePart('markets');
  return marketOf(markets, country === '' ? (await housePart('company')).country : country);
}

/** Who a letter is from. */
export type Sender = Pick<Company, 'name' | 'street' | 'postcode' | 'town' | 'country'>;

/** The works, or a dealer with the address that its invoices go to. */
export async function senderOf(dealer: { id: string; name: string } | null): Promise<Sender> {
  const { name, street, postcode, town, country } = await housePart('company');
  const works: Sender = { name, street, postcode, town, country };
  if (!dealer) return works;
  const address = await connected().records.addresses.findOne({
    where: { customerId: dealer.id },
    order: [
      ['kind', 'DESC'],
      ['position', 'ASC'],
    ],
    raw: true,
  });
  return address
    ? {
        name: dealer.name,
        street: address.street,
        postcode: address.postcode,
        town: address.town,
        country: address.country,
      }
    : { ...works, name: dealer.name };
}

/** The day that can be promised where something is ordered on a day, takes so many working days, and goes somewhere. */
export async function promisedWhen(ordered: string, leadDays: number, goes: string): Promise<string> {
  const [calendar, { country }] = [await housePart('calendar'), await housePart('company')];
  return promisedDay(ordered, leadDays, calendar, { made: country, goes });
}

/** The day on which something is made that takes so many working days from a day on. */
export async function madeWhen(ordered: string, days: number): Promise<string> {
  const [calendar, { country }] = [await housePart('calendar'), await housePart('company')];
  return afterWorkingDays(ordered, days, calendar, country);
}

/** What a page needs to say when something is there that goes to a country. */
export async function deliveryFrom(
  day: string,
  goes: string,
): Promise<{ calendar: WorkingCalendar; made: string; goes: string }> {
  const [calendar, { country }] = [await housePart('calendar'), await housePart('company')];
  // What is for nobody yet goes nowhere else.
  const to = goes === '' ? country : goes;
  return { calendar: calendarFor(calendar, day, [country, to]), made: country, goes: to };
}

/** The house as who runs it sees it. */
export async function seeHouse(): Promise<HouseView> {
  const rows = await connected().records.houseParts.findAll({ raw: true });
  const versionOf = (part: Part): number => rows.find((row) => row.part === part)?.version ?? 1;
  // What was kept before a part grew has none of what is new in it.
  const now = <P extends Part>(part: P): House[P] => ({
    ...unsaid[part],
    ...(rows.find((row) => row.part === part)?.value as House[P] | undefined),
  });
  const [company, calendar, numbers] = [now('company'), now('calendar'), now('numbers')];
  const { markets } = now('markets');
  const { code: home } = marketOf(markets, company.country);
  const { priceLists } = await reference();
  const marks = company.mark === null ? [] : await filesOf('house', 'mark');
  return {
    company: { version: versionOf('company'), ...company },
    mark: marks.find(({ id }) => id === company.mark) ?? null,
    calendar: { version: versionOf('calendar'), ...calendar },
    numbers: { version: versionOf('numbers'), ...numbers },
    markets: {
      version: versionOf('markets'),
      markets: markets.map((each) => ({ ...each, countries: [...each.countries] })),
    },
    next: {
      quote: await nextOf('quote', numbers.quote, home),
      order: await nextOf('order', numbers.order, home),
    },
    workshop: { version: versionOf('workshop'), ...now('workshop') },
    home,
    priceLists: priceLists.map(({ code, name }) => ({ code, name })),
    regions: await knownRegions(),
  };
}

/** Changes who the house is. The picture has to be one that whoever changes it brought, or the one that is there. */
export const changeCompany = (
  actor: Actor,
  { version, ...company }: CompanyInput,
): Promise<Result<HouseView>> =>
  inTransaction(async () => {
    const before = await housePart('company');
    if (company.mark !== null && company.mark !== before.mark) {
      const used = await use(actor, company.mark, 'house', 'mark');
      if (!used.ok) return used;
    }
    await endUse('house', 'mark', company.mark === null ? [] : [company.mark]);
    return keep(actor, 'company', version, company);
  });

/** Changes when the house works; days already promised stay promised. */
export const changeCalendar = (
  actor: Actor,
  { version, ...calendar }: CalendarInput,
): Promise<Result<HouseView>> =>
  inTransaction(async () => {
    const { zone } = await housePart('calendar');
    // What the house does at night, it does at its own night.
    if (calendar.zone !== zone) await moveSchedules(calendar.zone);
    return keep(actor, 'calendar', version, {
      ...calendar,
      workdays: [...new Set(calendar.workdays)].sort(),
    });
  });

/** Changes how the house counts from now on. */
export const changeNumbers = (
  actor: Actor,
  { version, ...numbers }: NumbersInput,
): Promise<Result<HouseView>> => inTransaction(() => keep(actor, 'numbers', version, numbers));

/** Changes where the house sells. What is kept of quotes and customers stays as it is. */
export const changeMarkets = (actor: Actor, { version, markets }: MarketsInput): Promise<Result<HouseView>> =>
  inTransaction(async () => {
    const lists = new Set((await reference()).priceLists.map(({ code }) => code));
    const unknown = markets.findIndex(({ priceList }) => priceList !== null && !lists.has(priceList));
    if (unknown >= 0)
      return fail('missing', {
        code: 'newCustomer.noList',
        field: `markets[${String(unknown)}].priceList`,
      });
    return keep(actor, 'markets', version, { markets });
  });

/** Where models are used, as customers and markets have it, in the order of the letters. */
export async function knownRegions(): Promise<string[]> {
  const rows = await connected().sequelize.query<{ region: string }>(
    'select distinct region from customers',
    { type: QueryTypes.SELECT },
  );
  const { markets } = await housePart('markets');
  const all = [...rows, ...markets].map(({ region }) => region);
  return [...new Set(all)].filter((region) => region !== '').sort();
}

/** Changes what the house asks for before a model is published. */
export const changeWorkshop = (
  actor: Actor,
  { version, ...workshop }: WorkshopInput,
): Promise<Result<HouseView>> => inTransaction(() => keep(actor, 'workshop', version, workshop));

/** Keeps a part, if nobody changed it since it was seen. */
async function keep<P extends Part>(
  actor: Actor,
  part: P,
  version: number,
  value: House[P],
): Promise<Result<HouseView>> {
  const { houseParts } = connected().records;
  // Whoever is first makes the row, whoever is second waits for it.
  await houseParts.bulkCreate(
    [{ part, value: unsaid[part], version: 1, changedAt: new Date(), changedBy: null }],
    {
      ignoreDuplicates: true,
    },
  );
  const row = await houseParts.findByPk(part, { lock: true });
  if (row?.version !== version) return fail('conflict', { code: 'house.stale' });
  const before = row.value as object;
  await row.update({ value, version: version + 1, changedAt: new Date(), changedBy: actor.id });
  await record(actor, `house.${part}`, part, differing(before, value));
  return done(await seeHouse());
}

/** What differs, by name; of a long list, how long it is. */
function differing(before: object, after: object): Record<string, unknown> {
  const short = (value: unknown): unknown =>
    Array.isArray(value) && value.length > 7 ? value.length : value;
  const names = Object.keys(after).filter(
    (name) =>
      JSON.stringify((before as Record<string, unknown>)[name]) !==
      JSON.stringify((after as Record<string, unknown>)[name]),
  );
  const some = (of: object) =>
    Object.fromEntries(names.map((name) => [name, short((of as Record<string, unknown>)[name])]));
  return { from: some(before), to: some(after) };
}
