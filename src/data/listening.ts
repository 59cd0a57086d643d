/** Word from one instance to all, through the database: what is told in a transaction is heard once it holds. */
import pg from 'pg';
import { QueryTypes } from 'sequelize';
import { connected } from './connected';

/** Where nobody hears it, so long is waited before the line is tried again, in milliseconds. */
const pauses = { first: 250, most: 10_000 };

/** Tells all instances; within a unit of work it is heard only if that succeeds. The text has 7,000 bytes at most. */
export async function tellAll(channel: string, text: string): Promise<void> {
  await connected().sequelize.query('select pg_notify($1, $2)', {
    bind: [channel, text],
    type: QueryTypes.SELECT,
  });
}

/** Who hears. */
export interface Listener {
  onWord: (text: string) => void;
  /** The line was down: something may have been missed. */
  onGap: () => void;
}

/**
 * Hears what is told on a channel, on a connection of its own beside the pool, and comes back where that is lost. Gives
 * what ends it.
 */
export function listen(channel: string, { onWord, onGap }: Listener): () => Promise<void> {
  let client: pg.Client | null = null;
  let over = false;
  let pause = pauses.first;
  let timer: NodeJS.Timeout | undefined;
  const again = (lost: pg.Client): void => {
    if (client !== lost) return;
    client = null;
    void lost.end().catch(() => undefined);
    if (over) return;
    timer = setTimeout(() => void open(true), pause).unref();
    pause = Math.min(pauses.most, pause * 2);
  };
  const open = async (back: boolean): Promise<void> => {
    const made = new pg.Client({
      connectionString: process.env.DATABASE_URL,
      application_name: 'iunctura live',
    });
    client = made;
    made.on('error', () => again(made));
    made.on('end', () => again(made));
    made.on('notification', ({ payload }) => onWord(payload ?? ''));
    try {
      await made.connect();
      await made.query(`listen ${pg.escapeIdentifier(channel)}`);
      pause = pauses.first;
      if (back) onGap();
    } catch {
      again(made);
    }
  };
  void open(false);
  return async () => {
    over = true;
    clearTimeout(timer);
    const last = client;
    client = null;
    await last?.end().catch(() => undefined);
  };
}
