/** What an option would do to the price with all that follows, held against taking it. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createEngine, type Decision } from '../engine';
import { exact } from '../exact';
import { priceBuild, priceDifferences } from '../pricing';
import { demoModel, demoTariff } from '../../../scripts/demo-documents';
import { differencesWith, effectOfOffer, offersOf, type BenchMeans } from './index';

const tariff = demoTariff('EUR');
const engine = createEngine(demoModel('ridgeback'), { date: '2026-06-01', values: { region: 'eu' } });
const means: BenchMeans = { engine, tariff, terms: { quantity: 1, day: '2026-06-01', hand: { by: 'rate', value: '0' } }, facts: {} };
const decided = (values: Record<string, string | boolean>): Decision[] => Object.entries(values).map(([on, value]) => ({ on, value }));
const at = (decisions: Decision[]) => {
  const state = engine.state({ decisions });
  return { state, price: priceBuild(engine.model, state.values, tariff), offers: offersOf(engine.model, state) };
};
const effects = (decisions: Decision[]): Record<string, string | null> => {
  const { price, offers } = at(decisions);
  return Object.fromEntries(offers.map((offer) => [offer.key, effectOfOffer(means, { decisions, special: [] }, price, offer)]));
};

describe('the effect of an offer', () => {
  const usual = decided({ vehicle: 'articulated', length: 'm12' });

  it('counts what rules and usual values make of it, where the quick difference leaves everything else as it is', () => {
    const quick = priceDifferences(engine.model, at(usual).state.values, tariff);
    const found = effects(usual);
    // With a road train capacity and cable go up by themselves; the licence comes with its users, and a link at the terminal.
    expect([quick['vehicle.roadTrain'], found['vehicle.roadTrain']]).toEqual(['0', '696']);
    expect([quick['capacity.c80'], found['capacity.c80']]).toEqual(['580', '580']);
    expect(quick['docket.site']).toBeUndefined();
    expect(Number(found['docket.site'])).toBeGreaterThan(0);
    expect(found['finish.c5']).toBe(quick['finish.c5']);
  });

  it('is told in a row that is still open, and not where something else opens with it', () => {
    const found = effects(decided({ vehicle: 'articulated' }));
    expect([found['length.m8'], found['length.m24']].map((each) => Number(each) > 0)).toEqual([true, true]);
    expect(Number(found['length.m24'])).toBeGreaterThan(Number(found['length.m8']));
    expect(found['length.custom']).toBeNull();
    expect(effects(usual)['length.custom']).toBeNull();
  });

  it('offers exactly what is free and not there yet', () => {
    const { state, offers } = at(usual);
    const keys = offers.map(({ key }) => key);
    expect(keys).not.toContain('vehicle.articulated');
    // Needs capacity 60 t or more: a swap, were it less.
    expect(at([...usual, { on: 'capacity', value: 'c60' }, { on: 'surface', value: 'grating' }]).offers.map(({ key }) => key)).not.toContain('capacity.c80');
    for (const { key, decision } of offers) {
      const [row = '', option] = key.split('.');
      const of = state.rows[row];
      if (option === undefined) expect([key, decision.value]).toEqual([key, of?.value !== true]);
      else expect(of?.options?.find(({ id }) => id === option)).toMatchObject({ standing: 'free', taken: false });
    }
  });

  it('is what the list price moves by once it is taken', () => {
    const choice = fc.array(fc.nat(500), { minLength: 0, maxLength: 6 });
    fc.assert(fc.property(choice, fc.nat(500), (walk, last) => {
      let decisions = usual;
      for (const step of walk) {
        const { offers } = at(decisions);
        const one = offers[step % offers.length];
        if (one) decisions = [...decisions.filter(({ on }) => on !== one.decision.on), one.decision];
      }
      const { price, offers } = at(decisions);
      const offer = offers[last % offers.length];
      if (!offer) return;
      const effect = effectOfOffer(means, { decisions, special: [] }, price, offer);
      const after = at([...decisions, offer.decision].filter(({ on }, index, all) => all.findLastIndex((each) => each.on === on) === index)).price;
      if (effect === null) expect(after.open.length).toBeGreaterThan(0);
      else expect(exact(price.list).plus(effect).toString()).toBe(after.list);
    }), { numRuns: 60 });
  });
});

describe('what stands on an option', () => {
  const quick = { a: '1', b: '2', c: '3' };

  it('is the effect as long as the quick difference says what it said then', () => {
    const known = { quick, found: { a: '10', b: null, d: '40' } };
    expect(differencesWith(quick, known)).toEqual({ a: '10', c: '3', d: '40' });
    expect(differencesWith({ a: '5', b: '2', c: '3', d: '7' }, known)).toEqual({ a: '5', c: '3', d: '7' });
    expect(differencesWith(quick, { quick: {}, found: {} })).toEqual(quick);
  });
});
