/** People: let in by a link that works once, put aside but never the last, stood in for without a circle. */
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { NewPersonInput, PersonView, PeopleView, QuoteView } from '../../contract';
import { connected } from '../../data';
import { today, inDays } from '../kernel/clock';
import type { Result } from '../kernel/failure';
import { openDemo, personOf } from '../kernel/testing';
import { answerSignOff } from '../quotes/sign-off/sign-offs';
import { askedOf } from '../quotes/sign-off/standing';
import { seeQuote } from '../quotes/quotes';
import { reference } from '../settings/reference-data';
import type { Actor } from './actor';
import { inPlaceOf } from './deputies';
import { changePerson, linkFor, makePerson, putAside, seePeople, setDeputies } from './people';
import { seeLink, setPassword } from './password-links';
import { signIn, whoIs } from './sessions';

let ines: Actor, mara: Actor, joss: Actor, tobias: Actor, hedda: Actor;
beforeAll(async () => {
  await openDemo('people');
  [ines, mara, joss, tobias, hedda] = (await Promise.all(
    ['ines', 'mara', 'joss', 'tobias', 'hedda'].map((who) => personOf(`${who}@harrowmoor.example`)),
  )) as [Actor, Actor, Actor, Actor, Actor];
});
afterAll(() => connected().close());
beforeEach(async () => {
  await connected().records.deputies.destroy({ where: {} });
});

const value = async <T>(result: Promise<Result<T>>): Promise<T> => {
  const answer = await result;
  if (!answer.ok) throw new Error(JSON.stringify(answer.failures));
  return answer.value;
};
const codeOf = async (result: Promise<Result<unknown>>): Promise<string> => {
  const answer = await result;
  return answer.ok ? 'done' : (answer.failures[0]?.code ?? '');
};
const seen = async ({ id }: Pick<Actor, 'id'>): Promise<PersonView> => {
  const person = (await seePeople()).people.find((each) => each.id === id);
  if (!person) throw new Error('not there');
  return person;
};
const inOf = (email: string, password: string, address = '192.0.2.7') =>
  signIn({ email, password, address }) as Promise<Result<{ token: string }>>;
const tokenIn = (link: string): string => link.slice(link.indexOf('#') + 1);
const newPerson = (email: string, more: Partial<NewPersonInput> = {}): NewPersonInput => ({
  name: 'Nell Ashby',
  email,
  role: 'engineer',
  language: 'en',
  dealer: null,
  ...more,
});
const password = 'four plain words here';

describe('a link', () => {
  it('lets somebody new set a password once; used again it is refused', async () => {
    const made = await value(makePerson(ines, newPerson('nell@harrowmoor.example')));
    const token = tokenIn(made.link);
    expect(await codeOf(inOf('nell@harrowmoor.example', password))).toBe('signIn.wrong');
    expect(await value(seeLink(token))).toEqual({
      name: 'Nell Ashby',
      email: 'nell@harrowmoor.example',
      language: 'en',
    });
    expect(await codeOf(setPassword({ token, password: 'Nell@harrowmoor.example' }))).toBe('password.known');
    await value(setPassword({ token, password }));
    await value(inOf('nell@harrowmoor.example', password));
    expect(await codeOf(setPassword({ token, password: 'another one entirely' }))).toBe('password.usedLink');
    expect(await codeOf(seeLink(token))).toBe('password.usedLink');
    await value(inOf('nell@harrowmoor.example', password));
  });

  it('is used by one of two who come at once', async () => {
    const { link } = await value(linkFor(ines, joss.id));
    const both = await Promise.all(
      ['first of the two', 'second of the two'].map((each) =>
        codeOf(setPassword({ token: tokenIn(link), password: each })),
      ),
    );
    expect(both.sort()).toEqual(['done', 'password.usedLink']);
  });

  it('is no longer known once there is a newer one, and ends by itself', async () => {
    const [first, second] = [await value(linkFor(ines, joss.id)), await value(linkFor(ines, joss.id))];
    expect(await codeOf(seeLink(tokenIn(first.link)))).toBe('password.unknownLink');
    await connected().sequelize.query(
      "update password_links set expires_at = now() - interval '1 second' where used_at is null",
    );
    expect(await codeOf(setPassword({ token: tokenIn(second.link), password }))).toBe('password.oldLink');
    expect(await codeOf(seeLink('made up'))).toBe('password.unknownLink');
  });

  it('leaves no session of the password before, whoever signs in with that at the same moment', async () => {
    const first = await value(linkFor(ines, joss.id));
    await value(setPassword({ token: tokenIn(first.link), password }));
    const { link } = await value(linkFor(ines, joss.id));
    const [, ...tries] = await Promise.all([
      setPassword({ token: tokenIn(link), password: 'quite another one' }),
      // From places of their own: those that come too late fail, and would make others wait.
      ...Array.from({ length: 8 }, (_, at) => inOf(joss.email, password, `192.0.2.${String(100 + at)}`)),
    ]);
    for (const each of tries) if (each.ok) expect(await whoIs(each.value.token)).toBeNull();
  });

  it('ends the sessions of whoever was signed in with the password before; its token is kept nowhere', async () => {
    const { link } = await value(linkFor(ines, joss.id));
    await value(setPassword({ token: tokenIn(link), password }));
    const { token } = await value(inOf(joss.email, password));
    expect(await whoIs(token)).not.toBeNull();
    const next = await value(linkFor(ines, joss.id));
    const kept = JSON.stringify([
      await connected().records.passwordLinks.findAll({ raw: true }),
      await connected().records.audit.findAll({ raw: true }),
    ]);
    expect(kept).not.toContain(tokenIn(next.link));
    await value(setPassword({ token: tokenIn(next.link), password }));
    expect(await whoIs(token)).toBeNull();
  });
});

