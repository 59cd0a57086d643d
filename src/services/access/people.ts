/** People of the house and its dealers: made, changed, put aside, stood in for. */
import { randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import {
  granted,
  type AsideInput,
  type ChangePersonInput,
  type DeputiesInput,
  type NewPersonInput,
  type PeopleView,
  type PeopleWithLink,
  type PersonView,
} from '../../contract';
import { circleIn } from '../../core/quotes';
import { connected, type DeputyRow, type Stored, type UserRow } from '../../data';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import type { Actor } from './actor';
import { makeLink } from './password-links';
import { signOutEverywhere } from './sessions';

/** All of them, by name, those put aside at the end; and the dealers for whom some sign in. */
export async function seePeople(): Promise<PeopleView> {
  const rows = await connected().sequelize.query<
    Omit<PersonView, 'dealer' | 'deputies'> & { dealerId: string | null; dealerName: string | null }
  >(
    `select u.id, u.version, u.name, u.email, u.role, trim(u.language) as language, u.aside_at as "asideAt",
       u.password_hash is not null as "hasPassword", u.dealer_id as "dealerId", c.name as "dealerName",
       (select max(expires_at) from password_links l
         where l.user_id = u.id and l.used_at is null and l.expires_at > now()) as "linkUntil",
       (select max(seen_at) from devices d where d.user_id = u.id) as "seenAt",
       (select count(*)::int from quotes q join quote_revisions r on r.quote_id = q.id
         where q.owner_id = u.id and r.state = 'draft') as drafts
     from users u left join customers c on c.id = u.dealer_id order by u.aside_at is not null, u.name, u.id`,
    { type: QueryTypes.SELECT },
  );
  const nameOf = new Map(rows.map(({ id, name }) => [id, name]));
  const deputies = await deputiesOf();
  const dealers = await connected().sequelize.query<{ id: string; name: string }>(
    "select id, name from customers where class = 'dealer' order by name, id",
    { type: QueryTypes.SELECT },
  );
  return {
    people: rows.map(({ dealerId, dealerName, ...row }) => ({
      ...row,
      asideAt: iso(row.asideAt),
      linkUntil: iso(row.linkUntil),
      seenAt: iso(row.seenAt),
      dealer: dealerId === null ? null : { id: dealerId, name: dealerName ?? '' },
      deputies: deputies
        .filter(({ userId }) => userId === row.id)
        .map(({ deputyId, starts, ends }) => ({
          deputy: deputyId,
          name: nameOf.get(deputyId) ?? '',
          from: starts,
          to: ends,
        })),
    })),
    dealers,
  };
}

/** A moment as the database gives it. */
const iso = (moment: string | Date | null): string | null =>
  moment === null ? null : new Date(moment).toISOString();

const deputiesOf = (): Promise<DeputyRow[]> =>
  connected().records.deputies.findAll({
    order: [
      ['starts', 'ASC'],
      ['id', 'ASC'],
    ],
    raw: true,
  });

/** Makes somebody, who sets their password by the link that comes with it. */
export const makePerson = (actor: Actor, input: NewPersonInput): Promise<Result<PeopleWithLink>> =>
  alone(async () => {
    const { dealer, ...person } = input;
    const wrong = await wrongWith(input, null);
    if (wrong) return wrong;
    const id = randomUUID();
    await connected().records.users.create({
      id,
      ...person,
      passwordHash: null,
      dealerId: dealer,
      quota: null,
      preferences: {},
    });
    await record(actor, 'person.made', person.email, { name: person.name, role: person.role });
    return withLink(id);
  });

/** Changes who somebody is. Nobody changes their own role: that takes another administrator. */
export const changePerson = (
  actor: Actor,
  id: string,
  { version, ...input }: ChangePersonInput,
): Promise<Result<PeopleView>> =>
  changing(id, version, async (row) => {
    const wrong = await wrongWith(input, id);
    if (wrong) return wrong;
    if (id === actor.id && input.role !== row.role)
      return fail('forbidden', { code: 'people.ownRole', field: 'role' });
    const left = input.role === 'administrator' ? null : await lastAdministrator(row);
    if (left) return left;
    const { dealer, ...person } = input;
    const from = { name: row.name, email: row.email, role: row.role, language: row.language.trim() };
    await row.update({ ...person, dealerId: dealer });
    await record(actor, 'person.changed', person.email, { from, to: person });
    return done(null);
  });

/** Puts somebody aside, or takes them back. What they did, and what is theirs, stays. */
export const putAside = (
  actor: Actor,
  id: string,
  { version, aside }: AsideInput,
): Promise<Result<PeopleView>> =>
  changing(id, version, async (row) => {
    if (aside === Boolean(row.asideAt)) return done(null);
    const left = aside ? await lastAdministrator(row) : null;
    if (left) return left;
    await row.update({ asideAt: aside ? new Date() : null });
    if (aside) {
      await signOutEverywhere(id);
      await connected().records.passwordLinks.destroy({ where: { userId: id, usedAt: null } });
    }
    await record(actor, aside ? 'person.aside' : 'person.back', row.email, {});
    return done(null);
  });

/** Says who stands in for somebody; all of them at once. */
export const setDeputies = (
  actor: Actor,
  id: string,
  { version, deputies }: DeputiesInput,
): Promise<Result<PeopleView>> =>
  changing(id, version, async (row) => {
    const { users, deputies: table } = connected().records;
    if (deputies.length > 0 && !granted[row.role].includes('sign'))
      return fail('invalid', { code: 'people.signsNothing' });
    const people = new Map((await users.findAll({ raw: true })).map((each) => [each.id, each]));
    for (const [at, { deputy }] of deputies.entries()) {
      const field = `deputies[${String(at)}].deputy`;
      const person = people.get(deputy);
      if (!person) return fail('missing', { code: 'people.missing', field });
      if (person.asideAt || !granted[person.role].includes('costs'))
        return fail('invalid', { code: 'people.notDeputy', params: { name: person.name }, field });
    }
    const own = deputies.map(({ deputy, from, to }) => ({ of: id, deputy, from, to }));
    const others = (await deputiesOf())
      .filter(({ userId }) => userId !== id)
      .map(({ userId, deputyId, starts, ends }) => ({
        of: userId,
        deputy: deputyId,
        from: starts,
        to: ends,
      }));
    const circle = circleIn([...others, ...own]);
    if (circle)
      return fail('invalid', {
        code: 'people.circle',
        params: {
          day: circle.day,
          who: [...circle.of, circle.of[0]].map((each) => people.get(each ?? '')?.name ?? '').join(' – '),
        },
        field: 'deputies',
      });
    await table.destroy({ where: { userId: id } });
    await table.bulkCreate(
      own.map(({ deputy, from, to }) => ({
        id: randomUUID(),
        userId: id,
        deputyId: deputy,
        starts: from,
        ends: to,
      })),
    );
    await record(actor, 'person.deputies', row.email, {
      deputies: own.map(({ deputy, from, to }) => `${people.get(deputy)?.name ?? ''} ${from} – ${to}`),
    });
    return done(null);
  });

/** Makes a link for somebody who is not put aside. */
export const linkFor = (actor: Actor, id: string): Promise<Result<PeopleWithLink>> =>
  alone(async () => {
    const row = isReference(id) ? await connected().records.users.findByPk(id) : null;
    if (!row) return fail('missing', { code: 'people.missing' });
    if (row.asideAt) return fail('conflict', { code: 'people.isAside', params: { name: row.name } });
    await record(actor, 'person.link', row.email, {});
    return withLink(id);
  });

async function withLink(id: string): Promise<Result<PeopleWithLink>> {
  const made = await makeLink(id);
  return done({ ...(await seePeople()), person: id, ...made });
}

/** One change of people at a time: who is the last, and who stands in for whom, is said by all of them together. */
const alone = <T>(work: () => Promise<Result<T>>): Promise<Result<T>> =>
  inTransaction(async () => {
    await connected().sequelize.query("select pg_advisory_xact_lock(hashtext('people'))");
    return work();
  });

/** Changes somebody, if nobody else did since they were seen. */
const changing = (
  id: string,
  version: number,
  change: (row: Stored<UserRow>) => Promise<Result<null>>,
): Promise<Result<PeopleView>> =>
  alone(async () => {
    const row = isReference(id) ? await connected().records.users.findByPk(id, { lock: true }) : null;
    if (!row) return fail('missing', { code: 'people.missing' });
    if (row.version !== version)
      return fail('conflict', { code: 'people.stale', params: { name: row.name } });
    const changed = await change(row);
    if (!changed.ok) return changed;
    await row.update({ version: version + 1 });
    return done(await seePeople());
  });

/** What is wrong with how somebody is to be: the e-mail of another, a dealer too many or too few. */
async function wrongWith(
  { email, role, dealer }: NewPersonInput,
  id: string | null,
): Promise<Result<never> | null> {
  const { users, customers } = connected().records;
  const same = await users.findOne({ where: { email } });
  if (same && same.id !== id)
    return fail('conflict', { code: 'people.known', params: { name: same.name }, field: 'email' });
  if ((role === 'dealer') !== (dealer !== null))
    return fail('invalid', {
      code: role === 'dealer' ? 'people.needsDealer' : 'people.noDealer',
      field: 'dealer',
    });
  if (dealer !== null && !(await customers.findOne({ where: { id: dealer, class: 'dealer' } })))
    return fail('missing', { code: 'people.needsDealer', field: 'dealer' });
  return null;
}

/** Refuses to lose the last one who runs the house: nobody else could let anybody in. */
async function lastAdministrator(row: UserRow): Promise<Result<never> | null> {
  if (!granted[row.role].includes('administer') || row.asideAt) return null;
  const others = (await connected().records.users.findAll({ raw: true })).filter(
    (each) =>
      each.id !== row.id &&
      granted[each.role].includes('administer') &&
      !each.asideAt &&
      each.passwordHash !== null,
  );
  return others.length > 0 ? null : fail('conflict', { code: 'people.lastAdministrator' });
}
