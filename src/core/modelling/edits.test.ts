/** Edits and their inverses, by hand and at random over the demo's models. */
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import type { ModelDocument } from '../model';
import { edited, listAt, partAt, type Edit, type EditProblem, type Part } from '.';
import { anyEdit, chance } from './testing';

const models = ['ridgeback', 'beacon', 'quarryGate', 'plumb', 'tarn', 'farmDriveOver'];

function done(document: ModelDocument, edit: Edit): { document: ModelDocument; inverse: Edit } {
  const result = edited(document, edit);
  if (!result.ok) throw new Error(JSON.stringify(result.problem));
  return result;
}
const codeOf = (document: ModelDocument, edit: Edit): EditProblem['code'] | undefined => {
  const result = edited(document, edit);
  return result.ok ? undefined : result.problem.code;
};
const bridge = demoDocument('ridgeback');
const idsAt = (document: ModelDocument, ...at: string[]): string[] =>
  listAt(document, at).map(({ id }) => id);

describe('an edit', () => {
  it('sets a value of a part and of the document, and takes it away again', () => {
    const { document, inverse } = done(bridge, {
      do: 'set',
      at: ['features', 'surface', 'options', 'plate'],
      name: 'name.en',
      value: 'Tear plate',
    });
    expect(partAt(document, ['features', 'surface', 'options', 'plate'])).toMatchObject({
      name: { en: 'Tear plate', de: expect.any(String) as string },
    });
    expect(done(document, inverse).document).toEqual(bridge);
    const days = done(bridge, { do: 'set', at: [], name: 'extraDays', value: '3' });
    expect(days.document.extraDays).toBe('3');
    expect(done(days.document, days.inverse).document).toEqual(bridge);
  });

  it('leaves no object behind that was made for a value', () => {
    const { extraDays: _, drawing: __, ...bare } = demoDocument('beacon');
    const set = done(bare, { do: 'set', at: [], name: 'term.months', value: '12' });
    expect(set.document.term).toEqual({ months: '12' });
    expect(done(set.document, set.inverse).document).toEqual(bare);
    const view: Part = { id: 'front', name: { en: 'Front' }, from: 'front' };
    const added = done(bare, { do: 'add', to: ['drawing.views'], part: view });
    expect(done(added.document, added.inverse).document).toEqual(bare);
  });

  it('adds before another, moves, and removes from where it is put back', () => {
    const to = ['features', 'surface', 'options'];
    const before = idsAt(bridge, ...to);
    const [first = '', second = ''] = before;
    const added = done(bridge, {
      do: 'add',
      to,
      part: { id: 'timber', name: { en: 'Timber' } },
      before: second,
    });
    expect(idsAt(added.document, ...to)).toEqual([first, 'timber', ...before.slice(1)]);
    const moved = done(added.document, { do: 'move', at: [...to, first] });
    expect(idsAt(moved.document, ...to)).toEqual(['timber', ...before.slice(1), first]);
    expect(done(moved.document, moved.inverse).document).toEqual(added.document);
    const removed = done(bridge, { do: 'remove', at: [...to, second] });
    expect(done(removed.document, removed.inverse).document).toEqual(bridge);
  });

  it('of several is all or none', () => {
    const both: Edit[] = [
      { do: 'remove', at: ['rules', idsAt(bridge, 'rules')[0] ?? ''] },
      { do: 'remove', at: ['rules', 'nobody'] },
    ];
    expect(codeOf(bridge, { do: 'several', edits: both })).toBe('edit.missing');
    const { document, inverse } = done(bridge, { do: 'several', edits: both.slice(0, 1) });
    expect(done(document, inverse).document).toEqual(bridge);
  });

  it.each<[Edit, EditProblem['code']]>([
    [{ do: 'set', at: ['features', 'nothing'], name: 'least', value: 1 }, 'edit.missing'],
    [{ do: 'set', at: ['features', 'surface'], name: 'id', value: 'deck' }, 'edit.idIsRenamed'],
    [{ do: 'add', to: ['features', 'surface', 'rows'], part: { id: 'a' } }, 'edit.noList'],
    [{ do: 'add', to: ['features', 'nothing', 'options'], part: { id: 'a' } }, 'edit.noList'],
    // Formulas call calculations and features alike.
    [{ do: 'add', to: ['calculations'], part: { id: 'surface' } }, 'edit.taken'],
    [{ do: 'add', to: ['features'], part: { id: 'new' }, before: 'nothing' }, 'edit.missing'],
    [{ do: 'remove', at: ['features', 'nothing'] }, 'edit.missing'],
    [{ do: 'move', at: ['features', 'surface'], before: 'nothing' }, 'edit.missing'],
    [{ do: 'rename', at: ['features', 'surface'], to: 'length' }, 'edit.taken'],
    [{ do: 'rename', at: ['features', 'surface'], to: 'Surface 2' }, 'edit.badId'],
    [{ do: 'rename', at: ['features', 'surface'], to: 'item' }, 'edit.badId'],
    [{ do: 'rename', at: ['features', 'nothing'], to: 'deck' }, 'edit.missing'],
  ])('%j is refused', (edit, code) => {
    expect(codeOf(bridge, edit)).toBe(code);
  });

  it('never changes the document that it is done to', () => {
    const given = structuredClone(bridge);
    done(given, { do: 'rename', at: ['features', 'surface'], to: 'deck' });
    done(given, { do: 'remove', at: ['rules', idsAt(given, 'rules')[0] ?? ''] });
    expect(given).toEqual(bridge);
  });
});

describe('any edits', () => {
  it.each(models)('of %s, taken back one after another, give the same document', (id) => {
    const given = demoDocument(id);
    for (let seed = 1; seed <= 6; seed += 1) {
      const random = chance(seed);
      const inverses: Edit[] = [];
      const states: ModelDocument[] = [];
      let now = given;
      for (let step = 0; step < 25; step += 1) {
        const result = edited(now, anyEdit(now, random, step));
        if (!result.ok) continue;
        states.push(now);
        inverses.push(result.inverse);
        now = result.document;
      }
      expect(inverses.length).toBeGreaterThan(8);
      for (const inverse of inverses.reverse()) {
        now = done(now, inverse).document;
        expect(now).toEqual(states.pop());
      }
      expect(now).toEqual(given);
    }
  });
});
