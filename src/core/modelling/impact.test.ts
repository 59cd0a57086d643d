/** What a draft of Ridgeback makes of builds as they were decided. */
import { describe, expect, it } from 'vitest';
import { demoDocument, demoTariff } from '../../../scripts/demo-documents';
import type { BenchMeans } from '../builds';
import { createEngine } from '../engine';
import { compileModel, type DecisionValue, type ModelDocument } from '../model';
import { edited, impactOn, listAt, type Edit } from '.';

const bridge = demoDocument('ridgeback');
const tariff = demoTariff('EUR');

function meansOf(document: ModelDocument): BenchMeans {
  const result = compileModel(document);
  if (!result.ok) throw new Error(JSON.stringify(result.problems.slice(0, 2)));
  return {
    engine: createEngine(result.model, { date: '2026-06-01', values: { region: 'eu' } }),
    tariff,
    terms: { quantity: 1, day: '2026-06-01', hand: { by: 'rate', value: '0' } },
    facts: {},
  };
}
const before = meansOf(bridge);
const usual = { vehicle: 'articulated', length: 'm12', mounting: 'pit' };

/** What becomes of a build in a draft with some edits. */
function impact(edits: Edit[], values: Record<string, DecisionValue> = usual) {
  const draft = edited(bridge, { do: 'several', edits });
  if (!draft.ok) throw new Error(JSON.stringify(draft.problem));
  return impactOn(before, meansOf(draft.document), {
    decisions: Object.entries(values).map(([on, value]) => ({ on, value })),
    special: [],
  });
}
const rule = (part: Record<string, unknown>): Edit => ({
  do: 'add',
  to: ['rules'],
  part: { id: 'tried', reason: { en: 'Tried', de: 'Versucht' }, ...part },
});

describe('another version', () => {
  it('that changes nothing of a build leaves it the same', () => {
    const names: Edit = { do: 'set', at: ['features', 'surface'], name: 'name.en', value: 'Deck' };
    expect(impact([names])).toMatchObject({ is: 'same', changes: [], dropped: [], open: [], clashes: [] });
  });

  it('gives other values and another price by itself', () => {
    const other = impact([rule({ kind: 'set', of: 'surface', value: 'concrete', firm: true })]);
    expect(other.is).toBe('other');
    expect(other.changes.map(({ row }) => row)).toContain('surface');
    expect(other.price.before).not.toBe(other.price.after);
    expect(other.number.before).not.toBe(other.number.after);
  });

  it('asks somebody where decisions cannot stand together any more, with the rule that says so', () => {
    const asked = impact([rule({ kind: 'exclude', all: ['mounting = "pit"', 'length = "m12"'] })]);
    expect(asked.is).toBe('decide');
    expect(JSON.stringify(asked.clashes)).toContain('tried');
  });

  it('asks somebody where something new has to be decided', () => {
    const part = {
      id: 'colour',
      name: { en: 'Colour', de: 'Farbe' },
      least: 1,
      most: 1,
      options: ['red', 'blue'].map((id) => ({ id, name: { en: id, de: id } })),
    };
    const [section] = listAt(bridge, ['sections']);
    const rows = [...(section?.rows as string[]), 'colour'];
    const asked = impact([
      { do: 'add', to: ['features'], part },
      { do: 'set', at: ['sections', section?.id ?? ''], name: 'rows', value: rows },
    ]);
    // What is usual where nothing else speaks may decide it; then it is no question.
    expect(asked.is === 'decide' ? asked.open : asked.changes.map(({ row }) => row)).toContain('colour');
  });

  it('tells what is no longer there', () => {
    const lost = impact(
      [{ do: 'rename', at: ['features', 'mounting', 'options', 'halfPit'], to: 'shallow' }],
      { ...usual, mounting: 'halfPit' },
    );
    expect([lost.is, lost.dropped]).toEqual(['lost', ['mounting']]);
  });
});