describe('somebody put aside', () => {
  it('is signed out at once, does not come in, has no link, and can be taken back', async () => {
    const { link } = await value(linkFor(ines, joss.id));
    await value(setPassword({ token: tokenIn(link), password }));
    const { token } = await value(inOf(joss.email, password));
    const waiting = await value(linkFor(ines, joss.id));
    const before = await seen(joss);
    await value(putAside(ines, joss.id, { version: before.version, aside: true }));
    expect(await whoIs(token)).toBeNull();
    expect(await codeOf(inOf(joss.email, password))).toBe('signIn.wrong');
    expect(await codeOf(seeLink(tokenIn(waiting.link)))).toBe('password.unknownLink');
    expect(await codeOf(linkFor(ines, joss.id))).toBe('people.isAside');
    const aside = await seen(joss);
    expect([aside.asideAt !== null, aside.drafts]).toEqual([true, before.drafts]);
    await value(putAside(ines, joss.id, { version: aside.version, aside: false }));
    await value(inOf(joss.email, password));
  });

  it('is never the last who runs the house, nor are they made something else, nor both at once', async () => {
    expect(await codeOf(putAside(ines, ines.id, { version: (await seen(ines)).version, aside: true }))).toBe(
      'people.lastAdministrator',
    );
    // One who has not set a password yet lets nobody in.
    const made = await value(
      makePerson(ines, newPerson('orla@harrowmoor.example', { name: 'Orla Finch', role: 'administrator' })),
    );
    expect(await codeOf(putAside(ines, ines.id, { version: (await seen(ines)).version, aside: true }))).toBe(
      'people.lastAdministrator',
    );
    await value(setPassword({ token: tokenIn(made.link), password }));
    const orla = await personOf('orla@harrowmoor.example');
    const [one, other] = [await seen(ines), await seen(orla)];
    const both = await Promise.all([
      codeOf(putAside(orla, ines.id, { version: one.version, aside: true })),
      codeOf(putAside(ines, orla.id, { version: other.version, aside: true })),
    ]);
    expect(both.sort()).toEqual(['done', 'people.lastAdministrator']);
    for (const each of [await seen(ines), await seen(orla)])
      if (each.asideAt !== null)
        await value(putAside(ines, each.id, { version: each.version, aside: false }));
    const change = { ...newPerson(orla.email, { name: orla.name }), version: (await seen(orla)).version };
    expect(await codeOf(changePerson(orla, orla.id, change))).toBe('people.ownRole');
    await value(changePerson(ines, orla.id, change));
    expect(await codeOf(changePerson(ines, orla.id, change))).toBe('people.stale');
    const own = await seen(ines);
    const engineer = { ...newPerson(ines.email, { name: ines.name }), version: own.version };
    expect(await codeOf(changePerson(hedda, ines.id, engineer))).toBe('people.lastAdministrator');
  });
});

describe('somebody is', () => {
  it('known by one e-mail, and of a dealer just where their role is', async () => {
    const { dealers } = await seePeople();
    const dealer = dealers[0]?.id ?? '';
    const cases: [Partial<NewPersonInput> & { email: string }, string][] = [
      [{ email: mara.email }, 'people.known'],
      [{ email: 'a@dunmere.example', role: 'dealer' }, 'people.needsDealer'],
      [{ email: 'a@dunmere.example', dealer }, 'people.noDealer'],
      [{ email: 'a@dunmere.example', role: 'dealer', dealer: mara.id }, 'people.needsDealer'],
      [{ email: 'a@dunmere.example', role: 'dealer', dealer }, 'done'],
    ];
    for (const [input, code] of cases)
      expect([input, await codeOf(makePerson(ines, newPerson(input.email, input)))]).toEqual([input, code]);
  });

  it('another from the next request on', async () => {
    const made = await value(makePerson(ines, newPerson('pim@harrowmoor.example', { name: 'Pim Oakes' })));
    await value(setPassword({ token: tokenIn(made.link), password }));
    const { token } = await value(inOf('pim@harrowmoor.example', password));
    const pim = await personOf('pim@harrowmoor.example');
    await value(
      changePerson(ines, pim.id, {
        ...newPerson('pim@harrowmoor.example', { name: 'Pim Oakes', role: 'modeller' }),
        version: (await seen(pim)).version,
      }),
    );
    expect((await whoIs(token))?.role).toBe('modeller');
  });
});

