/** Numbers of quotes, orders and work orders: none comes twice, and none is left out. */
import { QueryTypes } from 'sequelize';
import { byMarket, numberBy, type NumberRange } from '../../core/quotes';
import { connected } from '../../data';
import { today } from '../kernel/clock';

/** What has a count of its own, and the table in which its numbers stand. */
const tables = { quote: 'quotes', order: 'orders' } as const;
type Range = keyof typeof tables;

const yearNow = (): number => Number(today().slice(0, 4));
const counterYear = ({ yearly }: NumberRange): number => (yearly ? yearNow() : 0);

/** The name of a count: where the market stands in the numbers, each has its own. */
const counterName = (of: Range, range: NumberRange, market: string): string =>
  byMarket(range) ? `${of} ${market}` : of;

/**
 * The next number of a range for a market, part of the transaction of what is called so: where that is taken
 * back, so is the number. Whoever wants one at the same moment waits for its end. A number that is there
 * already, as under a pattern of before, is passed over.
 */
export async function nextNumber(of: Range, range: NumberRange, market: string): Promise<string> {
  const { sequelize } = connected();
  if (!connected().within()) throw new Error('a number is given only within a transaction');
  const year = counterYear(range);
  for (;;) {
    const [row] = await sequelize.query<{ count: string }>(
      `insert into number_counters (range, year, next) values ($1, $2, 2)
       on conflict (range, year) do update set next = number_counters.next + 1 returning next - 1 as count`,
      { bind: [counterName(of, range, market), year], type: QueryTypes.SELECT },
    );
    const number = numberBy(range.pattern, { year: yearNow(), count: Number(row?.count), market });
    const [taken] = await sequelize.query(`select 1 from ${tables[of]} where number = $1`, {
      bind: [number],
      type: QueryTypes.SELECT,
    });
    if (!taken) return number;
  }
}

/** What the next number would be, as far as it can be told beforehand. */
export async function nextOf(of: Range, range: NumberRange, market: string): Promise<string> {
  const [row] = await connected().sequelize.query<{ next: string }>(
    'select next from number_counters where range = $1 and year = $2',
    { bind: [counterName(of, range, market), counterYear(range)], type: QueryTypes.SELECT },
  );
  return numberBy(range.pattern, { year: yearNow(), count: Number(row?.next ?? 1), market });
}
