/** Threads: whose turn it is, what ends a job, and that one ended does not end the others. */
import { describe, expect, it } from 'vitest';
import { generatedModel, large } from '../../../core/engine/testing/generated-models';
import type { Need } from './message';
import { NotDone, Pool, TaskFailure } from './pool';

const model = generatedModel({ ...large, features: 120, options: 1_200, rules: 600 });
const document = JSON.stringify(model);
const provide = ({ kind }: Need): Promise<unknown> =>
  Promise.resolve(
    kind === 'model' ? document : { list: 'EUR', currency: 'EUR', decimals: 2, prices: {}, families: {} },
  );
const context = { date: '2026-11-28', values: {} };
const quick = { version: 'm', context, asked: [], decisions: [], passed: [] };
/** What each choice counts is far from what the others do, so that the best build is not soon proven. */
const weights = model.features.flatMap(({ id, most }, at) =>
  most === 1
    ? [
        {
          measure: `if ${id} = "o1" then ${String(3 + ((at * 7) % 11))} else if ${id} = "o2" then ${String(1 + ((at * 5) % 13))} else ${String(2 + (at % 9))}`,
          weight: '1',
        },
      ]
    : [],
);
/** Has no answer that is soon proven. */
const endless = {
  version: 'm',
  context,
  asked: [],
  tariff: 't',
  made: { decisions: [], special: [] },
  wish: { weights, bounds: [] },
};

describe('a pool', () => {
  it('gets what a thread wants, and keeps it there', async () => {
    const pool = new Pool({ file: 'engines', deadline: 20_000, memory: 500 });
    const asked: Need[] = [];
    const counting = (need: Need) => {
      asked.push(need);
      return provide(need);
    };
    const one = await pool.run<{ outcome: { complete: boolean } }>('outcome', quick, { provide: counting });
    expect(typeof one.outcome.complete).toBe('boolean');
    await pool.run('outcome', quick, { provide: counting });
    expect(asked).toEqual([{ kind: 'model', key: 'm' }]);
    await pool.close();
  });

  it('lets people take turns: who asks once does not wait for all of who asks often', async () => {
    const pool = new Pool({ file: 'engines', deadline: 20_000, memory: 500 });
    await pool.run('outcome', quick, { provide });
    const order: string[] = [];
    const ask = (of: string) => pool.run('outcome', quick, { of, provide }).then(() => order.push(of));
    await Promise.all([...Array.from({ length: 10 }, () => ask('often')), ask('once'), ask('other')]);
    expect(order.indexOf('once')).toBeLessThan(4);
    expect(order.indexOf('other')).toBeLessThan(5);
    expect(order).toHaveLength(12);
    await pool.close();
  });

  it('ends a job whose asker went away, whether it waits or is under way, and goes on with the next', async () => {
    const pool = new Pool({ file: 'engines', deadline: 20_000, memory: 500 });
    await pool.run('outcome', quick, { provide });
    const [gone, later] = [new AbortController(), new AbortController()];
    const running = pool.run('best', endless, { provide, signal: gone.signal });
    const waiting = pool.run('best', endless, { provide, signal: later.signal });
    const next = pool.run('outcome', quick, { provide });
    later.abort();
    await expect(waiting).rejects.toEqual(new NotDone('gone'));
    gone.abort();
    await expect(running).rejects.toEqual(new NotDone('gone'));
    await expect(next).resolves.toBeDefined();
    await expect(pool.run('outcome', quick, { provide, signal: AbortSignal.abort() })).rejects.toEqual(
      new NotDone('gone'),
    );
    await pool.close();
  });

  it('tells a job to stop at its deadline, and refuses more than may wait', async () => {
    const pool = new Pool({ file: 'engines', deadline: 300, memory: 500, most: 1 });
    const answer = pool.run<{ is: string }>('best', endless, { provide });
    // The one that waits has the same deadline, which a slow machine may not keep: it comes to its turn
    // either way.
    const waits = pool.run('outcome', quick, { provide }).then(
      () => 'done',
      (failure: unknown) => (failure as TaskFailure).name,
    );
    await expect(pool.run('outcome', quick, { provide })).rejects.toEqual(new NotDone('full'));
    expect(['found', 'stopped', 'none']).toContain((await answer).is);
    expect(['done', 'OutOfBudget']).toContain(await waits);
    await pool.close();
  });

  it('gives no outcome of a build that was cut short, for it would be kept', async () => {
    const pool = new Pool({ file: 'engines', deadline: 0, memory: 500 });
    await expect(pool.run('outcome', quick, { provide })).rejects.toMatchObject({ name: 'OutOfBudget' });
    await pool.close();
  });

  it('passes on what a task throws, and what cannot be provided', async () => {
    const pool = new Pool({ file: 'engines', deadline: 20_000, memory: 500 });
    await expect(pool.run('no such task', {}, { provide })).rejects.toBeInstanceOf(TaskFailure);
    await expect(
      pool.run(
        'outcome',
        { ...quick, version: 'other' },
        { provide: () => Promise.reject(new Error('gone')) },
      ),
    ).rejects.toThrow('gone');
    await expect(pool.run('outcome', quick, { provide })).resolves.toBeDefined();
    await pool.close();
  });

  it('stands still in the background while somebody waits for something else', async () => {
    const [front, behind] = [
      new Pool({ file: 'engines', deadline: 20_000, memory: 500 }),
      new Pool({ file: 'engines', deadline: 60_000, memory: 500, background: true }),
    ];
    await Promise.all([front.run('outcome', quick, { provide }), behind.run('outcome', quick, { provide })]);
    const stops = [new AbortController(), new AbortController()] as const;
    let apart = 0;
    // Once the one in front has found its first build, the one behind must have stopped; it finds none while
    // the other searches on.
    const settled = new Promise<void>((seen) => {
      void front
        .run('best', endless, { provide, signal: stops[0].signal, progress: () => seen() })
        .catch(() => undefined);
    });
    await settled;
    void behind
      .run('best', endless, {
        provide,
        signal: stops[1].signal,
        progress: () => {
          apart += 1;
        },
      })
      .catch(() => undefined);
    await new Promise((next) => setTimeout(next, 400));
    const during = apart;
    stops[0].abort();
    await expect.poll(() => apart, { timeout: 20_000 }).toBeGreaterThan(during);
    expect(during).toBe(0);
    stops[1].abort();
    await Promise.all([front.close(), behind.close()]);
  });
});
