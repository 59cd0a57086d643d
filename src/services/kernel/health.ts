import { connected, isUnavailable } from '../../data';
import { NotDone, TaskFailure } from './threads/pool';

/**
 * Whether something failed for want of room or time, not because of what was asked: it may work a moment
 * later.
 */
export const isBusy = (thrown: unknown): boolean =>
  isUnavailable(thrown) ||
  thrown instanceof NotDone ||
  (thrown instanceof TaskFailure && thrown.name === 'OutOfBudget');

/** Whether the database answers. */
export async function ready(): Promise<boolean> {
  try {
    await connected().sequelize.query('select 1');
    return true;
  } catch {
    return false;
  }
}
