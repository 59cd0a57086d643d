/** All that the Bench shows of a build at once: one function for the page's worker and for the server. */
import type { Engine, State } from '../engine';
import { exact } from '../exact';
import {
  markedSpecial,
  numbersInside,
  partNumber,
  registeredOf,
  type PartNumber,
  type Registered,
} from '../numbering';
import {
  costOf,
  priceBuild,
  walk,
  type BuildPrice,
  type LinePrice,
  type LineTerms,
  type Tariff,
} from '../pricing';
import { leadDays, making, type Making } from '../production';
import { open, Reading, type CompiledModel, type Texts } from '../model';
import { specialFacts, specialTariff, type BuildContent } from './content';

/** What a picture of a build is worked out with. */
export interface BenchMeans {
  engine: Engine;
  tariff: Tariff;
  terms: LineTerms;
  facts: Readonly<Record<string, { leadDays: number }>>;
  /** The number registered for the build, while it is still the same build. */
  registered?: Registered | undefined;
  /** The number registered for its special parts. */
  specialNumber?: number | undefined;
}

/** All that the Bench shows of a build. */
export interface BenchPicture {
  state: State;
  number: PartNumber;
  /** Part numbers of the builds inside, by place. */
  inside: Record<string, string>;
  price: BuildPrice;
  line: LinePrice;
  making: Making;
  leadDays: number | null;
  /** Calculations shown beside the build; null while open. */
  figures: { id: string; value: string | null }[];
  /** Every calculation that can be worked out by now. */
  calculated: Record<string, string>;
  /** Why rows whose value is advised have it. */
  advice: Record<string, Texts>;
}

/** Works out all that follows from what a person made. */
export function pictureOf(
  { engine, tariff: listed, terms, facts: usual, registered = {}, specialNumber }: BenchMeans,
  { decisions, special }: Pick<BuildContent, 'decisions' | 'special'>,
): BenchPicture {
  const { model } = engine;
  const [tariff, facts] = [specialTariff(listed, special), specialFacts(usual, special)];
  const state = engine.state({ decisions });
  const { values } = state;
  const numbered = partNumber(model, values, registeredOf(registered, model, values));
  const price = priceBuild(model, values, tariff);
  const made = making(model, values);
  const cost = made.open.length === 0 ? costOf(made, price.parts, tariff) : undefined;
  const reading = new Reading(model, values);
  const { mass, installation, more } = model.document.figures;
  const figures = [mass, installation, ...more].flatMap((id) => {
    if (id === undefined) return [];
    const value = reading.named(id);
    return [{ id, value: value === open || value === null ? null : String(value) }];
  });
  return {
    state,
    number: special.length > 0 ? markedSpecial(numbered, specialNumber) : numbered,
    inside: Object.fromEntries(
      numbersInside(model, values, registered).map((each) => [each.place, each.number.text]),
    ),
    price,
    line: walk(price.parts, terms, tariff.decimals, cost),
    making: made,
    leadDays: leadDays(model, values, facts),
    figures,
    calculated: Object.fromEntries(
      model.document.calculations.flatMap(({ id }) => {
        const value = reading.named(id);
        return value === open || value === null ? [] : [[id, String(value)]];
      }),
    ),
    advice: adviceIn(model, state, reading),
  };
}

/** A picture for those who are not told how it is made. */
export const withoutMaking = (picture: BenchPicture): BenchPicture => ({
  ...picture,
  making: { materials: [], operations: [], open: [] },
  leadDays: null,
});

function adviceIn({ proposals }: CompiledModel, { rows }: State, reading: Reading): Record<string, Texts> {
  const found: Record<string, Texts> = {};
  for (const { rule, source, on, when } of proposals) {
    const row = on.split('.')[0] ?? on;
    const advised =
      rows[row]?.source === 'advised' || rows[row]?.options?.some((option) => option.source === 'advised');
    if (rule && source === 'advised' && advised && !found[on] && (!when || reading.run(when) === true))
      found[on] = rule.reason;
  }
  return found;
}

/** What a change would do to price and lead time, before it is made. */
export interface Effect {
  list: string;
  leadDays: number | null;
}

/** What a decision moved, by the pictures before and after it. */
export function effectOf(before: BenchPicture, after: BenchPicture): Effect {
  const days = before.leadDays !== null && after.leadDays !== null ? after.leadDays - before.leadDays : null;
  return { list: exact(after.price.list).minus(before.price.list).toString(), leadDays: days };
}
