/** The price as a sum of formulas is the price; a bundle's prices inside take off what they say. */
import { describe, expect, it } from 'vitest';
import { demoModel, demoTariff } from '../../../../scripts/demo-documents';
import { createEngine, type Decision } from '../../engine';
import { exact, Exact } from '../../exact';
import { Reading, type CompiledModel } from '../../model';
import { priceBuild, priceTerms, walk } from '..';

const tariff = demoTariff('EUR');
const context = { date: '2026-06-01', values: { region: 'eu' } };
const decided = (text: string): Decision[] =>
  text
    .split(' ')
    .filter(Boolean)
    .map((each) => {
      const [on = '', value = ''] = each.split('=');
      return { on, value: value === 'yes' ? true : value === 'no' ? false : value };
    });
const valuesOf = (model: CompiledModel, decisions: string) =>
  createEngine(model, context).state({ decisions: decided(decisions) }).values;
const sumOf = (model: CompiledModel, decisions: string, by = tariff): string => {
  const reading = new Reading(model, valuesOf(model, decisions));
  return priceTerms(model, by)
    .reduce((sum, { formula, weight }) => {
      const value = reading.run(formula);
      return value instanceof Exact ? sum.plus(value.times(weight)) : sum;
    }, exact(0))
    .toString();
};

describe('the price as a sum', () => {
  it.each([
    ['ridgeback', 'vehicle=articulated length=m18'],
    [
      'ridgeback',
      'vehicle=rigid length=custom customLength=13.5 width=custom customWidth=3.85 surface=grating',
    ],
    [
      'ridgeback',
      'vehicle=mining length=m24 docket=site users=12 warranty=y15 response=h4 finish=duplex approachParts.walkways=yes approachParts/walkways/quantity=12',
    ],
    [
      'ridgeback',
      'vehicle=articulated length=m12 terminals.beacon=yes terminals/beacon/quantity=2 terminals/beacon/1/housing=stainless terminals/beacon/2/interfaces.fieldbus=yes',
    ],
    ['beacon', 'plateText=GATE interfaces.ethernet=yes printer=ticket'],
    ['tarn', 'pad=p15 pads=8 extras.mats=yes extras/mats/quantity=10'],
    [
      'quarryGate',
      'scale/ridgeback/1/vehicle=articulated scale/ridgeback/1/length=m18 gateParts.kiosk=yes gateParts.loop=yes gateParts.lamp=yes',
    ],
    ['farmDriveOver', 'scale=tarn more.visit=yes plateText=HILL'],
  ])('%s with %s', (id, decisions) => {
    const model = demoModel(id);
    const price = priceBuild(model, valuesOf(model, decisions), tariff);
    expect(price.open).toEqual([]);
    expect(sumOf(model, decisions)).toBe(price.list);
  });
});

