import { QueryTypes } from 'sequelize';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { now } from './clock';
import { done, fail, type Result } from './failure';

class RolledBack extends Error {
  constructor(readonly result: Result<unknown>) {
    super('rolled back');
  }
}

async function rollingBack<T>(work: () => Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await connected().transaction(work);
  } catch (thrown) {
    if (thrown instanceof RolledBack) return thrown.result as Result<T>;
    throw thrown;
  }
}

/**
 * Runs a use case in one transaction: a refusal leaves nothing half done, exactly as a bug would. Within
 * another unit of work it is a part of that one, which ends as its own result says.
 */
export async function inTransaction<T>(work: () => Promise<Result<T>>): Promise<Result<T>> {
  if (connected().within()) return work();
  return rollingBack(async () => {
    const result = await work();
    if (!result.ok) throw new RolledBack(result);
    return result;
  });
}

/** Runs a use case to see what would come of it; nothing of it stays. */
export async function tryOut<T>(work: () => Promise<Result<T>>): Promise<Result<T>> {
  return rollingBack(async () => {
    throw new RolledBack(await work());
  });
}

/** A request that may come again: who sent it, the key they gave it, and a digest of what it asks. */
export interface Repeatable {
  userId: string;
  key: string;
  asked: string;
}

/**
 * Does something once, however often it is asked for under the same key: whoever asks again, or at the same
 * moment, gets the answer of the one time. The answer is kept in the same transaction as what was done. A
 * refusal did nothing, and is worked out anew.
 */
export async function once<T>(
  { userId, key, asked }: Repeatable,
  work: () => Promise<Result<T>>,
): Promise<Result<T>> {
  return inTransaction(async () => {
    const { sequelize } = connected();
    // Whoever comes second waits here for the end of the first.
    const claimed = await sequelize.query(
      'insert into answers (user_id, key, asked) values ($1, $2, $3) on conflict do nothing returning key',
      { bind: [userId, key, asked], type: QueryTypes.SELECT },
    );
    if (claimed.length === 0) {
      const [kept] = await sequelize.query<{ asked: string; answer: T }>(
        'select asked, answer from answers where user_id = $1 and key = $2',
        { bind: [userId, key], type: QueryTypes.SELECT },
      );
      return kept?.asked === asked ? done(kept.answer) : fail('invalid', { code: 'request.keyReused' });
    }
    const result = await work();
    if (result.ok)
      await sequelize.query('update answers set answer = $3 where user_id = $1 and key = $2', {
        bind: [userId, key, JSON.stringify(result.value ?? null)],
      });
    return result;
  });
}

/** Writes who did what to which thing. */
export async function record(
  actor: Actor | null,
  action: string,
  subject: string,
  details: Record<string, unknown>,
): Promise<void> {
  await connected().records.audit.create({ at: now(), userId: actor?.id ?? null, action, subject, details });
}
