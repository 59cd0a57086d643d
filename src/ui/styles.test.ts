/**
 * Style sheets and what asks for their classes: a class that is not there would leave a mark unseen, one that
 * nobody asks for would mislead.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { describe, expect, it } from 'vitest';

const root = new URL('..', import.meta.url).pathname;
const files = readdirSync(root, { recursive: true, encoding: 'utf8' });
const source = (file: string): string => readFileSync(join(root, file), 'utf8');

const sheets = new Map(
  files
    .filter((file) => file.endsWith('.module.css'))
    .map((file) => {
      const rules = source(file)
        .replace(/\/\*[\s\S]*?\*\//g, '')
        .replace(/'[^']*'|url\([^)]*\)/g, '');
      return [
        file,
        new Set([...rules.matchAll(/\.([A-Za-z][\w-]*)/g)].map(([, name = '']) => name)),
      ] as const;
    }),
);

/**
 * By file and sheet: the classes it asks for; null where it asks by a name that is known only when it runs.
 */
const asked = files
  .filter((file) => /\.(tsx?|astro)$/.test(file) && !file.includes('.test.'))
  .flatMap((file) => {
    const text = source(file);
    return [...text.matchAll(/import (\w+) from '([^']+\.module\.css)'/g)].map(
      ([whole, name = '', path = '']) => {
        const rest = text.replace(whole, '');
        const names = new Set(
          [...rest.matchAll(new RegExp(`\\b${name}\\.([A-Za-z]\\w*)`, 'g'))]
            .map(([, each = '']) => each)
            .filter((each) => each !== 'module'),
        );
        return {
          file,
          sheet: normalize(join(dirname(file), path)),
          names,
          open: new RegExp(`\\b${name}\\[`).test(rest),
        };
      },
    );
  });

describe('style sheets', () => {
  it('have every class that is asked for', () => {
    expect(asked.length).toBeGreaterThan(50);
    expect(
      asked.flatMap(({ file, sheet, names }) =>
        [...names].filter((name) => !sheets.get(sheet)?.has(name)).map((name) => `${file}: ${name}`),
      ),
    ).toEqual([]);
  });

  it('have no class that nobody asks for', () => {
    const idle = [...sheets].flatMap(([sheet, classes]) => {
      const askers = asked.filter((each) => each.sheet === sheet);
      return askers.some(({ open }) => open)
        ? []
        : [...classes]
            .filter((name) => !askers.some(({ names }) => names.has(name)))
            .map((name) => `${sheet}: ${name}`);
    });
    expect(idle).toEqual([]);
  });
});
