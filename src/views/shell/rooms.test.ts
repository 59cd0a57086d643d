/** Rooms tell the shell of themselves: every page belongs to one, and each role sees those that it may enter. */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { granted, roles } from '../../contract';
import { translator } from '../../i18n';
import { entriesFor, keysOf } from './room';
import { rooms } from './rooms';

const pages = new URL('../../pages/', import.meta.url);
const astro = readdirSync(pages, { recursive: true })
  .map(String)
  .filter((path) => path.endsWith('.astro') && statSync(new URL(path, pages)).isFile());

describe('rooms', () => {
  it('have a name of their own, and each page that stands in a room says which', () => {
    const ids = rooms.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    const said = astro.flatMap((path) => [
      ...readFileSync(new URL(path, pages), 'utf8').matchAll(/<Frame[^>]*\sroom="([^"]+)"/g),
    ]);
    expect(said.length).toBeGreaterThan(6);
    for (const [, id] of said) expect(ids).toContain(id);
    // No room is told of that no page stands in.
    expect(new Set(said.map(([, id]) => id))).toEqual(new Set(ids));
  });

  it.each(roles)('are entered by %s as far as the role may', (role) => {
    const own = entriesFor(rooms, role);
    const at = (place: string) => own.filter(({ shown }) => shown === place).map(({ id }) => id);
    const bar = at('bar');
    expect(bar.length).toBeLessThanOrEqual(6);
    expect(at('more')).toEqual([
      ...(granted[role].includes('prices') ? ['prices', 'terms'] : []),
      ...(granted[role].includes('paper') ? ['paper'] : []),
      'outbox',
      ...(granted[role].includes('quotes') ? ['schedules', 'shelf'] : []),
      ...(granted[role].includes('administer') ? ['jobs', 'audit'] : []),
    ]);
    expect(bar).toEqual([
      'desk',
      'catalogue',
      'quotes',
      ...(granted[role].includes('orders') ? ['orders'] : []),
      ...(granted[role].includes('model') ? ['models'] : []),
      ...(granted[role].includes('prices') ? ['items'] : []),
      ...(granted[role].includes('administer') ? ['house', 'people'] : []),
    ]);
    expect(own.map(({ id }) => id)).toContain('programs');
    // A build is entered from its quote.
    expect(own.map(({ id }) => id)).not.toContain('bench');
  });

  it.each(['en', 'de'])('have their keys in %s, those of everywhere last', (language) => {
    const t = translator(language);
    for (const room of [...rooms, undefined]) {
      const keys = keysOf(room, 4, t, language);
      expect(keys).toHaveLength((room?.keys.length ?? 0) + 3);
      expect(keys.at(-1)?.keys).toBe('?');
      for (const { text } of keys) expect(text).not.toMatch(/^keys\.|^$/);
      // The same keys do one thing.
      expect(new Set(keys.map((each) => each.keys)).size).toBe(keys.length);
    }
  });
});
