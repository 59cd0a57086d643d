/** The house's own data: who it is, when it works, and how it counts. */
import { array, boolean, number, string } from 'yup';
import { isValidBIC, isValidIBAN } from 'ibantools';
import type { WorkingCalendar } from '../core/production';
import { rangeProblem, writings, type Market, type NumberRange } from '../core/quotes';
import type { Texts } from '../core/model';
import { endpoint, json } from './endpoint';
import type { FileView } from './files';
import { day, emailText, exactly, note, oneOf, said, version, type Sent } from './schema';

const country = string()
  .trim()
  .matches(/^[A-Z]{2}$/, 'address.badCountry');
const optional = (most: number) => string().trim().max(most, 'input.tooLong').default('');
const compact = (text: string): string => text.replace(/\s/g, '').toUpperCase();

/** Who the house is, as on its paper. */
export const companyInput = exactly({
  version,
  name: said(120, 'house.noName'),
  street: said(120, 'address.noStreet'),
  postcode: said(16, 'address.noPostcode'),
  town: said(80, 'address.noTown'),
  country: country.required('address.badCountry'),
  phone: optional(40),
  email: emailText.default(''),
  web: string()
    .trim()
    .max(120, 'input.tooLong')
    .matches(/^(?:https:\/\/\S+|)$/, 'house.badWeb')
    .default(''),
  /** Its number for value added tax, and where and under what it is registered. */
  taxNumber: optional(40),
  registered: optional(200),
  bank: optional(120),
  iban: string()
    .transform(compact)
    .default('')
    .test('iban', 'house.badIban', (text) => text === '' || isValidIBAN(text)),
  bic: string()
    .transform(compact)
    .default('')
    .test('bic', 'house.badBic', (text) => text === '' || isValidBIC(text)),
  /** Where else it is, such as the works that goods are fetched from. */
  addresses: array()
    .of(
      exactly({
        what: said(80, 'house.noWhat'),
        street: said(120, 'address.noStreet'),
        postcode: said(16, 'address.noPostcode'),
        town: said(80, 'address.noTown'),
        country: country.required('address.badCountry'),
      }),
    )
    .max(50, 'input.tooMany')
    .default([]),
  /** Its numbers for tax in other countries. */
  taxIds: array()
    .of(exactly({ country: country.required('address.badCountry'), number: said(40, 'house.noTaxId') }))
    .max(100, 'input.tooMany')
    .default([]),
  /** The picture that stands on its paper. */
  // Not strict, as nothing that is strict has its default put in.
  mark: string().uuid('input.badId').nullable().default(null),
});
/** What passes `companyInput`. */
export type CompanyInput = Sent<typeof companyInput>;

/** Closed days at most. */
export const mostClosed = 10_000;
const zones = new Set<string>();
const isZone = (zone: string): boolean => {
  if (zones.has(zone)) return true;
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
  } catch {
    return false;
  }
  zones.add(zone);
  return true;
};

/** When the house works. */
export const calendarInput = exactly({
  version,
  /** Its time zone: its days begin and end by it. */
  zone: said(60, 'house.badZone').test('zone', 'house.badZone', (zone) => isZone(zone)),
  /** Days of the week, from 1, Monday. */
  workdays: array()
    .strict()
    .of(
      number()
        .strict()
        .integer('house.noWorkday')
        .min(1, 'house.noWorkday')
        .max(7, 'house.noWorkday')
        .required('house.noWorkday'),
    )
    .min(1, 'house.noWorkday')
    .max(7, 'house.noWorkday')
    .required('house.noWorkday'),
  /** Holidays and shutdowns, both ends counted; those without a country are everywhere. */
  closed: array()
    .of(
      exactly({
        from: day,
        to: day.test(
          'order',
          'house.endsBefore',
          (to, { parent }) => to >= (parent as { from: string }).from,
        ),
        country: country.nullable().default(null),
        name: note,
      }),
    )
    .max(mostClosed, 'house.tooManyClosed')
    .required('input.required'),
});
/** What passes `calendarInput`. */
export type CalendarInput = Sent<typeof calendarInput>;

const range = (of: 'year' | 'order') =>
  exactly({
    pattern: string()
      .trim()
      .required('house.pattern.count')
      .test('pattern', (pattern, { parent, createError }) => {
        const problem = rangeProblem(
          { pattern, yearly: (parent as { yearly?: unknown }).yearly === true },
          of,
        );
        return problem === null || createError({ message: problem });
      }),
    yearly: boolean().default(false),
  });

/** How the house counts quotes, orders and the work orders of an order. */
export const numbersInput = exactly({
  version,
  quote: range('year'),
  order: range('year').test(
    'apart',
    'house.pattern.same',
    ({ pattern }, { parent }) => pattern !== (parent as { quote?: NumberRange }).quote?.pattern,
  ),
  workOrder: range('order'),
});
/** What passes `numbersInput`. */
export type NumbersInput = Sent<typeof numbersInput>;

