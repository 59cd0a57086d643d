import { describe, expect, it } from 'vitest';
import type { Made } from '../../../workers/bench/types';
import { Prefetch } from './prefetch';

const made = (...values: string[]): Made => ({
  decisions: values.map((value) => ({ on: value, value })),
  special: [],
});

/** Work that is done when the test says so, in the order in which it was asked for. */
function bench() {
  const asked: { made: Made; done: (came: string) => void }[] = [];
  const ahead = new Prefetch<string>((each) => new Promise((done) => asked.push({ made: each, done })));
  const answer = async (index: number, came: string) => {
    asked[index]?.done(came);
    await new Promise((next) => setTimeout(next));
  };
  return {
    ahead,
    answer,
    asked: () => asked.map((each) => each.made.decisions.map(({ on }) => on).join('')),
  };
}

describe('what is worked out ahead', () => {
  it('is there once it is known, for the very same decisions in the same order', async () => {
    const { ahead, answer } = bench();
    ahead.look(made('a', 'b'));
    expect(ahead.take(made('a', 'b'))).toBeUndefined();
    await answer(0, 'ab');
    expect(ahead.take(made('a', 'b'))).toBe('ab');
    expect([
      ahead.take(made('a')),
      ahead.take(made('b', 'a')),
      ahead.take({
        ...made('a', 'b'),
        special: [{ item: 'x', name: 'X', cost: '1', price: '2', leadDays: 3 }] as unknown as Made['special'],
      }),
    ]).toEqual([undefined, undefined, undefined]);
    ahead.look(made('c'));
    await answer(1, 'c');
    expect(ahead.take(made('c'))).toBe('c');
  });

  it('is for the last wish: those that came while one was at work are passed over', async () => {
    const { ahead, answer, asked } = bench();
    for (const each of ['a', 'b', 'c', 'd']) ahead.look(made(each));
    expect(asked()).toEqual(['a']);
    await answer(0, 'a');
    expect(asked()).toEqual(['a', 'd']);
    await answer(1, 'd');
    expect([ahead.take(made('a')), ahead.take(made('d'))]).toEqual([undefined, 'd']);
    expect(asked()).toEqual(['a', 'd']);
  });

  it('counts no more once something else is shown, whether it is known by then or comes after', async () => {
    const { ahead, answer, asked } = bench();
    ahead.look(made('a'));
    await answer(0, 'a');
    ahead.moved();
    expect(ahead.take(made('a'))).toBeUndefined();
    ahead.look(made('b'));
    ahead.look(made('c'));
    ahead.moved();
    await answer(1, 'b');
    expect([ahead.take(made('b')), asked()]).toEqual([undefined, ['a', 'b']]);
    // What is wished for after that is worked out from what is shown then.
    ahead.look(made('b'));
    await answer(2, 'b from there');
    expect(ahead.take(made('b'))).toBe('b from there');
  });
});
