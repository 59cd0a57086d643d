/**
 * Where a document stands in a model: at the top, or as a build inside a build.
 *
 * A build inside is compiled into the same entries as what is around it, each row under the way to its place,
 * such as "terminals/beacon/1/housing". So one engine decides over all of them, and rules may reach across.
 */
import { exact } from '../exact';
import {
  Day,
  readUnit,
  type Binding,
  type Expr,
  type Facts,
  type FeelType,
  type Place,
  type Told,
} from '../formula';
import type {
  ChoiceParameter,
  Feature,
  ModelDocument,
  Option,
  Parameter,
  Property,
  Quantity,
  Texts,
  YesNoParameter,
} from './document';
import type { Entry, Pick } from './entries';
import { countedApart } from './counting';
import { all, compared, holds, literal, named } from './expressions';
import { gridOf, mostValues, type Grid } from './grid';
import type { ModelProblem } from './problem';

/** A yes or no. */
export const yesno: FeelType = { is: 'yesno' };
/** A number of any unit. */
export const anyNumber: FeelType = { is: 'number', unit: 'any' };
const pure: FeelType = { is: 'number', unit: readUnit('') };

/** Where a build inside stands. */
export interface Home {
  /** "" at the top, "terminals/beacon/1/" inside. */
  prefix: string;
  document: ModelDocument;
  scope: Map<string, Binding>;
  /** Holds where the place exists; absent at the top. */
  when?: Expr;
  /** Rows of places further out that stand for rows here of the same id. */
  above: ReadonlyMap<string, Binding>;
  inside: Inside[];
  /** What it brings, its own and that of the places inside. */
  brought: Brought[];
}

/** A build that an option brings. */
export interface Inside {
  on: string;
  index: number;
  home: Home;
}

/** Something picked: what formulas can read of it. */
interface Brought {
  when: Expr;
  quantity: Expr;
  item: string;
  told: Readonly<Record<string, string>>;
}

/** A model while it is compiled. */
export interface Draft {
  /** An entry whose formulas come later. */
  entry: Entry;
  home: Home;
  type: FeelType;
  /** Beside its place's existing: an option's being taken. */
  under?: Expr;
}

/** Says that something in the document is wrong, and where. */
export type Report = (path: string, code: ModelProblem['code'], params?: ModelProblem['params']) => void;

const deepest = 5;
const mostBuilds = 100;

/** Declares every row and calculation of a document and of the builds inside it. */
export class Declaration {
  readonly drafts: Draft[] = [];
  readonly slots = new Map<string, number>();
  readonly picks: (Omit<Pick, 'builds'> & { home: Home })[] = [];
  /** Builds that wait until every row beside them is declared. */
  private later: (() => void)[] = [];

  constructor(
    private readonly report: Report,
    /** A model that stands inside, once it has been found to be sound by itself. */
    /** A model of the library; or that it is one further out, not sound in itself, or not there. */
    private readonly modelOf: (id: string) => ModelDocument | 'around' | 'unsound' | 'unknown',
  ) {}

  top(document: ModelDocument): Home {
    const home: Home = { prefix: '', document, scope: new Map(), above: new Map(), inside: [], brought: [] };
    this.add(home, 'today', { kind: 'context', id: 'today', type: { is: 'date' } }, { is: 'date' });
    for (const input of document.context) {
      const type: FeelType = { is: 'text', of: new Set(input.values.map((value) => value.id)) };
      this.add(home, input.id, { kind: 'context', id: input.id, type }, type);
    }
    this.checkTold(document);
    this.fill(home, []);
    return home;
  }

  /** Whether what is told of items is what its properties say. */
  private checkTold({ properties = [], items = {} }: ModelDocument): void {
    for (const [sku, told] of Object.entries(items))
      for (const property of properties) {
        const value = told[property.id];
        if (value !== undefined && !isToldBy(property, value))
          this.report(`items.${sku}.${property.id}`, 'model.badTargetValue', { value });
      }
  }