/** Markets at most. */
const mostMarkets = 200;
const usual = <const W extends string>(words: readonly W[]) =>
  oneOf(words, 'house.market.badChoice').required('house.market.badChoice');
/** Where the house sells: countries together, with what is usual there. */
export const marketsInput = exactly({
  version,
  markets: array()
    .of(
      exactly({
        code: string()
          .trim()
          .matches(/^[A-Z0-9]{1,6}$/, 'house.market.badCode')
          .required('house.market.badCode'),
        name: said(60, 'house.market.noName'),
        countries: array()
          .strict()
          .of(country.required('address.badCountry'))
          .min(1, 'house.market.noCountry')
          .max(300, 'input.tooMany')
          .required('house.market.noCountry'),
        priceList: string().max(40, 'input.tooLong').nullable().default(null),
        tax: usual(['added', 'apart']),
        language: usual(writings),
        units: usual(['metric', 'imperial']),
        paper: usual(['A4', 'letter']),
        region: optional(20),
      }),
    )
    .max(mostMarkets, 'input.tooMany')
    .required('input.required')
    .test('once', 'house.market.twice', (markets, { createError }) => {
      const twice = firstTwice(markets);
      return (
        twice === null ||
        createError({ message: twice.message, path: `markets[${String(twice.at)}].${twice.field}` })
      );
    }),
});
/** What passes `marketsInput`. */
export type MarketsInput = Sent<typeof marketsInput>;

/** The first market that has a code or a country of one before it. */
export function firstTwice(markets: readonly Partial<Pick<Market, 'code' | 'countries'>>[]): {
  at: number;
  field: 'code' | 'countries';
  message: 'house.market.twice' | 'house.market.countryTwice';
} | null {
  const [codes, countries] = [new Set<string>(), new Set<string>()];
  for (const [at, market] of markets.entries()) {
    if (market.code !== undefined && codes.has(market.code))
      return { at, field: 'code', message: 'house.market.twice' };
    if ((market.countries ?? []).some((each) => countries.has(each)))
      return { at, field: 'countries', message: 'house.market.countryTwice' };
    if (market.code !== undefined) codes.add(market.code);
    for (const each of market.countries ?? []) countries.add(each);
  }
  return null;
}

/** What the house asks for before a model is published. */
export const workshopInput = exactly({
  version,
  /** Somebody else has to agree to a draft: another modeller or a manager. */
  secondEyes: boolean().strict().required('input.required'),
});
/** What passes `workshopInput`. */
export type WorkshopInput = Sent<typeof workshopInput>;

/** A part as it is kept: without the version, by which it is changed. */
export type PartOf<I extends { version: number }> = Omit<I, 'version'>;
/** Who the house is. */
export type Company = PartOf<CompanyInput>;
/** When the house works. */
export type HouseCalendar = PartOf<CalendarInput> & WorkingCalendar;
/** How the house counts. */
export type HouseNumbers = PartOf<NumbersInput>;

/** Where the house sells. */
export interface HouseMarkets {
  markets: Market[];
}

/** What the house asks for before a model is published. */
export type HouseWorkshop = PartOf<WorkshopInput>;

/** The house as who runs it sees it. */
export interface HouseView {
  company: CompanyInput;
  /** The picture on its paper. */
  mark: FileView | null;
  calendar: CalendarInput;
  numbers: NumbersInput;
  markets: MarketsInput;
  workshop: WorkshopInput;
  /** What the next quote and order would be called today, in the house's own market where each counts for itself. */
  next: { quote: string; order: string };
  /** The market of the house's own country. */
  home: string;
  /** What markets may choose from. */
  priceLists: { code: string; name: Texts }[];
  regions: string[];
}

/** Endpoints of the house's own data. */
export const house = {
  'GET /house': endpoint({
    says: 'Who the house is, when it works and how it counts.',
    who: 'administer',
    answers: json<HouseView>('HouseView'),
  }),
  'PUT /house/company': endpoint({
    says: 'Changes who the house is, as on its paper.',
    who: 'administer',
    input: companyInput,
    answers: json<HouseView>('HouseView'),
  }),
  'PUT /house/calendar': endpoint({
    says: 'Changes when the house works: its time zone, the days of its week, holidays and shutdowns by country.',
    who: 'administer',
    input: calendarInput,
    most: 4 * 1024 * 1024,
    answers: json<HouseView>('HouseView'),
  }),
  'PUT /house/numbers': endpoint({
    says: 'Changes how quotes, orders and work orders are numbered from now on; no number comes twice.',
    who: 'administer',
    input: numbersInput,
    answers: json<HouseView>('HouseView'),
  }),
  'PUT /house/markets': endpoint({
    says: 'Changes where the house sells: countries, and what is usual there for lists, tax, language, units and paper.',
    who: 'administer',
    input: marketsInput,
    answers: json<HouseView>('HouseView'),
  }),
  'PUT /house/workshop': endpoint({
    says: 'Changes what is asked for before a model is published: whether somebody else has to agree.',
    who: 'administer',
    input: workshopInput,
    answers: json<HouseView>('HouseView'),
  }),
};
