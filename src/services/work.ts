import { connected } from '../data';
import type { Actor } from './actor';
import type { Result } from './failure';

class RolledBack extends Error {
  constructor(readonly result: Result<unknown>) {
    super('rolled back');
  }
}

/** Runs a use case in one transaction: a refusal leaves nothing half done, exactly as a bug would. */
export async function inTransaction<T>(work: () => Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await connected().transaction(async () => {
      const result = await work();
      if (!result.ok) throw new RolledBack(result);
      return result;
    });
  } catch (thrown) {
    if (thrown instanceof RolledBack) return thrown.result as Result<T>;
    throw thrown;
  }
}

/** Runs a use case to see what would come of it; nothing of it stays. */
export async function tryOut<T>(work: () => Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await connected().transaction(async () => {
      throw new RolledBack(await work());
    });
  } catch (thrown) {
    if (thrown instanceof RolledBack) return thrown.result as Result<T>;
    throw thrown;
  }
}

/** Writes who did what to which thing. */
export async function record(actor: Actor | null, action: string, subject: string, details: Record<string, unknown>): Promise<void> {
  await connected().records.audit.create({ userId: actor?.id ?? null, action, subject, details });
}