  private add(home: Home, id: string, entry: Entry, type: FeelType, under?: Expr): Expr {
    if (home.scope.has(id) || this.slots.has(entry.id)) this.report(entry.id, 'model.duplicateId', { id });
    const slot = this.drafts.length;
    this.drafts.push({ entry, home, type, ...(under ? { under } : {}) });
    this.slots.set(entry.id, slot);
    if (!id.includes('/')) home.scope.set(id, { slot, type, id: entry.id });
    return named(entry.id, slot);
  }

  private fill(home: Home, within: readonly string[]): void {
    const { document, prefix, above } = home;
    for (const feature of document.features)
      if (!above.has(feature.id) || !this.fromAbove(home, feature.id, choiceType(feature)))
        this.feature(home, feature, within);
    for (const parameter of document.parameters)
      if (!above.has(parameter.id) || !this.fromAbove(home, parameter.id, this.typeOf(parameter)))
        this.parameter(home, parameter);
    for (const build of this.later.splice(0)) build();
    for (const calculation of document.calculations) {
      const type: FeelType =
        calculation.type === 'number'
          ? { is: 'number', unit: readUnit(calculation.unit ?? '') }
          : calculation.type === 'text'
            ? { is: 'text' }
            : yesno;
      this.add(
        home,
        calculation.id,
        { kind: 'calculation', id: prefix + calculation.id, calculation, formula: undefined as never },
        type,
      );
    }
    if (document.properties && !home.scope.has('picked'))
      home.scope.set('picked', {
        slot: NaN,
        type: { is: 'places', places: this.pickedPlaces(home), many: true },
      });
  }

  /** Takes a row from further out where one of this id reaches down. */
  private fromAbove(home: Home, id: string, type: FeelType): boolean {
    const binding = home.above.get(id);
    if (!binding) return false;
    const wide = this.drafts[binding.slot]?.entry;
    const own = home.document.parameters.find((each) => each.id === id);
    const fits =
      type.is === binding.type.is &&
      (type.is !== 'text' ||
        [...((binding.type as Extract<FeelType, { is: 'text' }>).of ?? [])].every((option) =>
          type.of?.has(option),
        )) &&
      (wide?.kind !== 'number' ||
        (own?.type === 'number' &&
          own.unit === wide.parameter.unit &&
          ['least', 'most', 'step'].every((key) =>
            exact(own[key as 'least']).eq(wide.parameter[key as 'least']),
          ))) &&
      (wide?.kind !== 'date' ||
        (own?.type === 'date' && own.least <= wide.parameter.least && wide.parameter.most <= own.most)) &&
      (wide?.kind !== 'text' || (own?.type === 'text' && wide.parameter.most <= own.most));
    if (!fits) this.report(home.prefix + id, 'model.reachesOther', { id });
    home.scope.set(id, binding);
    return true;
  }

  private typeOf(parameter: Parameter): FeelType {
    switch (parameter.type) {
      case 'number':
        return { is: 'number', unit: readUnit(parameter.unit) };
      case 'date':
        return { is: 'date' };
      case 'yesno':
        return yesno;
      case 'text':
        return { is: 'text' };
      case 'choice':
        return choiceType(featureOf(parameter));
    }
  }

  /** A grid that has values, and no more than can be told apart. */
  private sound(path: string, made: Grid | null, shown: Record<string, string>): Grid | null {
    if (!made) this.report(path, 'model.badRange', shown);
    else if (made.count > mostValues)
      this.report(path, 'model.tooFine', { ...shown, count: made.count, limit: mostValues });
    else return made;
    return null;
  }

