/**
 * The best build as a person wishes for it: what is seen stays, lead time counts, and what comes of it can be
 * kept and stored.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoModel, demoTariff } from '../../../scripts/demo-documents';
import { readFileSync } from 'node:fs';
import { checkDecisions, createEngine, type Decision } from '../engine';
import { leadDays, leadFormula } from '../production';
import { Reading } from '../model';
import { bestFor, seenRows, type BestWish } from './best-wish';
import { contentInput } from '../../contract';

const items = Object.fromEntries(
  (
    JSON.parse(readFileSync(new URL('../../../demo/items.json', import.meta.url), 'utf8')) as {
      sku: string;
      leadDays: number;
    }[]
  ).map(({ sku, leadDays: days }) => [sku, { leadDays: days }]),
);
const context = { date: '2026-11-28', values: { region: 'uk' } };
const tariff = demoTariff('GBP');
const cheapest: Omit<BestWish, 'free'> = { weights: [{ measure: 'price', weight: '1' }], bounds: [] };
const needs: Record<string, Decision[]> = {
  ridgeback: [
    { on: 'vehicle', value: 'articulated' },
    { on: 'length', value: 'm12' },
  ],
  beacon: [],
  tarn: [],
  plumb: [
    { on: 'emptyMass', value: '2000' },
    { on: 'contentsMass', value: '10000' },
    { on: 'height', value: '4' },
    { on: 'diameter', value: '2' },
  ],
};

describe.each(Object.keys(needs))('the cheapest %s', (id) => {
  const engine = createEngine(demoModel(id), context);
  const means = { engine, tariff, items };
  const decisions = needs[id] ?? [];
  const now = engine.state({ decisions });
  // Of a large model some: proving the best of all takes seconds.
  const freed = seenRows(now).slice(0, 8);

  it('keeps what is decided and all that is seen by default', () => {
    const found = bestFor(means, { decisions }, { ...cheapest, free: [] }, {});
    if (found.is !== 'found') throw new Error(found.is);
    const after = engine.state({ decisions: found.decisions });
    for (const row of seenRows(now))
      expect([row, after.rows[row]?.value]).toEqual([row, now.rows[row]?.value]);
    expect(after.complete).toBe(true);
    expect(found.decisions.slice(0, decisions.length)).toEqual(decisions);
    // What is usual stays usual: no more is decided than it takes.
    if (now.complete) expect(found.decisions).toEqual(decisions);
  });

  it('may change a row that is set free, and costs no more for it', () => {
    const cost = (free: readonly string[]) => {
      const found = bestFor(means, { decisions }, { ...cheapest, free }, {});
      return found.is === 'found'
        ? { value: Number(found.value), values: engine.state({ decisions: found.decisions }).values }
        : undefined;
    };
    const [kept, all] = [cost([]), cost(freed)];
    expect(all?.value).toBeLessThanOrEqual(kept?.value ?? Infinity);
    for (const row of freed) {
      const one = cost([row]);
      expect(one && kept && all && one.value <= kept.value && one.value >= all.value).toBe(true);
    }
  });

  it('is something that the server takes, as every way in which decisions are made is', () => {
    const found = bestFor(means, { decisions }, { ...cheapest, free: freed }, {});
    if (found.is !== 'found') throw new Error(found.is);
    const whole = engine.best({ decisions }, { minimize: [] });
    const ways = Object.values(now.rows)
      .flatMap((row) =>
        (row.options ?? [])
          .filter((option) => option.standing === 'swap')
          .slice(0, 1)
          .flatMap((option) =>
            engine
              .waysOut({ decisions }, demoTarget(row.id, option.id, Array.isArray(row.value)))
              .map((way) => way.decisions),
          ),
      )
      .slice(0, 12);
    for (const made of [found.decisions, ...(whole.is === 'found' ? [whole.decisions] : []), ...ways]) {
      expect(checkDecisions(engine.model, made)).toEqual([]);
      expect(
        contentInput.validateSync({ version: 1, decisions: made, passed: [], special: [] }).decisions,
      ).toEqual(made);
    }
  });
});

const demoTarget = (row: string, option: string, many: boolean): Decision =>
  many ? { on: `${row}.${option}`, value: true } : { on: row, value: option };

it('whatever a model takes as a decision, the server takes', () => {
  const engines = Object.keys(needs).map((id) => createEngine(demoModel(id), context));
  fc.assert(
    fc.property(fc.constantFrom(...engines), fc.nat(), ({ model }, draw) => {
      const entries = model.entries.filter(
        (entry) => entry.kind !== 'calculation' && entry.kind !== 'context' && entry.kind !== 'length',
      );
      const entry = entries[draw % entries.length];
      const values: (string | boolean | null)[] =
        entry?.kind === 'feature'
          ? [...entry.feature.options.map(({ id }) => id), null, true, false]
          : entry?.kind === 'yesno'
            ? [true, false, null]
            : entry?.kind === 'number'
              ? [entry.parameter.least, entry.parameter.most, null]
              : entry?.kind === 'date'
                ? [entry.parameter.least, null]
                : ['Gate 1', null];
      const on =
        entry?.kind === 'feature' && entry.many
          ? `${entry.id}.${entry.feature.options[0]?.id ?? ''}`
          : (entry?.id ?? '');
      for (const value of values)
        if (checkDecisions(model, [{ on, value }]).length === 0)
          expect(
            contentInput.isValidSync({ version: 1, decisions: [{ on, value }], passed: [], special: [] }),
          ).toBe(true);
    }),
  );
});

describe('the lead time as a formula', () => {
  it.each(['ridgeback', 'beacon', 'tarn', 'plumb', 'quarryGate', 'farmDriveOver'])(
    'is the lead time of %s',
    (id) => {
      const model = demoModel(id);
      const engine = createEngine(model, context);
      const formula = leadFormula(model, items);
      const starts: Decision[][] = [
        [],
        ...Object.values(engine.state({ decisions: [] }).rows)
          .flatMap((row) =>
            (row.options ?? [])
              .filter(({ standing }) => standing === 'free')
              .map((option) => [demoTarget(row.id, option.id, Array.isArray(row.value))]),
          )
          .slice(0, 8),
      ];
      let told = 0;
      for (const decisions of starts) {
        const found = engine.best({ decisions }, { minimize: [] }, { budget: 20_000 });
        if (found.is !== 'found') continue;
        const { values } = engine.state({ decisions: found.decisions });
        const days = leadDays(model, values, items);
        if (days === null) continue;
        told += 1;
        expect([decisions, String(new Reading(model, values).run(formula))]).toEqual([
          decisions,
          String(days),
        ]);
      }
      expect(told).toBeGreaterThan(0);
    },
  );

  it('finds the soonest build, and keeps below a ceiling', () => {
    const engine = createEngine(demoModel('ridgeback'), context);
    const decisions = needs.ridgeback ?? [];
    const now = engine.state({ decisions });
    const free = ['finish', 'cellKind', 'junctionBox', 'terminals'];
    const days = (wish: BestWish) => {
      const found = bestFor({ engine, tariff, items }, { decisions }, wish, {});
      return found.is === 'found'
        ? leadDays(engine.model, engine.state({ decisions: found.decisions }).values, items)
        : null;
    };
    const soonest = days({ weights: [{ measure: 'lead', weight: '1' }], bounds: [], free });
    expect(soonest).not.toBeNull();
    expect(soonest).toBeLessThanOrEqual(leadDays(engine.model, now.values, items) ?? 0);
    expect(days({ ...cheapest, bounds: [{ measure: 'lead', most: String(soonest) }], free })).toBe(soonest);
    expect(
      days({ ...cheapest, bounds: [{ measure: 'lead', most: String((soonest ?? 0) - 1) }], free }),
    ).toBeNull();
  });
});
