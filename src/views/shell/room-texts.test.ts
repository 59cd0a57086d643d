/** Each room brings the texts that its pages say: no key without its text, and none that nobody there says. */
import { existsSync, readFileSync, readdirSync, statSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { hasText } from '../../i18n';
import { textBundles, textsOf as textsIn, type TextBundle } from '../../i18n/text-bundles';
import { textsOf } from './room';
import { rooms } from './rooms';

const top = fileURLToPath(new URL('../..', import.meta.url));
const pages = join(top, 'pages');

/** Where an import leads, or nothing where it leads out of the sources. */
const fileOf = (from: string, name: string): string | undefined =>
  ['', '.ts', '.tsx', '/index.ts']
    .map((end) => `${join(dirname(from), name)}${end}`)
    .find((path) => /\.tsx?$/.test(path) && existsSync(path));

const namesIn = (list: string): string[] =>
  list
    .split(',')
    .map((each) => each.trim())
    .filter((each) => each !== '' && !each.startsWith('type '))
    .map((each) => each.split(' as ')[0] ?? each);

/** The files behind a door that tell of some names; a door brings nothing else along. */
function behind(door: string, names: readonly string[]): string[] {
  const source = readFileSync(door, 'utf8');
  const told = [...source.matchAll(/^export (?!type\b)(?:\{([^}]*)\}|\*) from '(\.[^']+)'/gm)];
  return told.flatMap(([, list, from = '']) => {
    const path = fileOf(door, from);
    if (path === undefined) return [];
    if (list !== undefined) return namesIn(list).some((name) => names.includes(name)) ? [path] : [];
    const inside = readFileSync(path, 'utf8');
    return names.some((name) => new RegExp(`^export .*\\b${name}\\b`, 'm').test(inside)) ? [path] : [];
  });
}

/** What a source brings along in the browser: imports of values, now or later, and the code of workers. */
function broughtBy(path: string): string[] {
  const source = readFileSync(path, 'utf8');
  const values = source.matchAll(/^(?:import|export)\s+(?!type\b)(?:([^;'"]*?)\sfrom\s+)?'(\.[^']+)'/gm);
  const later = [
    ...source.matchAll(/import\(\s*'(\.[^']+)'\s*\)/g),
    ...source.matchAll(/new URL\('(\.[^']+)', import\.meta\.url\)/g),
  ];
  return [
    ...[...values].flatMap(([, what = '', name = '']) => {
      const file = fileOf(path, name);
      const names = namesIn(/\{([^}]*)\}/.exec(what)?.[1] ?? '');
      if (file === undefined || (what.startsWith('{') && names.length === 0)) return [];
      return file.endsWith('/index.ts') && !path.endsWith('/index.ts') ? behind(file, names) : [file];
    }),
    ...later.flatMap(([, name = '']) => fileOf(path, name) ?? []),
  ];
}

/** All sources that come into the browser with some. */
function reached(from: readonly string[]): Set<string> {
  const seen = new Set<string>();
  const visit = (path: string): void => {
    if (seen.has(path) || path.startsWith(join(top, 'i18n'))) return;
    seen.add(path);
    broughtBy(path).forEach(visit);
  };
  from.forEach(visit);
  return seen;
}

/** The islands of all pages of a room; of those in no room where it is undefined. */
const islandsOf = (room: string | undefined): string[] =>
  readdirSync(pages, { recursive: true })
    .map((path) => join(pages, String(path)))
    .filter((path) => path.endsWith('.astro') && statSync(path).isFile())
    .flatMap((path) => {
      const source = readFileSync(path, 'utf8');
      if (/<Frame[^>]*\sroom="([^"]+)"/.exec(source)?.[1] !== room) return [];
      const islands = [...source.matchAll(/<(\w+)\s+client:/g)].map(([, name = '']) => name);
      return islands.flatMap((name) => {
        const from = new RegExp(`import (?:\\{ )?${name}\\b[^']*'(\\.[^']+)'`).exec(source)?.[1];
        return (from !== undefined && fileOf(path, from)) || [];
      });
    });

/** The groups of texts that a source names: a key in quotes, or one put together behind a group. */
const saidIn = (path: string): string[] => {
  const source = readFileSync(path, 'utf8').replace(/\/\*[^]*?\*\/|\/\/ .*/g, '');
  return [
    ...[...source.matchAll(/'([a-zA-Z]+(?:\.[\w-]+)+)'/g)].map(([, key = '']) => key).filter(hasText),
    ...[...source.matchAll(/`([a-zA-Z]+)\.[\w.]*\$\{/g)].map(([, group = '']) => group),
  ].map((key) => key.split('.')[0] ?? '');
};

const trees = await Promise.all(
  textBundles.map(async (file) => [file, Object.keys(await textsIn('en', [file]))] as const),
);
const fileOfGroup = new Map(trees.flatMap(([file, groups]) => groups.map((group) => [group, file] as const)));
const bar = join(top, 'views/shell/TopBar.tsx');

describe('the texts of', () => {
  it('each file are its own: no two have a group of one name', () => {
    expect(fileOfGroup.size).toBe(trees.reduce((sum, [, groups]) => sum + groups.length, 0));
  });

  it.each([undefined, ...rooms].map((room) => [room?.id ?? 'no room', room] as const))('%s', (_, room) => {
    const islands = islandsOf(room?.id);
    // The page for programs is read, and nothing on it does anything.
    expect(islands.length > 0).toBe(room?.id !== 'programs');
    const needed = new Map<TextBundle, string>();
    for (const path of [...reached([bar, ...islands])].filter((each) => !each.startsWith(join(top, 'core'))))
      for (const group of saidIn(path)) {
        const file = fileOfGroup.get(group);
        if (file) needed.set(file, relative(top, path));
      }
    expect(Object.fromEntries([...needed].filter(([file]) => !textsOf(room).includes(file)))).toEqual({});
    expect(textsOf(room).filter((file) => !needed.has(file))).toEqual([]);
  });
});
