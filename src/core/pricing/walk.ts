import type { Exact} from '../exact';
import { exact, roundHalfUp, zero } from '../exact';
import type { BuildCost } from './cost';
import type { LinePrice, LineTerms, PricedPart, WalkStep } from './index';

/**
 * Walks one line from list to net. `parts` is a build's priced parts, or one part for a plain item. What does not grow with the
 * quantity is walked by itself, once, on the same terms, and added to the line.
 */
export function walk(parts: readonly PricedPart[], terms: LineTerms, decimals: number, cost?: BuildCost): LinePrice {
  const once = parts.filter((part) => part.grows !== undefined);
  if (once.length === 0 && (cost === undefined || exact(cost.once).isZero())) return walkUnits(parts, terms, decimals, cost?.unit);
  const units = walkUnits(parts.filter((part) => part.grows === undefined), terms, decimals, cost?.unit);
  const { list, net } = walkUnits(once, { ...terms, quantity: 1 }, decimals);
  const [listSum, netSum] = [exact(units.list).plus(list), exact(units.net).plus(net)];
  const priced = { ...units, list: listSum.toString(), net: netSum.toString(), once: { list, net } };
  if (units.cost === undefined || cost === undefined) return priced;
  const costs = exact(units.cost).plus(cost.once);
  return { ...priced, cost: costs.toString(), ...(netSum.isZero() ? {} : { margin: netSum.minus(costs).div(netSum).toString() }) };
}

function walkUnits(parts: readonly PricedPart[], terms: LineTerms, decimals: number, unitCost?: string): LinePrice {
  const steps: WalkStep[] = [];
  let total = zero;
  const step = (kind: WalkStep['kind'], amount: Exact, more: Partial<WalkStep> = {}): void => {
    total = total.plus(amount) as Exact;
    steps.push({ kind, ...more, amount: amount.toString(), total: total.toString() });
  };
  const sum = (list: readonly PricedPart[]) => list.reduce((all, part) => all.plus(part.amount) as Exact, zero);

  step('list', sum(parts.filter((part) => part.kind === 'part' || part.kind === 'option')));
  for (const kind of ['inside', 'surcharge'] as const) {
    for (const part of parts) if (part.kind === kind) step(kind, exact(part.amount), { name: part.name, ...(part.rate ? { rate: part.rate } : {}) });
  }
  const unitList = total;
  const share = (rate: string) => total.times(rate).negated() as Exact;
  if (terms.agreement && !exact(terms.agreement.rate).isZero()) {
    step('agreement', share(terms.agreement.rate), { rate: terms.agreement.rate, name: terms.agreement.name });
  }
  if (!exact(terms.discount).isZero()) step('discount', share(terms.discount), { rate: terms.discount });
  const unitNet = roundHalfUp(total, decimals);
  if (!unitNet.equals(total)) step('rounding', unitNet.minus(total) as Exact);

  const times = (value: Exact): string => value.times(terms.quantity).toString();
  const net = unitNet.times(terms.quantity);
  const price: LinePrice = { steps, unitList: unitList.toString(), unitNet: unitNet.toString(), list: times(unitList), net: net.toString() };
  if (unitCost === undefined) return price;
  const cost = exact(unitCost).times(terms.quantity);
  const margin = net.isZero() ? {} : { margin: net.minus(cost).div(net).toString() };
  return { ...price, unitCost, cost: cost.toString(), ...margin };
}