  private parameter(home: Home, parameter: Parameter): void {
    const id = home.prefix + parameter.id;
    const type = this.typeOf(parameter);
    const path = `parameters.${id}`;
    const grid = (made: Grid | null, shown: Record<string, string>): Grid => {
      return (
        this.sound(path, made, shown) ?? {
          of: 'number',
          least: exact(0),
          step: exact(1),
          count: 1,
          optional: false,
        }
      );
    };
    switch (parameter.type) {
      case 'choice': {
        const feature = featureOf(parameter);
        this.checkFeature(path, feature);
        this.add(home, parameter.id, { kind: 'feature', id, feature, many: false }, type);
        break;
      }
      case 'yesno': {
        const own = this.add(home, parameter.id, { kind: 'yesno', id, parameter }, type);
        if (parameter.item)
          this.bring(home, { on: id, row: id, name: parameter.name, when: own, thing: parameter, place: '' });
        break;
      }
      case 'number': {
        const { least, most, step, optional } = parameter;
        this.add(
          home,
          parameter.id,
          {
            kind: 'number',
            id,
            parameter,
            grid: grid(gridOf('number', exact(least), exact(most), exact(step), optional), {
              least,
              most,
              step,
            }),
          },
          type,
        );
        break;
      }
      case 'date': {
        const { least, most, optional } = parameter;
        const [from, until] = [Day.read(least), Day.read(most)];
        const made =
          from && until && gridOf('day', exact(from.number), exact(until.number), exact(1), optional);
        this.add(
          home,
          parameter.id,
          { kind: 'date', id, parameter, grid: grid(made, { least, most, step: '1' }) },
          type,
        );
        break;
      }
      case 'text': {
        const made = gridOf('length', exact(1), exact(parameter.most), exact(1), parameter.optional);
        const length = this.drafts.length;
        const own = this.add(
          home,
          `${parameter.id}/length`,
          {
            kind: 'length',
            id: `${id}/length`,
            text: id,
            grid: grid(made, { least: '1', most: String(parameter.most), step: '1' }),
          },
          pure,
        );
        this.add(home, parameter.id, { kind: 'text', id, parameter, length }, { is: 'text', length: own });
      }
    }
  }

  private checkFeature(path: string, { options, least, most, usual = [] }: Feature): void {
    const ids = options.map((option) => option.id);
    const twice =
      new Set(ids).size < ids.length ? ids.find((id, index) => ids.indexOf(id) !== index) : undefined;
    if (twice !== undefined) this.report(path, 'model.duplicateId', { id: twice });
    if (least > most || least > ids.length)
      this.report(path, 'model.cardinality', { least, options: ids.length });
    for (const each of usual)
      if (!ids.includes(each)) this.report(path, 'model.badTargetValue', { value: each });
  }

  private feature(home: Home, feature: Feature, within: readonly string[]): void {
    const id = home.prefix + feature.id;
    const many = feature.most > 1;
    const type = choiceType(feature);
    this.checkFeature(`features.${id}`, feature);
    const own = this.add(home, feature.id, { kind: 'feature', id, feature, many }, type);
    const { properties = [], items = {} } = home.document;
    const telling = feature.options.filter(
      (option) => option.item !== undefined || option.quantity !== undefined || option.model !== undefined,
    );
    if (telling.length === 0) return;
    const told = new Map<string, Told>();
    const options = new Map<string, FeelType>();
    for (const property of properties) {
      const cases = telling.flatMap((option): [string, Expr][] => {
        const value = option.item === undefined ? undefined : items[option.item]?.[property.id];
        return value === undefined ? [] : [[option.id, toldOf(property, value)]];
      });
      if (cases.length > 0) told.set(property.id, { type: toldType(property), cases });
    }
    const quantities: [string, Expr][] = [];
    for (const option of feature.options) {
      const when = many ? holds(own, option.id) : compared(own, '=', literal(option.id));
      const quantity =
        option.item !== undefined || option.quantity !== undefined || option.model !== undefined
          ? this.bring(home, {
              on: `${id}.${option.id}`,
              row: id,
              option: option.id,
              name: option.name,
              when,
              thing: option,
              place: `${feature.id}/${option.id}/`,
            })
          : literal(exact(1));
      quantities.push([option.id, quantity]);
      if (option.model !== undefined) {
        const places: Place[] = [];
        options.set(option.id, { is: 'places', places, many: mostOf(option) > 1 });
        // What reaches down must be there first.
        this.later.push(() =>
          places.push(...this.builds(home, option, `${feature.id}/${option.id}`, when, quantity, within)),
        );
      } else if (many && (told.size > 0 || option.quantity !== undefined))
        options.set(option.id, {
          is: 'places',
          places: [placeOfOption(option, when, quantity, told)],
          many: false,
        });
    }
    if (telling.some((option) => option.quantity !== undefined))
      told.set('quantity', { type: pure, cases: quantities });
    const clash = [...told.keys()].find((each) => feature.options.some((option) => option.id === each));
    if (clash !== undefined && options.has(clash))
      this.report(`features.${id}`, 'model.duplicateId', { id: clash });
    const facts: Facts = { told, options };
    const text: FeelType = { is: 'text', of: new Set(feature.options.map((option) => option.id)), facts };
    const one: FeelType = many ? { is: 'list', item: text } : text;
    home.scope.set(feature.id, { slot: this.slots.get(id) as number, type: one, id });
  }

