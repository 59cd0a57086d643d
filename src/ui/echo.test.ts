/** A field that hears late what it said. */
import { expect, it } from 'vitest';
import { createEcho } from './useEcho';

it('knows each thing it said once, however late it comes, and what it never said', () => {
  const echo = createEcho<string>();
  for (const text of ['a', 'ab', 'abc', 'abcd']) echo.said(text);
  expect(echo.hears('ab')).toBe(true);
  // The first came before what was heard, so whoever wants it now is somebody else.
  expect(echo.hears('a')).toBe(false);
  expect(echo.hears('abcd')).toBe(true);
  expect(echo.hears('abcd')).toBe(false);
  expect(echo.hears('other')).toBe(false);
});

it('knows again what it said twice, and goes by what counts as alike', () => {
  const echo = createEcho<{ at: number }>((one, other) => one.at === other.at);
  echo.said({ at: 1 });
  echo.said({ at: 2 });
  echo.said({ at: 1 });
  expect(echo.hears({ at: 2 })).toBe(true);
  expect(echo.hears({ at: 1 })).toBe(true);
  expect(echo.hears({ at: 1 })).toBe(false);
});
