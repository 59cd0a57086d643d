/** The house's own data: kept by part, in its days, in its numbers, and by nobody else. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { calendarInput, companyInput, numbersInput, type HouseView } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { bring } from '../files/files';
import { dayOf, houseZone, keepZone } from '../kernel/clock';
import type { Result } from '../kernel/failure';
import type { AnyJobKind } from '../kernel/jobs/kind';
import { keepSchedules } from '../kernel/jobs/schedule';
import { openDemo, personOf } from '../kernel/testing';
import { inTransaction } from '../kernel/unit-of-work';
import { fail } from '../kernel/failure';
import { openQuote } from '../quotes/quotes';
import {
  changeCalendar,
  changeCompany,
  changeNumbers,
  housePart,
  madeWhen,
  promisedWhen,
  seeHouse,
  senderOf,
} from './house';
import { nextNumber } from './numbers';
import { reference } from './reference-data';

let [ines, mara]: Actor[] = [];
const as = (actor: Actor | undefined): Actor => actor as Actor;
beforeAll(async () => {
  await openDemo('house');
  [ines, mara] = await Promise.all([
    personOf('ines@harrowmoor.example'),
    personOf('mara@harrowmoor.example'),
  ]);
});
afterAll(() => connected().close());

const kept = async (result: Promise<Result<HouseView>>): Promise<HouseView> => {
  const answer = await result;
  if (!answer.ok) throw new Error(JSON.stringify(answer.failures));
  return answer.value;
};
const codeOf = async (check: Promise<unknown>): Promise<string | undefined> => {
  try {
    await check;
    return undefined;
  } catch (refused) {
    return (refused as Error).message;
  }
};

describe('what is not said', () => {
  it('is as good as said to be nothing', async () => {
    const day = { from: '2027-01-01', to: '2027-01-01' };
    const closed = await calendarInput.validate({ version: 1, zone: 'UTC', workdays: [1], closed: [day] });
    expect(closed.closed).toEqual([{ ...day, country: null, name: '' }]);
    const address = { name: 'A', street: 'B', postcode: 'C', town: 'D', country: 'GB' };
    expect(await companyInput.validate({ version: 1, ...address })).toMatchObject({ mark: null, web: '' });
  });
});

describe('a part', () => {
  it('is kept against the version that was seen, and written down with what differs', async () => {
    const { company } = await seeHouse();
    const now = await kept(changeCompany(as(ines), { ...company, phone: '1' }));
    expect([now.company.phone, now.company.version]).toEqual(['1', company.version + 1]);
    expect(await changeCompany(as(ines), { ...company, phone: '2' })).toMatchObject({
      ok: false,
      status: 'conflict',
      failures: [{ code: 'house.stale' }],
    });
    const [entry] = await connected().records.audit.findAll({
      where: { action: 'house.company' },
      raw: true,
    });
    expect(entry?.details).toEqual({ from: { phone: company.phone }, to: { phone: '1' } });
  });

  it('says where else the house is, and its tax numbers elsewhere; what was kept before has none', async () => {
    const { company } = await seeHouse();
    const addresses = [{ what: 'Store', street: 'Quay 1', postcode: 'Q1', town: 'Port', country: 'DE' }];
    const taxIds = [{ country: 'SE', number: 'SE999999999901' }];
    const checked = await companyInput.validate({ ...company, addresses, taxIds });
    expect((await kept(changeCompany(as(ines), checked))).company).toMatchObject({ addresses, taxIds });
    await connected().sequelize.query(
      "update house_parts set value = value - 'addresses' - 'taxIds' where part = 'company'",
    );
    expect((await seeHouse()).company).toMatchObject({ addresses: [], taxIds: [] });
    expect((await housePart('company')).taxIds).toEqual([]);
    const wrong = companyInput.validate({ ...company, taxIds: [{ country: 'Sweden', number: '1' }] });
    expect(await codeOf(wrong)).toBe('address.badCountry');
  });

  it('is told on paper at once', async () => {
    const { company } = await seeHouse();
    await kept(changeCompany(as(ines), { ...company, name: 'Harrowmoor Weighing' }));
    expect((await senderOf(null)).name).toBe('Harrowmoor Weighing');
  });

  it('of two that change it at once one is told to look again', async () => {
    const { numbers } = await seeHouse();
    const both = await Promise.all([changeNumbers(as(ines), numbers), changeNumbers(as(ines), numbers)]);
    expect(both.map(({ ok }) => ok).sort()).toEqual([false, true]);
  });

  it('has the picture that whoever keeps it brought; the one before is loose then', async () => {
    const svg = new TextEncoder().encode('<svg width="8" height="4"><path d="M0 0h8"/></svg>');
    const bringing = async (actor: Actor | undefined) => {
      const file = await bring(as(actor), { name: 'mark.svg', bytes: svg });
      return file.ok ? file.value.id : '';
    };
    const [own, others] = [await bringing(ines), await bringing(mara)];
    const { company } = await seeHouse();
    expect(await changeCompany(as(ines), { ...company, mark: others })).toMatchObject({
      ok: false,
      status: 'missing',
    });
    const now = await kept(changeCompany(as(ines), { ...company, mark: own }));
    expect(now.mark).toMatchObject({ id: own, width: 8, by: 'Ines Farrow' });
    const next = await kept(changeCompany(as(ines), { ...now.company, mark: await bringing(ines) }));
    expect(next.mark?.id).not.toBe(own);
    expect(await connected().records.files.findByPk(own, { raw: true })).toMatchObject({ about: null });
  });
});

describe('the calendar', () => {
  it('decides what is made and promised when, from when it is kept on', async () => {
    const { calendar } = await seeHouse();
    const closed = [
      { from: '2031-03-04', to: '2031-03-05', country: 'GB', name: '' },
      { from: '2031-03-07', to: '2031-03-07', country: 'DE', name: '' },
    ];
    await kept(changeCalendar(as(ines), { ...calendar, workdays: [5, 4, 3, 2, 1, 1], closed }));
    // Monday, 3 March 2031.
    expect(await madeWhen('2031-03-03', 1)).toBe('2031-03-06');
    expect(await promisedWhen('2031-03-03', 1, 'GB')).toBe('2031-03-10');
    expect(await promisedWhen('2031-03-03', 1, 'DE')).toBe('2031-03-11');
    expect((await housePart('calendar')).workdays).toEqual([1, 2, 3, 4, 5]);
  });

  it('has days that begin and end by its zone, wherever the server stands', async () => {
    const { calendar } = await seeHouse();
    const moment = new Date('2026-06-30T22:30:00Z');
    await kept(changeCalendar(as(ines), { ...calendar, zone: 'Pacific/Auckland' }));
    await reference();
    expect([houseZone(), dayOf(moment)]).toEqual(['Pacific/Auckland', '2026-07-01']);
    keepZone('America/Los_Angeles');
    expect(dayOf(moment)).toBe('2026-06-30');
    keepZone('Europe/London');
    expect(dayOf(moment)).toBe('2026-06-30');
    expect(dayOf(new Date('2026-06-30T23:30:00Z'))).toBe('2026-07-01');
  });

  it.each([
    ['no zone', { zone: 'Europe/Harrowmoor' }, 'house.badZone'],
    ['a week without work', { workdays: [] }, 'house.noWorkday'],
    ['an eighth day', { workdays: [8] }, 'house.noWorkday'],
    [
      'an end before its beginning',
      { closed: [{ from: '2027-01-02', to: '2027-01-01', country: null, name: '' }] },
      'house.endsBefore',
    ],
    [
      'no day',
      { closed: [{ from: '2027-02-30', to: '2027-03-01', country: null, name: '' }] },
      'input.badDate',
    ],
    [
      'no country',
      { closed: [{ from: '2027-01-01', to: '2027-01-01', country: 'Great', name: '' }] },
      'address.badCountry',
    ],
    [
      '10,001 of them',
      {
        closed: Array.from({ length: 10_001 }, () => ({
          from: '2027-01-01',
          to: '2027-01-01',
          country: null,
          name: '',
        })),
      },
      'house.tooManyClosed',
    ],
  ])('%s is refused', async (_, change, code) => {
    const { calendar } = await seeHouse();
    expect(await codeOf(calendarInput.validate({ ...calendar, ...change }))).toBe(code);
  });

  it('takes 10,000 holidays', async () => {
    const { calendar } = await seeHouse();
    const closed = Array.from({ length: 10_000 }, (_, at) => {
      const day = new Date(Date.UTC(2030, 0, 1 + at * 3)).toISOString().slice(0, 10);
      return { from: day, to: day, country: null, name: 'x' };
    });
    const checked = await calendarInput.validate({ ...calendar, closed });
    expect((await kept(changeCalendar(as(ines), checked))).calendar.closed).toHaveLength(10_000);
  });
});

describe('what the house does by itself', () => {
  it('is done at its own night, wherever that is by now', async () => {
    const kind = { kind: 'house.tidy', tries: 1 } as unknown as AnyJobKind;
    const { calendar } = await seeHouse();
    await keepSchedules([{ name: 'night', kind, pattern: '40 2 * * *', zone: calendar.zone }]);
    await kept(changeCalendar(as(ines), { ...calendar, closed: [], zone: 'Asia/Tokyo' }));
    const row = await connected().records.jobSchedules.findByPk('night', { raw: true });
    const clock = new Intl.DateTimeFormat('en-GB', { timeZone: 'Asia/Tokyo', timeStyle: 'short' });
    expect([row?.zone, row && clock.format(row.nextAt)]).toEqual(['Asia/Tokyo', '02:40']);
    const now = (await seeHouse()).calendar;
    await kept(changeCalendar(as(ines), { ...calendar, version: now.version }));
  });
});

describe('company and numbers', () => {
  it.each([
    [companyInput, { name: ' ' }, 'house.noName'],
    [companyInput, { iban: 'GB33 BUKB 2020 1555 5555 56' }, 'house.badIban'],
    [companyInput, { bic: 'NO' }, 'house.badBic'],
    [companyInput, { web: 'javascript:alert(1)' }, 'house.badWeb'],
    [numbersInput, { quote: { pattern: 'Q-{0000}', yearly: true } }, 'house.pattern.year'],
    [numbersInput, { quote: { pattern: 'O-{yy}-{0000}', yearly: false } }, 'house.pattern.same'],
    [numbersInput, { workOrder: { pattern: 'W-{0}', yearly: false } }, 'house.pattern.count'],
  ])('what is wrong is refused: %#', async (schema, change, code) => {
    const view = await seeHouse();
    const part = schema === (companyInput as unknown) ? view.company : view.numbers;
    expect(await codeOf((schema as typeof companyInput).validate({ ...part, ...change }))).toBe(code);
  });

  it('an IBAN is kept without the blanks that one writes', () => {
    expect(companyInput.cast({ iban: 'gb33 bukb 2020 1555 5555 55' }, { assert: false }).iban).toBe(
      'GB33BUKB20201555555555',
    );
  });
});

describe('numbers', () => {
  const customer = async (): Promise<string> =>
    (await connected().records.customers.findOne({ raw: true }))?.id ?? '';
  const opened = async (): Promise<string> => {
    const quote = await openQuote(as(mara), { customerId: await customer(), title: '' });
    return quote.ok ? quote.value.number : '';
  };
  const countIn = (number: string): number => Number(/(\d+)$/.exec(number)?.[1]);

  it('under fifty at once come once each, and none is left out', async () => {
    const before = countIn(await opened());
    const all = await Promise.all(Array.from({ length: 50 }, opened));
    expect(all.map(countIn).sort((one, other) => one - other)).toEqual(
      Array.from({ length: 50 }, (_, at) => before + 1 + at),
    );
  });

  it('are given back where what was to be called so is not made', async () => {
    const { quote } = await housePart('numbers');
    const before = countIn(await opened());
    const result = await inTransaction(async () => {
      const number = await nextNumber('quote', quote, '');
      return fail('invalid', { code: number });
    });
    expect(result).toMatchObject({ ok: false });
    expect(countIn(await opened())).toBe(before + 1);
  });

  it('pass over what is taken under a pattern of before, and begin anew each year where that is said', async () => {
    const view = await seeHouse();
    const yearly = { pattern: 'N{yyyy}-{000}', yearly: true };
    const now = await kept(changeNumbers(as(ines), { ...view.numbers, quote: yearly }));
    const year = new Date().getFullYear();
    expect(now.next.quote).toBe(`N${String(year)}-001`);
    expect(await opened()).toBe(`N${String(year)}-001`);
    // As if somebody had counted so before.
    const [row] = await connected().records.quotes.findAll({ where: { number: await opened() } });
    await row?.update({ number: `N${String(year)}-003` });
    expect(await opened()).toBe(`N${String(year)}-004`);
  });
});
