/** Takes away what is over, now and then, while the server runs. */
import { connected } from '../../data';
import { log } from './log';
import { dropOld } from '../access/sessions';
import { dropOldTries } from '../access/sign-in-limits';

const every = 10 * 60 * 1000;
let begun = false;

/** Takes away what is over: sessions, tries to sign in, keys of requests. */
export async function keepHouse(): Promise<void> {
  await dropOld();
  await dropOldTries();
  await connected().sequelize.query("delete from answers where at < now() - interval '1 day'");
}

/** Begins with it, once; nothing waits for it. */
export function startHousekeeping(): void {
  if (begun) return;
  begun = true;
  setInterval(() => void keepHouse().catch((bug: unknown) => log.warn({ bug })), every).unref();
}
