import { setTimeout as pause } from 'node:timers/promises';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Turns } from './turns';

const turns = (waiting = 100) => new Turns({ rest: 1, waiting });

test('work is done one piece at a time, in the order it came, whatever becomes of each', () =>
  fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ long: fc.integer({ min: 0, max: 3 }), fails: fc.boolean() }), { maxLength: 12 }),
      async (pieces) => {
        const all = turns();
        const begun: number[] = [];
        let now = 0;
        const ends = await Promise.allSettled(
          pieces.map(({ long, fails }, nth) =>
            all.take(async () => {
              now += 1;
              expect(now).toBe(1);
              begun.push(nth);
              await pause(long);
              now -= 1;
              if (fails) throw new Error('failed');
              return nth;
            }),
          ),
        );
        expect(begun).toEqual(pieces.map((_, nth) => nth));
        expect(ends.map((end) => (end.status === 'fulfilled' ? end.value : null))).toEqual(
          pieces.map(({ fails }, nth) => (fails ? null : nth)),
        );
      },
    ),
    { numRuns: 20 },
  ));

test('after each piece there is a rest that is as long as the piece took', async () => {
  const all = turns();
  const at: number[] = [];
  const piece = async () => {
    at.push(performance.now());
    await pause(60);
    at.push(performance.now());
  };
  await Promise.all([all.take(piece), all.take(piece)]);
  const [began = 0, ended = 0, next = 0] = at;
  expect((next - ended) / (ended - began)).toBeGreaterThan(0.9);
});

test('who has left is passed over, and who comes when too many wait is told to come again', async () => {
  const all = turns(2);
  const gone = new AbortController();
  let done = 0;
  const piece = async () => {
    await pause(5);
    done += 1;
  };
  const first = all.take(piece);
  await Promise.resolve();
  const left = all.take(piece, gone.signal);
  const third = all.take(piece);
  gone.abort();
  await expect(all.take(piece)).rejects.toMatchObject({ why: 'full' });
  await expect(left).rejects.toMatchObject({ why: 'gone' });
  await Promise.all([first, third]);
  expect(done).toBe(2);
  await all.take(piece);
  expect(done).toBe(3);
});
