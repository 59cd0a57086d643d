/** For the tests of making models: edits at random, the same for the same seed. */
import type { ModelDocument } from '../model';
import type { Edit } from './edit';
import { listAt, listsOf } from './places';

/** The same numbers for the same seed. */
export function chance(seed: number): (below: number) => number {
  let at = seed;
  return (below) => {
    at = (Math.imul(at, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((at / 2 ** 32) * below);
  };
}

/** An edit somewhere in a document; it may be one that is refused. */
export function anyEdit(document: ModelDocument, random: (below: number) => number, step: number): Edit {
  const lists = listsOf([]).map((list) => [list]);
  const inner = ['features', 'parameters', 'context'].flatMap((list) =>
    listAt(document, [list]).map(({ id }) => [list, id, list === 'context' ? 'values' : 'options']),
  );
  const all = [...lists, ...inner];
  const list = all[random(all.length)] ?? [];
  const parts = listAt(document, list);
  const part = parts[random(Math.max(1, parts.length))];
  const other = parts[random(Math.max(1, parts.length))]?.id;
  const before = random(3) === 0 || other === undefined ? {} : { before: other };
  const at = [...list, part?.id ?? 'nobody'];
  switch (random(6)) {
    case 0:
      // One like another is whole, as whoever makes parts gives them.
      return part
        ? { do: 'add', to: list, part: { ...part, id: `new${String(step)}` }, ...before }
        : { do: 'move', at };
    case 1:
      return { do: 'remove', at };
    case 2:
      return { do: 'move', at, ...before };
    case 3:
      return { do: 'rename', at, to: `renamed${String(step)}` };
    case 4:
      return {
        do: 'set',
        at,
        name: ['name.en', 'when', 'help.de', 'least'][random(4)] ?? 'when',
        value: '1',
      };
    default:
      return { do: 'set', at, name: ['help', 'short', 'item', 'from'][random(4)] ?? 'help' };
  }
}