const standIn = async (
  who: Actor,
  deputies: { deputy: string; from: string; to: string }[],
): Promise<Result<PeopleView>> => setDeputies(ines, who.id, { version: (await seen(who)).version, deputies });
const now = (deputy: Actor) => ({ deputy: deputy.id, from: today(), to: inDays(7) });

describe('a deputy', () => {
  /** Mara's quote with a line far beyond her limit, asked of the managers. */
  async function asked(): Promise<QuoteView> {
    const [row] = await connected().records.signOffs.findAll({ where: { state: 'asked' }, raw: true });
    if (row) {
      const revision = await connected().records.revisions.findByPk(row.revisionId);
      return value(seeQuote(tobias, revision?.quoteId ?? ''));
    }
    throw new Error('the demo has nothing asked');
  }

  it('sees what is asked and answers it, within their days and no others, under both names', async () => {
    const quote = await asked();
    const owner = quote.owner === mara.name ? mara : joss;
    const other = owner === mara ? joss : mara;
    expect(await askedOf(other)).toEqual([]);
    const id = quote.signOff?.mayAnswer[0] ?? '';
    const answer = (who: Actor) =>
      answerSignOff(who, quote.id, id, {
        version: quote.version,
        answer: 'yes',
        comment: 'In place of Tobias.',
        counter: [],
      });
    expect(await codeOf(answer(other))).toBe('refused.permission');
    await value(standIn(tobias, [{ deputy: other.id, from: inDays(1), to: inDays(3) }]));
    expect(await codeOf(answer(other))).toBe('refused.permission');
    await value(standIn(tobias, [now(other), now(owner)]));
    expect((await askedOf(other)).map(({ quoteId, for: of }) => [quoteId, of])).toContainEqual([
      quote.id,
      tobias.name,
    ]);
    // Who asked for it does not answer it, whoever they stand in for.
    expect((await askedOf(owner)).map(({ quoteId }) => quoteId)).not.toContain(quote.id);
    expect(await codeOf(answer(owner))).toBe('signOff.notYours');
    expect((await value(seeQuote(other, quote.id))).signOff?.mayAnswer).toEqual([id]);
    const answered = await value(answer(other));
    expect(answered.signOff?.history.find((each) => each.id === id)).toMatchObject({
      state: 'yes',
      answeredBy: other.name,
      answeredFor: tobias.name,
    });
  });

  it('of a deputy stands in for both; of somebody put aside for nobody', async () => {
    await value(standIn(hedda, [now(tobias)]));
    await value(standIn(tobias, [now(joss)]));
    const names = async () =>
      inPlaceOf(await reference(), joss)
        .map(({ name }) => name)
        .sort();
    expect(await names()).toEqual([hedda.name, tobias.name]);
    await value(putAside(ines, tobias.id, { version: (await seen(tobias)).version, aside: true }));
    expect(await names()).toEqual([hedda.name]);
    await value(putAside(ines, tobias.id, { version: (await seen(tobias)).version, aside: false }));
  });

  it('is none in a circle, nor somebody who sees no costs, nor for who signs nothing', async () => {
    await value(standIn(hedda, [now(tobias)]));
    expect(await standIn(tobias, [now(hedda)])).toMatchObject({
      ok: false,
      failures: [{ code: 'people.circle', params: { day: today() } }],
    });
    expect(await codeOf(standIn(tobias, [now(tobias)]))).toBe('people.circle');
    expect(await codeOf(standIn(tobias, [{ deputy: hedda.id, from: inDays(8), to: inDays(9) }]))).toBe(
      'done',
    );
    const rhona = await personOf('rhona@dunmere.example');
    expect(await codeOf(standIn(tobias, [now(rhona)]))).toBe('people.notDeputy');
    expect(await codeOf(standIn(tobias, [now(ines)]))).toBe('people.notDeputy');
    expect(await codeOf(standIn(mara, [now(joss)]))).toBe('people.signsNothing');
    expect(await codeOf(standIn(tobias, [{ ...now(joss), deputy: rhona.dealerId ?? '' }]))).toBe(
      'people.missing',
    );
  });

  it('of two circles begun at once is in one at most', async () => {
    const [one, other] = [await seen(hedda), await seen(tobias)];
    const both = await Promise.all([
      codeOf(setDeputies(ines, hedda.id, { version: one.version, deputies: [now(tobias)] })),
      codeOf(setDeputies(ines, tobias.id, { version: other.version, deputies: [now(hedda)] })),
    ]);
    expect(both.sort()).toEqual(['done', 'people.circle']);
  });
});
