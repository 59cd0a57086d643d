/** How each kind of terms is kept: its table, its rows as cells, and cells as a row. */
import type { ModelAttributes } from 'sequelize';
import { exact } from '../../core/exact';
import { readLevels, termKinds, writeLevels, type KeptTerm, type TermKindId } from '../../core/terms';
import { connected, type CustomerRow, type Table } from '../../data';

/** Cells by the fields of a kind. */
export type Cells = Record<string, string>;

/** A row with what every kind has. */
export interface AnyTermRow {
  id: string;
  version: number;
  validFrom?: string | null;
  validTo?: string | null;
  follows?: string | null;
}

/** What cells are translated by. */
export interface KeepingMeans {
  /** Numbers of customers by their ids, and the other way round. */
  numberOf: (id: string) => string;
  customerOf: (number: string) => string | null;
  decimalsOf: (currency: string) => number;
  today: string;
}

/** How rows of a kind are kept. */
export interface Keeping {
  table: () => Table<AnyTermRow>;
  /** Which rows of the table are of the kind. */
  where?: Record<string, unknown>;
  /** The column by which a row is found; `id` where it is not said. */
  by?: string;
  cellsOf: (row: never, means: KeepingMeans) => Cells;
  rowOf: (cells: Cells, means: KeepingMeans) => Record<string, unknown>;
}

const plain = (value: string | null | undefined): string =>
  value === null || value === undefined ? '' : exact(value).toString();
const maybe = (text: string | undefined): string | null => (text === undefined || text === '' ? null : text);
const namesOf = (name: Readonly<Record<string, string>>): Cells => ({ en: name.en ?? '', de: name.de ?? '' });
const nameFrom = ({ en = '', de = '' }: Cells): Record<string, string> => ({
  en,
  ...(de === '' ? {} : { de }),
});
const tableOf = (name: keyof ReturnType<typeof connected>['records']) => (): Table<AnyTermRow> =>
  connected().records[name] as unknown as Table<AnyTermRow>;
/** A row of a table as what it says. */
const said = <T>(make: (row: T, means: KeepingMeans) => Cells): Keeping['cellsOf'] => make;

type Rows = ReturnType<typeof connected>['records'];
type RowIn<K extends keyof Rows> = Rows[K] extends Table<infer T> ? T : never;

const grants = (kind: 'agreement' | 'promotion'): Keeping => ({
  table: tableOf('grants'),
  where: { kind },
  cellsOf: said<RowIn<'grants'>>((row, { numberOf }) => ({
    ...namesOf(row.name),
    customer: row.customerId === null ? '' : numberOf(row.customerId),
    class: row.class ?? '',
    family: row.family ?? '',
    sku: row.sku ?? '',
    rate: plain(row.rate),
    list: row.priceList ?? '',
    price: plain(row.price),
    ...(kind === 'agreement' ? { fixed: row.fixed ? '1' : '' } : {}),
  })),
  rowOf: (cells, { customerOf }) => ({
    kind,
    name: nameFrom(cells),
    customerId: cells.customer ? customerOf(cells.customer) : null,
    class: maybe(cells.class),
    family: maybe(cells.family),
    sku: maybe(cells.sku),
    rate: maybe(cells.rate),
    priceList: maybe(cells.list),
    price: maybe(cells.price),
    fixed: cells.fixed === '1',
  }),
});

