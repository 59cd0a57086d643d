/** What an option would do to the price with all that follows, held against taking it. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createEngine, type Decision } from '../engine';
import { exact } from '../exact';
import { priceBuild } from '../pricing';
import { demoModel, demoTariff } from '../../../scripts/demo-documents';
import { effectOfOffer, effectsOf, offersOf, sureOf } from './effects';
import { type BenchMeans } from './picture';

const tariff = demoTariff('EUR');
const engine = createEngine(demoModel('ridgeback'), { date: '2026-06-01', values: { region: 'eu' } });
const means: BenchMeans = {
  engine,
  tariff,
  terms: { quantity: 1, day: '2026-06-01', hand: { by: 'rate', value: '0' } },
  facts: {},
};
const decided = (values: Record<string, string | boolean>): Decision[] =>
  Object.entries(values).map(([on, value]) => ({ on, value }));
const at = (decisions: Decision[]) => {
  const state = engine.state({ decisions });
  return {
    state,
    price: priceBuild(engine.model, state.values, tariff),
    offers: offersOf(engine.model, state),
  };
};
const effects = (decisions: Decision[]): Record<string, string | null> => {
  const now = at(decisions);
  return Object.fromEntries(
    now.offers.map((offer) => [offer.key, effectOfOffer(means, { decisions, special: [] }, now, offer)]),
  );
};

describe('the effect of an offer', () => {
  const usual = decided({ vehicle: 'articulated', length: 'm12' });

  it('counts what rules and usual values make of it', () => {
    const found = effects(usual);
    // With a road train capacity and cable go up by themselves; the licence comes with its users, and a link
    // at the terminal.
    expect([found['vehicle.roadTrain'], found['capacity.c80']]).toEqual(['696', '580']);
    expect(Number(found['docket.site'])).toBeGreaterThan(0);
    expect(found['length.custom']).toBeNull();
  });

  it('is told before the build is complete where it completes it, and else only where nothing still open can change it', () => {
    const found = effects(decided({ vehicle: 'articulated' }));
    expect([found['length.m8'], found['length.m24']].map((each) => Number(each) > 0)).toEqual([true, true]);
    expect(Number(found['length.m24'])).toBeGreaterThan(Number(found['length.m8']));
    expect(found['length.custom']).toBeNull();
    // By the area of the deck, which waits for its length; by the module; and by nothing but itself.
    expect([found['finish.c5'], found['mounting.pit']]).toEqual([null, null]);
    expect(found.lightning).toBe(effects(usual).lightning);
  });

  it('that is told before the build is complete is the same once it is, whatever is chosen', () => {
    const later = fc.record({
      length: fc.constantFrom('m8', 'm12', 'm18', 'm24'),
      vehicle: fc.constantFrom('rigid', 'articulated', 'roadTrain', 'mining'),
    });
    fc.assert(
      fc.property(
        fc.constantFrom<Record<string, string>>(
          {},
          { vehicle: 'articulated' },
          { length: 'm12' },
          { cellKind: 'digital' },
        ),
        later,
        (begun, rest) => {
          const early = effects(decided(begun));
          const whole = decided({ ...rest, ...begun });
          const { state, price } = at(whole);
          if (!state.complete) return;
          for (const [key, effect] of Object.entries(early)) {
            // In a row that is open itself the option counts in full, since nothing stands in its place.
            if (
              effect === null ||
              at(decided(begun)).state.rows[key.split('.')[0] ?? '']?.value === undefined
            )
              continue;
            const offer = at(whole).offers.find((each) => each.key === key);
            if (offer)
              expect([
                key,
                begun,
                rest,
                effectOfOffer(means, { decisions: whole, special: [] }, { state, price }, offer),
              ]).toEqual([key, begun, rest, effect]);
          }
        },
      ),
      { numRuns: 25 },
    );
  });

  it('of all offers is worked out as far as one lets it, and goes on from there', () => {
    const now = at(usual);
    let left = 5;
    const some = effectsOf(means, { decisions: usual, special: [] }, now, {}, () => left-- > 0);
    expect(Object.keys(some).length).toBe(5);
    const all = effectsOf(means, { decisions: usual, special: [] }, now, some, () => true);
    expect(all).toEqual(effects(usual));
    expect(Object.values(sureOf(all))).not.toContain(null);
  });

  it('offers exactly what is free and not there yet', () => {
    const { state, offers } = at(usual);
    const keys = offers.map(({ key }) => key);
    expect(keys).not.toContain('vehicle.articulated');
    // Needs capacity 60 t or more: a swap, were it less.
    expect(
      at([...usual, { on: 'capacity', value: 'c60' }, { on: 'surface', value: 'grating' }]).offers.map(
        ({ key }) => key,
      ),
    ).not.toContain('capacity.c80');
    for (const { key, decision } of offers) {
      const [row = '', option] = key.split('.');
      const of = state.rows[row];
      if (option === undefined) expect([key, decision.value]).toEqual([key, of?.value !== true]);
      else
        expect(of?.options?.find(({ id }) => id === option)).toMatchObject({
          standing: 'free',
          taken: false,
        });
    }
  });

  it('is what the list price moves by once it is taken', () => {
    const choice = fc.array(fc.nat(500), { minLength: 0, maxLength: 6 });
    fc.assert(
      fc.property(choice, fc.nat(500), (walk, last) => {
        let decisions = usual;
        for (const step of walk) {
          const { offers } = at(decisions);
          const one = offers[step % offers.length];
          if (one) decisions = [...decisions.filter(({ on }) => on !== one.decision.on), one.decision];
        }
        const now = at(decisions);
        const { price, offers } = now;
        const offer = offers[last % offers.length];
        if (!offer) return;
        const effect = effectOfOffer(means, { decisions, special: [] }, now, offer);
        const after = at(
          [...decisions, offer.decision].filter(
            ({ on }, index, all) => all.findLastIndex((each) => each.on === on) === index,
          ),
        ).price;
        if (effect === null) expect(after.open.length).toBeGreaterThan(0);
        else expect(exact(price.list).plus(effect).toString()).toBe(after.list);
      }),
      { numRuns: 60 },
    );
  });
});
