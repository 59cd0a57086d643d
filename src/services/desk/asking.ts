/** What newer models and prices ask of a person's open quotes, read at once. */
import { QueryTypes } from 'sequelize';
import type { DeskView, Repriced } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { repricedSql } from '../what-if/repriced';
import { toDecideSql, toldToDecide, type DecideRow } from '../workshop/to-decide';

/** Rows of a query as one value. */
const rowsOf = (sql: string): string => `(select coalesce(json_agg(t), '[]') from (${sql}) t)`;

/** Both; a dealer is not told what the house plans with its prices. */
export async function askedByNewer(actor: Actor): Promise<Pick<DeskView, 'toDecide' | 'repriced'>> {
  const [read] = await connected().sequelize.query<{ decide: DecideRow[]; repriced: Repriced[] }>(
    `select ${rowsOf(toDecideSql)} as decide, ${rowsOf(repricedSql)} as repriced`,
    { bind: [actor.id], type: QueryTypes.SELECT },
  );
  return {
    toDecide: await toldToDecide(actor, read?.decide ?? []),
    repriced: actor.role === 'dealer' ? [] : (read?.repriced ?? []),
  };
}
