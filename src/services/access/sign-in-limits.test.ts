/** How often signing in may be tried, and that nobody locks another out. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connected } from '../../data';
import { signIn } from './sessions';
import { admit, dropOldTries, networkOf, waitFor } from './sign-in-limits';
import { openDemo } from '../kernel/testing';

const none = { pair: 0, all: 0, account: 0, pairAgo: 0, allAgo: 0, accountAgo: 0 };

describe('waiting', () => {
  it('begins after five tries from one place, and doubles with each', () => {
    expect(waitFor({ ...none, pair: 4 }, false)).toBe(0);
    expect([5, 6, 7, 8].map((pair) => waitFor({ ...none, pair }, false))).toEqual([2, 4, 8, 16]);
    expect(waitFor({ ...none, pair: 7, pairAgo: 5.5 }, false)).toBe(3);
    expect(waitFor({ ...none, pair: 7, pairAgo: 9 }, false)).toBe(0);
    expect(waitFor({ ...none, pair: 60 }, false)).toBe(600);
  });

  it('holds for an address over all accounts, and slows down an account that is tried from everywhere, but not from a known device', () => {
    expect(waitFor({ ...none, all: 49 }, false)).toBe(0);
    expect(waitFor({ ...none, all: 50 }, false)).toBe(8);
    expect(waitFor({ ...none, account: 1000, accountAgo: 3 }, false)).toBe(7);
    expect(waitFor({ ...none, all: 500, account: 1000 }, true)).toBe(0);
    expect(waitFor({ ...none, pair: 6, all: 500 }, true)).toBe(4);
  });

  it('takes a network of the sixth version for one place, and one of the fourth for itself', () => {
    expect(networkOf('2001:db8:1:2:3:4:5:6')).toBe(networkOf('2001:0db8:1:2::1'));
    expect(networkOf('2001:db8:1:2::1')).not.toBe(networkOf('2001:db8:1:3::1'));
    expect(networkOf('::1')).toBe('0:0:0:0::/64');
    expect(networkOf('::ffff:192.0.2.7')).toBe('192.0.2.7');
    expect(networkOf('192.0.2.7')).not.toBe(networkOf('192.0.2.8'));
  });
});

describe('signing in', () => {
  const mara = 'mara@harrowmoor.example';
  const right = { email: mara, password: 'harrowmoor' };
  beforeAll(() => openDemo('limits'));
  afterAll(() => connected().close());

  it('lets five of a hundred tries at the same moment be made', async () => {
    const waits = await Promise.all(
      Array.from({ length: 100 }, () => admit('somebody@harrowmoor.example', { address: '192.0.2.1' })),
    );
    expect(waits.filter((wait) => wait === 0)).toHaveLength(5);
  });

  it('is open to the owner while somebody else fails from another address', async () => {
    for (let tries = 0; tries < 8; tries++)
      await signIn({ email: mara, password: 'wrong', address: '192.0.2.2' });
    expect(await signIn({ ...right, address: '192.0.2.2' })).toMatchObject({
      ok: false,
      status: 'tooMany',
      failures: [{ code: 'signIn.tooMany' }],
    });
    expect(await signIn({ ...right, address: '192.0.2.3' })).toMatchObject({ ok: true });
  });

  it('works from a known device however often others failed, also from its own address; a device of another person is none', async () => {
    const first = await signIn({ ...right, address: '192.0.2.4' });
    if (!first.ok) throw new Error('not signed in');
    const { device } = first.value;
    await connected().sequelize.query(
      `insert into sign_in_attempts (account, address) select 'other' || n, '192.0.2.4' from generate_series(1, 60) n`,
    );
    await connected().sequelize.query(
      `insert into sign_in_attempts (account, address) select '${mara}', '198.51.100.' || (n % 200) from generate_series(1, 300) n`,
    );
    expect(await signIn({ ...right, address: '192.0.2.4' })).toMatchObject({ ok: false, status: 'tooMany' });
    expect(await signIn({ ...right, address: '192.0.2.4', device })).toMatchObject({
      ok: true,
      value: { device },
    });
    expect(
      await signIn({
        email: 'tobias@harrowmoor.example',
        password: 'harrowmoor',
        address: '192.0.2.4',
        device,
      }),
    ).toMatchObject({ ok: false, status: 'tooMany' });
  });

  it('forgets tries that are over', async () => {
    await connected().sequelize.query(`update sign_in_attempts set at = now() - interval '1 hour'`);
    await dropOldTries();
    expect(await connected().records.attempts.count()).toBe(0);
  });
});