  /** Notes what an option or a yes/no parameter brings, and gives how many. */
  private bring(
    home: Home,
    {
      on,
      row,
      option,
      name,
      when,
      thing,
      place,
    }: {
      on: string;
      row: string;
      option?: string;
      name: Texts;
      when: Expr;
      thing: Option | YesNoParameter;
      place: string;
    },
  ): Expr {
    const { item, quantity } = thing;
    const id = `${place === '' ? `${thing.id}/` : place}quantity`;
    const many =
      quantity === undefined
        ? literal(exact(1))
        : this.quantity(
            home,
            id,
            quantity,
            { feature: row, option: option ?? '' },
            all(home.when, when),
            name,
          );
    const counts = typeof quantity === 'object' ? countedApart(quantity.counts) : undefined;
    this.picks.push({
      on,
      row,
      name,
      ...(counts === undefined ? {} : { counts }),
      home,
      ...(option === undefined ? {} : { option }),
      ...(item === undefined ? {} : { item }),
      ...(quantity === undefined ? {} : { quantity: home.prefix + id }),
    });
    if (item !== undefined)
      home.brought.push({
        when: all(home.when, when) as Expr,
        quantity: many,
        item,
        told: home.document.items?.[item] ?? {},
      });
    return many;
  }

  private quantity(
    home: Home,
    id: string,
    quantity: string | Quantity,
    quantityOf: { feature: string; option: string },
    under: Expr | undefined,
    name: Texts,
  ): Expr {
    const full = home.prefix + id;
    if (typeof quantity === 'string' || quantity.fixed === true) {
      const formula = typeof quantity === 'string' ? quantity : quantity.usual;
      return this.add(
        home,
        id,
        {
          kind: 'calculation',
          id: full,
          calculation: { id, name, type: 'number', formula },
          formula: undefined as never,
          quantityOf,
        },
        anyNumber,
      );
    }
    const { least = '1', most, step = '1' } = quantity;
    const grid = this.sound(`features.${full}`, gridOf('number', exact(least), exact(most), exact(step)), {
      least,
      most,
      step,
    });
    const parameter = { id, type: 'number', name, unit: '', least, most, step } as const;
    return this.add(
      home,
      id,
      {
        kind: 'number',
        id: full,
        parameter,
        grid: grid ?? { of: 'number', least: exact(1), step: exact(1), count: 1, optional: false },
        quantityOf,
      },
      pure,
      under,
    );
  }

  /** The builds that an option brings, as places; the second exists where two are taken, and so on. */
  private builds(
    home: Home,
    option: Option,
    way: string,
    taken: Expr,
    quantity: Expr,
    within: readonly string[],
  ): Place[] {
    const id = option.model as string;
    const place = `features.${home.prefix}${way.replace('/', '.')}`;
    if (within.includes(id) || id === home.document.id || within.length >= deepest) {
      this.report(place, within.length >= deepest ? 'model.tooDeep' : 'model.cycle', { id });
      return [];
    }
    const document = this.modelOf(id);
    if (typeof document === 'string') {
      // What is wrong with a model of the library is told there.
      if (document !== 'unsound')
        this.report(place, document === 'around' ? 'model.cycle' : 'model.unknownModel', { id });
      return [];
    }
    const most = mostOf(option);
    if (most > mostBuilds) this.report(place, 'model.tooManyBuilds', { count: most, most: mostBuilds });
    return Array.from({ length: Math.min(most, mostBuilds) }, (_, at): Place => {
      const exists = all(
        home.when,
        all(
          taken,
          option.quantity === undefined ? undefined : compared(quantity, '>=', literal(exact(at + 1))),
        ),
      ) as Expr;
      const inner: Home = {
        prefix: `${home.prefix}${way}/${String(at + 1)}/`,
        document,
        scope: new Map(),
        when: exists,
        above: this.reachingDown(home),
        inside: [],
        brought: [],
      };
      this.contextOf(inner, home);
      this.fill(inner, [...within, home.document.id]);
      home.inside.push({ on: `${home.prefix}${way.replace('/', '.')}`, index: at + 1, home: inner });
      home.brought.push(...inner.brought);
      return { when: exists, fields: inner.scope };
    });
  }

