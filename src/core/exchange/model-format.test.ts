/** docs/model-format.md is true: its model compiles, and each command answers as the page says. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { runCommand } from './index';

const page = readFileSync(new URL('../../../docs/model-format.md', import.meta.url), 'utf8');
const blocks = [...page.matchAll(/```(\w+) ?([\w.]*)\n([\s\S]*?)```/g)].map(
  ([, kind = '', name = '', text = '']) => ({ kind, name, text: text.trim() }),
);
const files = new Map(blocks.filter(({ name }) => name !== '').map(({ name, text }) => [name, text]));
const examples = blocks.flatMap(({ kind, text }, index): [string, string][] =>
  kind === 'sh' ? [[text, blocks[index + 1]?.text ?? '']] : [],
);

/** Words of a command; quotes hold one together. */
const words = (command: string): string[] =>
  [...command.matchAll(/"([^"]*)"|(\S+)/g)].map(([, quoted, plain]) => quoted ?? plain ?? '');

describe('docs/model-format.md', () => {
  it('has an example of every command', () => {
    expect(new Set(examples.map(([command]) => words(command)[0]))).toEqual(
      new Set(['state', 'why', 'ways', 'best', 'count', 'read', 'check']),
    );
  });

  it.each(examples)('%s', (command, expected) => {
    const { out } = runCommand(words(command), {
      read: (path) => {
        const text = files.get(path);
        if (text === undefined) throw new Error(`no file ${path}`);
        return text;
      },
      today: '2026-06-01',
      now: () => performance.now(),
    });
    const printed: unknown = JSON.parse(
      JSON.stringify(out, (_, value: unknown) => (typeof value === 'bigint' ? value.toString() : value)),
    );
    expect(printed).toMatchObject(JSON.parse(expected) as object);
  });
});