/** By kind. */
export const keeping: Readonly<Record<TermKindId, Keeping>> = {
  agreements: grants('agreement'),
  promotions: grants('promotion'),
  quantityDiscounts: {
    table: tableOf('quantityDiscounts'),
    cellsOf: said<RowIn<'quantityDiscounts'>>((row) => ({
      ...namesOf(row.name),
      family: row.family ?? '',
      sku: row.sku ?? '',
      by: row.by,
      levels: writeLevels(row.levels),
    })),
    rowOf: (cells) => ({
      name: nameFrom(cells),
      family: maybe(cells.family),
      sku: maybe(cells.sku),
      by: cells.by,
      levels: readLevels(cells.levels ?? '') ?? [],
    }),
  },
  limits: {
    table: tableOf('limits'),
    cellsOf: said<RowIn<'limits'>>((row) => ({
      role: row.role,
      family: row.family ?? '',
      by: row.by,
      target: plain(row.target),
      limit: plain(row.limitAt),
      floor: plain(row.floor),
      signs: row.signs,
      above: row.above,
    })),
    rowOf: ({ limit, ...cells }) => ({ ...cells, family: maybe(cells.family), limitAt: limit }),
  },
  policies: {
    table: tableOf('policies'),
    cellsOf: said<RowIn<'policies'>>((row) => ({
      role: row.role,
      ...namesOf(row.name),
      condition: row.condition,
      signs: row.signs,
    })),
    rowOf: ({ role, condition, signs, ...cells }) => ({ role, name: nameFrom(cells), condition, signs }),
  },
  tax: {
    table: tableOf('taxRates'),
    cellsOf: said<RowIn<'taxRates'>>((row) => ({
      country: row.country,
      class: row.class ?? '',
      rate: plain(row.rate),
    })),
    rowOf: (cells) => ({ country: cells.country, class: maybe(cells.class), rate: cells.rate }),
  },
  freight: {
    table: tableOf('freightRates'),
    cellsOf: said<RowIn<'freightRates'>>((row) => ({
      list: row.priceList,
      country: row.country ?? '',
      freightBase: plain(row.base),
      perKg: plain(row.perKg),
      least: plain(row.least),
    })),
    rowOf: ({ list, country, freightBase, perKg, least }) => ({
      priceList: list,
      country: maybe(country),
      base: freightBase,
      perKg,
      least,
    }),
  },
  commission: {
    table: tableOf('commissionPlans'),
    cellsOf: said<RowIn<'commissionPlans'>>((row) => ({
      role: row.role,
      base: plain(row.baseRate),
      higher: plain(row.higherRate),
    })),
    rowOf: ({ role, base, higher }) => ({ role, baseRate: base, higherRate: higher }),
  },
  workCentres: {
    table: tableOf('workCentres'),
    cellsOf: said<RowIn<'workCentres'>>((row) => ({
      code: row.code,
      ...namesOf(row.name),
      rate: plain(row.rate),
    })),
    rowOf: ({ code, rate, ...cells }) => ({ code, name: nameFrom(cells), rate }),
  },
  customers: {
    table: tableOf('customers'),
    cellsOf: said<CustomerRow>((row) => ({
      number: row.number,
      name: row.name,
      class: row.class,
      list: row.priceList,
      region: row.region,
      language: row.language.trim(),
      paymentDays: String(row.paymentDays),
    })),
    rowOf: ({ list, paymentDays, ...cells }) => ({
      ...cells,
      priceList: list,
      paymentDays: Number(paymentDays),
    }),
  },
  lists: {
    table: tableOf('priceLists'),
    by: 'code',
    cellsOf: said<RowIn<'priceLists'>>((row) => ({
      code: row.code,
      ...namesOf(row.name),
      currency: row.currency.trim(),
      costRate: plain(row.costRate),
    })),
    rowOf: ({ code = '', currency = '', costRate, ...cells }, { decimalsOf, today }) => ({
      code: code.toUpperCase(),
      name: nameFrom(cells),
      currency,
      decimals: decimalsOf(currency),
      costRate,
      validFrom: today,
    }),
  },
};

/** A row of the database as the core knows it. */
export function termOf(
  kind: TermKindId,
  row: AnyTermRow,
  means: KeepingMeans,
): KeptTerm & { version: number } {
  const { by = 'id', cellsOf } = keeping[kind];
  const dated = termKinds[kind].dated;
  return {
    id: String((row as unknown as Record<string, unknown>)[by]),
    version: row.version,
    cells: cellsOf(row as never, means),
    from: dated ? (row.validFrom ?? null) : null,
    to: dated ? (row.validTo ?? null) : null,
    follows: row.follows ?? null,
  };
}

/** Whether rows of a kind remember what they follow. */
export const remembersFollowing = (kind: TermKindId): boolean =>
  'follows' in (keeping[kind].table().getAttributes() as ModelAttributes);
