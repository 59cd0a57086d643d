/** What uses a part that is taken away, over all parts of the demo. */
import { expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import { compileModel } from '../model';
import { edited, usesOfRemoved, type Edit } from '.';

const remove = (...at: string[]): Edit => ({ do: 'remove', at });

it('is there for whatever does not compile without it, and leaves alone what nothing uses', () => {
  for (const id of ['tarn', 'beacon']) {
    const document = { ...demoDocument(id), tests: [] };
    const rows = [
      ...document.features.map((each) => ['features', each.id]),
      ...document.parameters.map((each) => ['parameters', each.id]),
      ...document.calculations.map((each) => ['calculations', each.id]),
    ];
    for (const at of rows) {
      const uses = usesOfRemoved(document, remove(...at));
      const after = edited(document, {
        do: 'several',
        edits: [
          remove(...at),
          ...document.sections.map((section): Edit => ({
            do: 'set',
            at: ['sections', section.id],
            name: 'rows',
            value: section.rows.filter((row) => row !== at[1]),
          })),
        ],
      });
      if (!after.ok) throw new Error('an edit that can be done');
      const compiles = compileModel(after.document).ok;
      if (!compiles) expect(uses.length, at.join('.')).toBeGreaterThan(0);
      if (uses.length === 0) expect(compiles, at.join('.')).toBe(true);
    }
  }
});

it('names the places, not those that go with it, nor the section that shows it', () => {
  const document = demoDocument('ridgeback');
  const uses = usesOfRemoved(document, { do: 'several', edits: [remove('features', 'mounting')] });
  expect(uses.some(({ path }) => path.startsWith('rules.'))).toBe(true);
  expect(uses.some(({ path }) => path.startsWith('sections.'))).toBe(false);
  expect(uses.some(({ path }) => path.startsWith('features.mounting'))).toBe(false);
  const pit = usesOfRemoved(document, remove('features', 'mounting', 'options', 'pit'));
  expect(pit.length).toBeGreaterThan(0);
  expect(pit.length).toBeLessThan(uses.length);
  expect(usesOfRemoved(document, { do: 'set', at: [], name: 'figures.more', value: [] })).toEqual([]);
});