describe('prices inside a bundle', () => {
  const model = demoModel('quarryGate');
  const base = 'scale/ridgeback/1/vehicle=articulated scale/ridgeback/1/length=m18';
  const part = (decisions: string, id: string) =>
    priceBuild(model, valuesOf(model, decisions), tariff).parts.find((each) => each.id === id);

  it('include what comes without charge, and take a share off what they name', () => {
    const commissioning = part(base, 'scale/ridgeback/1/commissioning');
    expect(part(base, 'commissioningIncluded')).toMatchObject({
      kind: 'inside',
      rate: '1',
      amount: exact(commissioning?.amount ?? '0')
        .negated()
        .toString(),
    });
    const deck = part(base, 'scale/ridgeback/1/deckPlate');
    expect(part(base, 'bridgeLess')?.amount).toBe(
      exact(deck?.amount ?? '0')
        .times('-0.04')
        .toString(),
    );
  });
  it('hold under their condition only', () => {
    expect(part(`${base} gateParts.kiosk=yes`, 'gateLess')).toBeUndefined();
    // Kiosk, intercom (by rule) and two loops: 6 % off their sum.
    const three = `${base} gateParts.kiosk=yes gateParts.loop=yes`;
    const sum = ['kiosk', 'intercom', 'loop'].reduce<Exact>(
      (all, id) => all.plus(part(three, `gateParts.${id}`)?.amount ?? 'NaN'),
      exact(0),
    );
    expect(part(three, 'gateLess')?.amount).toBe(sum.times('-0.06').toString());
  });
  it('stand on the walk between list and surcharges, and what is there once is taken off once', () => {
    const price = priceBuild(model, valuesOf(model, base), tariff);
    const line = walk(price.parts, { quantity: 3, day: '2026-06-01' }, 2);
    expect(line.steps.map((step) => step.kind).slice(0, 3)).toEqual(['list', 'inside', 'inside']);
    expect(line.once?.list).toBe(part(base, 'training.half')?.amount);
    const contract = line.subscriptions?.[0];
    expect(exact(line.list).toString()).toBe(
      exact(line.unitList)
        .times(3)
        .plus(line.once?.list ?? 0)
        .plus(contract?.list ?? 0)
        .toString(),
    );
    expect(contract?.recurring).toMatchObject({
      baseMonths: 12,
      months: 12,
      perMonth: exact(contract?.net ?? 0)
        .div(12)
        .toString(),
    });
  });
  it('reach a terminal of the farm drive-over with all that it brings', () => {
    const farm = demoModel('farmDriveOver');
    const { parts } = priceBuild(
      farm,
      valuesOf(farm, 'scale=tarn plateText=HILL terminal/beacon/1/interfaces.ethernet=yes'),
      tariff,
    );
    const terminal = parts
      .filter((each) => each.place === 'terminal/beacon/1')
      .reduce((sum, each) => sum.plus(each.amount), exact(0));
    expect(parts.some((each) => each.id === 'terminal/beacon/1/plate')).toBe(true);
    expect(parts.find((each) => each.id === 'terminalLess')?.amount).toBe(terminal.times('-0.1').toString());
  });
  it('may be prices of their own, with what is taken off counted from them', () => {
    const own = {
      ...tariff,
      inside: {
        quarryGate: { 'YE-LOOP': '200', 'YE-KIOSK': '1000.5', 'RB-HUB': '1' },
        ridgeback: { 'RB-HUB': '5' },
        elsewhere: { 'YE-LOOP': '1' },
      },
    };
    const decisions = `${base} gateParts.kiosk=yes gateParts.loop=yes`;
    const price = priceBuild(model, valuesOf(model, decisions), own);
    const at = (id: string) => price.parts.find((each) => each.id === id);
    const [loop, kiosk, intercom] = ['loop', 'kiosk', 'intercom'].map((id) => at(`gateParts.${id}`));
    expect(at('gateParts.loop.own')).toMatchObject({
      kind: 'inside',
      of: 'gateParts.loop',
      amount: exact('200')
        .times(loop?.quantity ?? 1)
        .minus(loop?.amount ?? 0)
        .toString(),
    });
    // 6 % off what the three come to at these prices.
    expect(at('gateLess')?.amount).toBe(
      exact('200')
        .times(loop?.quantity ?? 1)
        .plus(exact('1000.5').times(kiosk?.quantity ?? 1))
        .plus(intercom?.amount ?? 'NaN')
        .times('-0.06')
        .toString(),
    );
    // A bundle's own price is for what a build inside lists at, whatever price of its own that one has.
    const hubs = price.parts
      .filter((each) => each.item === 'RB-HUB' || each.of === 'scale/ridgeback/1/junctionBox.hub')
      .map(({ amount }) => amount);
    expect(hubs.reduce((sum, each) => sum.plus(each), exact(0)).toString()).toBe('1');
    expect(hubs).toHaveLength(3);
    expect(sumOf(model, decisions, own)).toBe(price.list);
  });
});
