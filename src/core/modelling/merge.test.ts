/** What differs between documents, and two drafts of one base as one. */
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import type { ModelDocument } from '../model';
import { differences, edited, editOf, listAt, merged, partAt, type Difference, type Edit } from '.';
import { anyEdit, chance } from './testing';

const models = ['ridgeback', 'beacon', 'quarryGate', 'plumb'];
const bridge = demoDocument('ridgeback');
const done = (document: ModelDocument, ...edits: Edit[]): ModelDocument => {
  const result = edited(document, { do: 'several', edits });
  if (!result.ok) throw new Error(JSON.stringify(result.problem));
  return result.document;
};
/** A draft by so many edits, whichever can be done. */
function draft(document: ModelDocument, seed: number, steps: number): ModelDocument {
  const random = chance(seed);
  let now = document;
  for (let step = 0; step < steps; step += 1) {
    const result = edited(now, anyEdit(now, random, seed * 1000 + step));
    if (result.ok) now = result.document;
  }
  return now;
}
const short = (difference: Difference): string =>
  difference.is === 'set'
    ? `${difference.at.join('.')} ${difference.name}`
    : `${difference.is} ${(difference.is === 'added' ? [...difference.to, difference.part.id] : difference.at).join('.')}`;

describe('what differs', () => {
  it('is told by part and value, and nothing else is', () => {
    const after = done(
      bridge,
      { do: 'set', at: ['features', 'surface'], name: 'name.en', value: 'Deck' },
      { do: 'set', at: [], name: 'extraDays', value: '4' },
      { do: 'remove', at: ['features', 'surface', 'options', 'plate'] },
      { do: 'move', at: ['features', 'mounting'] },
    );
    expect(differences(bridge, after).map(short).sort()).toEqual(
      [
        ' extraDays',
        'features.surface name.en',
        'moved features.mounting',
        'removed features.surface.options.plate',
      ].sort(),
    );
    expect(differences(bridge, structuredClone(bridge))).toEqual([]);
  });

  it('moves as few as can be', () => {
    const ids = listAt(bridge, ['features']).map(({ id }) => id);
    const after = done(bridge, { do: 'move', at: ['features', ids[0] ?? ''] });
    expect(differences(bridge, after)).toEqual([{ is: 'moved', at: ['features', ids[0]] }]);
  });

  it.each(models)('makes one draft of %s from another, whatever was done', (id) => {
    const base = demoDocument(id);
    for (let seed = 1; seed <= 6; seed += 1) {
      const [one, other] = [draft(base, seed, 15), draft(base, seed + 100, 15)];
      expect(done(one, ...differences(one, other).map(editOf))).toEqual(other);
      expect(done(other, ...differences(other, one).map(editOf))).toEqual(one);
    }
  });
});

describe('two drafts', () => {
  const surface = ['features', 'surface'];
  it('that changed other things are both in what comes of them', () => {
    const ours = done(bridge, { do: 'set', at: surface, name: 'name.en', value: 'Deck' });
    const theirs = done(
      bridge,
      { do: 'set', at: surface, name: 'name.de', value: 'Belag' },
      { do: 'remove', at: ['rules', listAt(bridge, ['rules'])[0]?.id ?? ''] },
    );
    const { document, conflicts } = merged(bridge, ours, theirs);
    expect(conflicts).toEqual([]);
    expect(partAt(document, surface)).toMatchObject({ name: { en: 'Deck', de: 'Belag' } });
    expect(listAt(document, ['rules'])).toHaveLength(listAt(bridge, ['rules']).length - 1);
  });

  it('that changed one thing differently are asked about it; alike, not', () => {
    const named = (value: string): ModelDocument =>
      done(bridge, { do: 'set', at: surface, name: 'name.en', value });
    expect(merged(bridge, named('Deck'), named('Top'))).toMatchObject({
      conflicts: [{ ours: [{ to: 'Deck' }], theirs: { to: 'Top' } }],
    });
    expect(merged(bridge, named('Deck'), named('Deck')).conflicts).toEqual([]);
  });

  it('of which one takes away what the other changed are asked too', () => {
    const without = done(bridge, { do: 'remove', at: [...surface, 'options', 'plate'] });
    const changed = done(bridge, {
      do: 'set',
      at: [...surface, 'options', 'plate'],
      name: 'name.en',
      value: 'Plate',
    });
    expect(merged(bridge, without, changed).conflicts).toHaveLength(1);
    expect(merged(bridge, changed, without).conflicts).toHaveLength(1);
    expect(merged(bridge, without, without).conflicts).toEqual([]);
  });

  it.each(models)('of %s lose nothing, whatever was done in either', (id) => {
    const base = demoDocument(id);
    let asked = 0;
    for (let seed = 1; seed <= 8; seed += 1) {
      const [ours, theirs] = [draft(base, seed, 12), draft(base, seed + 500, 12)];
      const { document, conflicts } = merged(base, ours, theirs);
      asked += conflicts.length;
      // Ours is all there.
      const lost = differences(base, ours).filter((change) => !isIn(document, change));
      expect(lost.map(short)).toEqual([]);
      // Theirs is there, or asked about.
      const theirsLost = differences(base, theirs).filter(
        (change) =>
          !isIn(document, change) && !conflicts.some((each) => short(each.theirs) === short(change)),
      );
      expect(theirsLost.map(short)).toEqual([]);
    }
    expect(asked).toBeGreaterThan(0);
  });
});

/** Whether a change is in a document; where a part stands among others is a matter of all of them. */
function isIn(document: ModelDocument, change: Difference): boolean {
  if (change.is === 'moved') return partAt(document, change.at) !== undefined;
  if (change.is === 'removed') return partAt(document, change.at) === undefined;
  if (change.is === 'added') return partAt(document, [...change.to, change.part.id]) !== undefined;
  const part = partAt(document, change.at);
  const value = change.name
    .split('.')
    .reduce<unknown>((held, step) => (held as Record<string, unknown> | undefined)?.[step], part);
  return part !== undefined && JSON.stringify(value) === JSON.stringify(change.to);
}
