/** Signing in and out. Passwords are kept as scrypt hashes, sessions as hashes of their tokens. */
import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import { Op } from 'sequelize';
import { connected, type UserRow } from '../data';
import type { Actor } from './actor';
import { done, fail, type Result } from './failure';

const derive = promisify<string, Buffer, number, Buffer>(scrypt);
const lifetime = 12 * 60 * 60 * 1000;
const window = 10 * 60 * 1000;
const mostAttempts = 8;

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

/** Checks e-mail and password; gives a token for the cookie. Too many failures for one e-mail are refused for a while. */
export async function signIn(email: string, password: string): Promise<Result<{ token: string; actor: Actor }>> {
  const { users, sessions, attempts } = connected().records;
  const address = email.trim().toLowerCase();
  const failures = await attempts.count({ where: { email: address, at: { [Op.gt]: new Date(Date.now() - window) } } });
  if (failures >= mostAttempts) return fail('tooMany', { code: 'signIn.tooMany' });
  const user = await users.findOne({ where: { email: address } });
  const right = await matches(password, user?.passwordHash ?? nobody);
  if (!user || !right) {
    await attempts.create({ email: address });
    return fail('signedOut', { code: 'signIn.wrong', field: 'password' });
  }
  const token = randomBytes(32).toString('base64url');
  await attempts.destroy({ where: { email: address } });
  await sessions.destroy({ where: { expiresAt: { [Op.lt]: new Date() } } });
  await sessions.create({ tokenHash: hashToken(token), userId: user.id, expiresAt: new Date(Date.now() + lifetime) });
  return done({ token, actor: actorOf(user) });
}

export async function signOut(token: string): Promise<void> {
  await connected().records.sessions.destroy({ where: { tokenHash: hashToken(token) } });
}

/** The person behind a session token; null where it is unknown or over. */
export async function whoIs(token: string): Promise<Actor | null> {
  const { users, sessions } = connected().records;
  const session = await sessions.findOne({ where: { tokenHash: hashToken(token), expiresAt: { [Op.gt]: new Date() } } });
  const user = session && (await users.findByPk(session.userId));
  return user ? actorOf(user) : null;
}

const hashToken = (token: string): string => createHash('sha256').update(token).digest('hex');

export function actorOf({ id, name, email, role, language, dealerId, preferences }: UserRow): Actor {
  return { id, name, email, role, language: language === 'de' ? 'de' : 'en', dealerId, preferences };
}
