/**
 * How often signing in may be tried. Tries count for the account together with where they come from, so that
 * nobody can lock another out; for an address over all accounts; and, from devices that nobody knows, for the
 * account as a whole, which only slows them down.
 */
import { QueryTypes } from 'sequelize';
import { connected } from '../../data';

/** Tries that failed count for so many minutes. */
const minutes = 10;
/**
 * Failed tries of one account from one place before each further one has to wait, twice as long as the one
 * before.
 */
const free = 5;
/** From one address, over all accounts. */
const mostOfAddress = 50;
/** Of one account, from everywhere but known devices: more are tried one after another, with a pause. */
const mostOfAccount = 100;
const slowPause = 10;

/** Where a try comes from: a device that is known, which has limits of its own, or an address. */
export type From = { device: string } | { address: string };

const placeOf = (from: From): string =>
  'device' in from ? `device ${from.device}` : networkOf(from.address);

/** Of an IPv6 address its network: whoever has one address of it has them all. */
export function networkOf(address: string): string {
  const plain = address.replace(/^::ffff:/, '');
  if (!plain.includes(':')) return plain;
  const [head = '', tail] = plain.split('%')[0]?.split('::') ?? [];
  const groups = head === '' ? [] : head.split(':');
  const after = tail === undefined || tail === '' ? [] : tail.split(':');
  const zeros =
    tail === undefined ? [] : Array<string>(Math.max(0, 8 - groups.length - after.length)).fill('0');
  return `${[...groups, ...zeros, ...after]
    .slice(0, 4)
    .map((group) => group.replace(/^0+(?=.)/, '').toLowerCase())
    .join(':')}::/64`;
}

interface Tries {
  pair: number;
  all: number;
  account: number;
  /** Seconds since the last one. */
  pairAgo: number;
  allAgo: number;
  accountAgo: number;
}

/** Seconds to wait before another try; 0 where it may be made. */
export function waitFor({ pair, all, account, pairAgo, allAgo, accountAgo }: Tries, known: boolean): number {
  const rest = (pause: number, ago: number) => Math.ceil(Math.max(0, pause - ago));
  const ofPair = pair < free ? 0 : rest(Math.min(2 ** (pair - free + 1), minutes * 60), pairAgo);
  if (known) return ofPair;
  return Math.max(
    ofPair,
    all < mostOfAddress ? 0 : rest(Math.min(2 ** (all - mostOfAddress + 3), minutes * 60), allAgo),
    account < mostOfAccount ? 0 : rest(slowPause, accountAgo),
  );
}

/**
 * Counts a try and lets it be made, giving 0; or gives the seconds to wait, and counts nothing. Of tries at
 * the same moment one is counted after another.
 */
export function admit(account: string, from: From): Promise<number> {
  const { transaction, sequelize, records } = connected();
  const place = placeOf(from);
  return transaction(async () => {
    for (const name of [`account ${account}`, `place ${place}`].sort())
      await sequelize.query('select pg_advisory_xact_lock(hashtextextended($1, 7420618))', { bind: [name] });
    const [tries] = await sequelize.query<Record<keyof Tries, string>>(
      `select count(*) filter (where account = $1 and address = $2) as pair, count(*) filter (where address = $2) as "all", count(*) filter (where account = $1 and address not like 'device %') as account,
        extract(epoch from now() - max(at) filter (where account = $1 and address = $2)) as "pairAgo", extract(epoch from now() - max(at) filter (where address = $2)) as "allAgo",
        extract(epoch from now() - max(at) filter (where account = $1 and address not like 'device %')) as "accountAgo"
       from sign_in_attempts where (account = $1 or address = $2) and at > now() - $3 * interval '1 minute'`,
      { bind: [account, place, minutes], type: QueryTypes.SELECT },
    );
    const read = (name: keyof Tries): number => Number(tries?.[name] ?? 0);
    const wait = waitFor(
      {
        pair: read('pair'),
        all: read('all'),
        account: read('account'),
        pairAgo: read('pairAgo'),
        allAgo: read('allAgo'),
        accountAgo: read('accountAgo'),
      },
      'device' in from,
    );
    if (wait === 0) await records.attempts.create({ account, address: place });
    return wait;
  });
}

/** Forgets the tries of an account from a place, since one of them was right. */
export async function forgive(account: string, from: From): Promise<void> {
  await connected().records.attempts.destroy({ where: { account, address: placeOf(from) } });
}

/** Takes away what counts no longer. */
export async function dropOldTries(): Promise<void> {
  await connected().sequelize.query(
    `delete from sign_in_attempts where at < now() - ${String(minutes)} * interval '1 minute'`,
  );
}
