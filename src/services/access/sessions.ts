/**
 * Signing in and out. Passwords are kept as scrypt hashes, sessions and devices as hashes of their tokens.
 */
import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import { Op, QueryTypes } from 'sequelize';
import { elsewhere, writingIn, type Market } from '../../core/quotes';
import { connected, type UserRow } from '../../data';
import type { Actor } from './actor';
import { done, fail, type Result } from '../kernel/failure';
import { requestedBy } from '../kernel/request';
import { marketIn } from '../settings/house';
import { admit, forgive } from './sign-in-limits';

const derive = promisify<string, Buffer, number, Buffer>(scrypt);
const lifetime = 12 * 60 * 60 * 1000;

/** A password as it is kept: scrypt with a salt of its own. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  return `${salt.toString('hex')}:${(await derive(password, salt, 32)).toString('hex')}`;
}

async function matches(password: string, stored: string): Promise<boolean> {
  const [salt = '', hash = ''] = stored.split(':');
  const expected = Buffer.from(hash, 'hex');
  const given = await derive(password, Buffer.from(salt, 'hex'), 32);
  return expected.length === given.length && timingSafeEqual(given, expected);
}

/** Stands in for a stored hash, so that an unknown e-mail takes as long as a wrong password. */
const nobody = `${'0'.repeat(32)}:${'0'.repeat(64)}`;

/** Who wants in, from where and on which device. */
export interface SignInRequest {
  email: string;
  password: string;
  /** The network address it comes from. */
  address: string;
  /** The token of a device on which somebody has signed in before. */
  device?: string | undefined;
}

/** The person, and the tokens for the browser. */
export interface SignedIn {
  /** For the cookie of the session. */
  token: string;
  /** For the cookie by which this device is known next time. */
  device: string;
  actor: Actor;
}

/**
 * Checks e-mail and password. A try is counted before the password is looked at, so that tries at the same
 * moment are counted too.
 */
export async function signIn({ email, password, address, device }: SignInRequest): Promise<Result<SignedIn>> {
  const { users, devices } = connected().records;
  const account = email.trim().toLowerCase();
  const user = await users.findOne({ where: { email: account } });
  const known =
    device !== undefined &&
    user !== null &&
    (await devices.count({ where: { tokenHash: hashToken(device), userId: user.id } })) > 0;
  const from = known ? { device: hashToken(device) } : { address };
  const wait = await admit(account, from);
  if (wait > 0)
    return fail('tooMany', { code: 'signIn.tooMany', params: { seconds: wait }, retryAfter: wait });
  // Whoever is put aside, or has set no password yet, is told the same as who types a wrong one.
  const open = user !== null && !user.asideAt && user.passwordHash !== null;
  const right = await matches(password, user?.passwordHash ?? nobody);
  if (!open || !right) return fail('signedOut', { code: 'signIn.wrong', field: 'password' });
  await forgive(account, from);
  const token = randomBytes(32).toString('base64url');
  if (!(await begin(token, user))) return fail('signedOut', { code: 'signIn.wrong', field: 'password' });
  const remembered = known ? device : randomBytes(32).toString('base64url');
  await devices.upsert({ tokenHash: hashToken(remembered), userId: user.id, seenAt: new Date() });
  return done({ token, device: remembered, actor: actorOf(user) });
}

/**
 * Begins a session, unless the password that was right a moment ago has been set anew, or the person put aside,
 * meanwhile: whoever does that ends all sessions, and must not miss one that is just being made.
 */
async function begin(token: string, { id, passwordHash }: UserRow): Promise<boolean> {
  const made = await connected().sequelize.query(
    `insert into sessions (token_hash, user_id, expires_at)
     select $1, id, $2 from users where id = $3 and password_hash = $4 and aside_at is null for share
     returning user_id`,
    { bind: [hashToken(token), new Date(Date.now() + lifetime), id, passwordHash], type: QueryTypes.SELECT },
  );
  return made.length > 0;
}

/** Ends a session; a token that nobody has is no failure. */
export async function signOut(token: string): Promise<void> {
  await connected().records.sessions.destroy({ where: { tokenHash: hashToken(token) } });
}

/** Ends all sessions of somebody. */
export async function signOutEverywhere(userId: string): Promise<void> {
  await connected().records.sessions.destroy({ where: { userId } });
}

/** Takes away sessions that are over, links that ended unused a month ago, and devices not seen for half a year. */
export async function dropOld(): Promise<void> {
  const { sessions, devices, passwordLinks } = connected().records;
  await sessions.destroy({ where: { expiresAt: { [Op.lt]: new Date() } } });
  await passwordLinks.destroy({
    where: { usedAt: null, expiresAt: { [Op.lt]: new Date(Date.now() - 30 * 24 * 60 * 60 * 1000) } },
  });
  await devices.destroy({ where: { seenAt: { [Op.lt]: new Date(Date.now() - 180 * 24 * 60 * 60 * 1000) } } });
}

/**
 * The person behind a session token, of whom the request under way is told; null where the session is unknown
 * or over.
 */
export async function whoIs(token: string): Promise<Actor | null> {
  const [row] = await connected().sequelize.query<UserRow & { stamp: string; country: string | null }>(
    'select u.id, u.email, u.name, u.language, u.role, u.dealer_id as "dealerId", u.preferences, (select a.country from addresses a where a.customer_id = u.dealer_id order by a.kind desc, a.position limit 1) as country, (select stamp from reference_stamp) as stamp from sessions s join users u on u.id = s.user_id where s.token_hash = $1 and s.expires_at > now() and u.aside_at is null',
    { bind: [hashToken(token)], type: QueryTypes.SELECT },
  );
  if (!row) return null;
  requestedBy(row.id, row.stamp);
  return actorOf(row, await marketIn(row.country ?? ''));
}

/** How a token is kept. */
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex');

/** A person as services are told, with what is usual in the market of the house, or of their dealer. */
export function actorOf(
  { id, name, email, role, language, dealerId, preferences }: UserRow,
  market: Pick<Market, 'language' | 'units'> = elsewhere,
): Actor {
  return {
    id,
    name,
    email,
    role,
    language: writingIn(language, market),
    units: market.units,
    dealerId,
    preferences,
  };
}
