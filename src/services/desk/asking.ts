/** What is asked of a person: by newer models and prices, by customers, by mails that did not arrive; read at once. */
import { QueryTypes } from 'sequelize';
import { dueIn } from '../../core/colleagues';
import type { Answered, DeskFollowUp, DeskRequest, DeskView, Repriced, Undelivered } from '../../contract';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { followUpsSql, requestsSql } from '../colleagues/on-desk';
import { today } from '../kernel/clock';
import { answeredSql, undeliveredSql } from './from-outside';
import { repricedSql } from '../what-if/repriced';
import { toDecideSql, toldToDecide, type DecideRow } from '../workshop/to-decide';

/** Rows of a query as one value. */
const rowsOf = (sql: string): string => `(select coalesce(json_agg(t), '[]') from (${sql}) t)`;

/** What was read. */
interface Read {
  decide: DecideRow[];
  repriced: Repriced[];
  answered: Answered[];
  undelivered: Undelivered[];
  colleagues: DeskRequest[];
  followUps: Omit<DeskFollowUp, 'due'>[];
}

/** All of it; a dealer is not told what the house plans with its prices. */
export async function askedOfPerson(
  actor: Actor,
): Promise<
  Pick<DeskView, 'toDecide' | 'repriced' | 'answered' | 'undelivered' | 'colleagues' | 'followUps'>
> {
  const now = today();
  const [read] = await connected().sequelize.query<Read>(
    `select ${rowsOf(toDecideSql)} as decide, ${rowsOf(repricedSql)} as repriced,
       ${rowsOf(answeredSql)} as answered, ${rowsOf(undeliveredSql)} as undelivered, ${rowsOf(requestsSql)} as colleagues,
       ${rowsOf(followUpsSql)} as "followUps"`,
    { bind: [actor.id, now], type: QueryTypes.SELECT },
  );
  return {
    toDecide: await toldToDecide(actor, read?.decide ?? []),
    repriced: actor.role === 'dealer' ? [] : (read?.repriced ?? []),
    answered: read?.answered ?? [],
    undelivered: read?.undelivered ?? [],
    colleagues: read?.colleagues ?? [],
    followUps: (read?.followUps ?? []).map((each) => ({ ...each, due: dueIn(each.day, now) })),
  };
}