  private reachingDown(home: Home): Map<string, Binding> {
    const { features, parameters } = home.document;
    const own = [...features, ...parameters]
      .filter((each) => each.reachesDown)
      .flatMap((each): [string, Binding][] => {
        const binding = home.scope.get(each.id);
        return binding ? [[each.id, binding]] : [];
      });
    return new Map([...home.above, ...own]);
  }

  private contextOf(inner: Home, outer: Home): void {
    inner.scope.set('today', outer.scope.get('today') as Binding);
    for (const input of inner.document.context) {
      const binding = outer.scope.get(input.id);
      const given = this.drafts[binding?.slot ?? -1]?.entry;
      if (binding && given?.kind === 'context') inner.scope.set(input.id, binding);
      else {
        this.report(`${inner.prefix}${input.id}`, 'model.unknownContext', { id: input.id });
        inner.scope.set(input.id, { slot: 0, type: { is: 'unknown' } });
      }
    }
  }

  /** What is picked here and inside, with the numbers that this document declares. */
  private pickedPlaces(home: Home): Place[] {
    const { properties = [] } = home.document;
    return home.brought.map(({ when, quantity, item, told }): Place => {
      const fields = new Map<string, Binding>([
        ['quantity', { slot: NaN, type: pure, expr: quantity }],
        ['item', { slot: NaN, type: { is: 'text' }, expr: literal(item) }],
      ]);
      for (const property of properties) {
        const value = told[property.id];
        fields.set(property.id, {
          slot: NaN,
          type: toldType(property),
          expr: value === undefined ? literal(null) : toldOf(property, value),
          absent: value === undefined,
        });
      }
      return { when, fields };
    });
  }
}

function placeOfOption(option: Option, when: Expr, quantity: Expr, told: ReadonlyMap<string, Told>): Place {
  const fields = new Map<string, Binding>([['quantity', { slot: NaN, type: pure, expr: quantity }]]);
  for (const [id, { type, cases }] of told) {
    const expr = cases.find(([each]) => each === option.id)?.[1];
    fields.set(id, { slot: NaN, type, expr: expr ?? literal(null), absent: !expr });
  }
  return { when, fields };
}

/** The type of what is told of items. */
const toldType = ({ type = 'number', unit }: Property): FeelType =>
  type === 'number' ? { is: 'number', unit: readUnit(unit) } : type === 'yesno' ? yesno : { is: 'text' };

/** What an item is told, as its property says; nothing where it is no such value, which is reported. */
const toldOf = (property: Property, value: string): Expr =>
  isToldBy(property, value)
    ? literal(
        (property.type ?? 'number') === 'number'
          ? exact(value)
          : property.type === 'yesno'
            ? value === 'true'
            : value,
      )
    : literal(null);

const isToldBy = ({ type = 'number' }: Property, value: string): boolean =>
  type === 'number'
    ? /^-?\d{1,15}(\.\d{1,12})?$/.test(value)
    : type === 'text' || value === 'true' || value === 'false';

const mostOf = ({ quantity }: Option): number => (typeof quantity === 'object' ? Number(quantity.most) : 1);

/** The type that formulas read of a feature: an option, or a list of them. */
export function choiceType({ options, most }: Feature): FeelType {
  const text: FeelType = { is: 'text', of: new Set(options.map((option) => option.id)) };
  return most > 1 ? { is: 'list', item: text } : text;
}

/** A choice parameter is a feature whose options bring nothing. */
const featureOf = ({ id, name, short, help, options, optional, usual }: ChoiceParameter): Feature => ({
  id,
  name,
  least: optional ? 0 : 1,
  most: 1,
  options,
  ...(short ? { short } : {}),
  ...(help ? { help } : {}),
  ...(usual === undefined ? {} : { usual: [usual] }),
});
