/**
 * Links by which somebody sets their password: each works once and for three days, and a new one takes the
 * place of the one before. Only the hash of its token is kept.
 */
import { randomBytes } from 'node:crypto';
import { connected, type PasswordLinkRow, type UserRow } from '../../data';
import type { LinkView, PasswordInput } from '../../contract';
import { done, fail, type Result } from '../kernel/failure';
import { inTransaction, record } from '../kernel/unit-of-work';
import { actorOf, hashPassword, hashToken, signOutEverywhere } from './sessions';

const lifetime = 3 * 24 * 60 * 60 * 1000;

/** Where the password is set; the token stands behind the hash, where no server on the way reads it. */
const pathOf = (token: string): string => `/password#${token}`;

/** Makes one; those made before are gone. */
export async function makeLink(userId: string): Promise<{ link: string; until: string }> {
  const { passwordLinks } = connected().records;
  await passwordLinks.destroy({ where: { userId, usedAt: null } });
  const token = randomBytes(32).toString('base64url');
  const expiresAt = new Date(Date.now() + lifetime);
  await passwordLinks.create({ tokenHash: hashToken(token), userId, expiresAt, usedAt: null });
  return { link: pathOf(token), until: expiresAt.toISOString() };
}

/** The link of a token that still works, and whose it is. */
async function open(
  token: string,
  lock: boolean,
): Promise<
  Result<{ row: PasswordLinkRow & { update: (to: { usedAt: Date }) => Promise<unknown> }; user: UserRow }>
> {
  const { passwordLinks, users } = connected().records;
  const row = await passwordLinks.findByPk(hashToken(token), lock ? { lock: true } : {});
  const user = row && (await users.findByPk(row.userId));
  if (!row || !user || user.asideAt) return fail('missing', { code: 'password.unknownLink' });
  if (row.usedAt) return fail('conflict', { code: 'password.usedLink' });
  if (row.expiresAt < new Date()) return fail('conflict', { code: 'password.oldLink' });
  return done({ row, user });
}

/** Whose password a link sets. */
export async function seeLink(token: string): Promise<Result<LinkView>> {
  const found = await open(token, false);
  if (!found.ok) return found;
  const { name, email, language } = found.value.user;
  return done({ name, email, language: language === 'de' ? 'de' : 'en' });
}

/** Sets the password; of two at once one comes too late. Whoever was signed in with the one before is out. */
export const setPassword = ({ token, password }: PasswordInput): Promise<Result<null>> =>
  inTransaction(async () => {
    const found = await open(token, true);
    if (!found.ok) return found;
    const { row, user } = found.value;
    const plain = password.trim().toLowerCase();
    if (plain === user.email || plain === user.name.toLowerCase())
      return fail('invalid', { code: 'password.known', field: 'password' });
    await connected().records.users.update(
      { passwordHash: await hashPassword(password) },
      { where: { id: user.id } },
    );
    await row.update({ usedAt: new Date() });
    await signOutEverywhere(user.id);
    await record(actorOf(user), 'person.password', user.email, {});
    return done(null);
  });
