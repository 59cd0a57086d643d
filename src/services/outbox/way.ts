/** The way of a mail, step by step in the database: each step is made only from where the core lets it begin. */
import { QueryTypes } from 'sequelize';
import { mailEvents, type MailEvent, type Returned } from '../../core/sending';
import { connected, type JobProblem, type MailRow } from '../../data';
import { tell } from '../kernel/live';

/** What is written down with a step. */
export interface Step {
  /** Only where this is still the try that it belongs to. */
  attempt?: number;
  server?: string;
  refused?: readonly Returned[];
  problem?: JobProblem | null;
}

/**
 * Makes a step; null where the mail is not where it could be made, so that whoever comes late changes nothing. Gives the
 * try that is under way.
 */
export async function stepMail(
  id: string,
  event: MailEvent,
  { attempt, server, refused, problem }: Step = {},
): Promise<number | null> {
  const { from, to } = mailEvents[event];
  const [row] = await connected().sequelize.query<{ tries: number; quoteId: string | null; madeBy: string }>(
    `update mails set state = $2,
       tries = tries + case when $3 then 1 else 0 end,
       handed_at = case when $3 then now() else handed_at end,
       sent_at = case when $2 = 'sent' then now() end,
       server = coalesce($4, server), refused = coalesce($5::jsonb, refused), problem = $6::jsonb
     where id = $1 and state = any($7) and ($8::int is null or tries = $8)
     returning tries, quote_id as "quoteId", made_by as "madeBy"`,
    {
      bind: [
        id,
        to,
        event === 'begun',
        server ?? null,
        refused ? JSON.stringify(refused) : null,
        problem ? JSON.stringify(problem) : null,
        [...from],
        attempt ?? null,
      ],
      type: QueryTypes.SELECT,
    },
  );
  if (!row) return null;
  if (event !== 'begun') await tell([row.madeBy], { kind: 'mail', quote: row.quoteId });
  return row.tries;
}

/** Keeps the message, whole: from now on it is this one that goes, however often it is tried. */
export async function keepMessage(id: string, raw: Buffer, hash: string): Promise<boolean> {
  const [row] = await connected().sequelize.query<{ id: string }>(
    `update mails set raw = $2, hash = $3, state = 'waiting', problem = null where id = $1 and state = 'making' returning id`,
    { bind: [id, raw, hash], type: QueryTypes.SELECT },
  );
  return row !== undefined;
}

/** A mail as it stands. */
export const mailOf = (id: string): Promise<MailRow | null> =>
  connected().records.mails.findByPk(id, { raw: true });
