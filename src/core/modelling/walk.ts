/**
 * One walk over all that a document names: it tells of each mention, and puts another id in its place where it is
 * told one. What does not change stays the same object.
 */
import { mentionsIn, mentionsInCell, type Mention } from '../formula';
import type {
  DecisionValue,
  Feature,
  ModelDocument,
  ModelTest,
  Option,
  Parameter,
  Proposed,
  Quantity,
  Rule,
  Segment,
  Shape,
  Texts,
} from '../model';
import { choicesIn, rowsInside, type Mentioned, type Named } from './named';

/** Told of each mention; gives the id that is to stand there instead, or nothing. */
export type See = (mentioned: Mentioned) => string | undefined;

/** A document with what `see` puts in the place of ids. */
export const walked = (document: ModelDocument, see: See): ModelDocument =>
  new Walk(document, see).document();

/** A placeholder in a text: {name}. */
const placeholder = /\{([A-Za-z][A-Za-z0-9/]*)\}/g;

/** What may stand in the place of a part of an object; what is left out there stays left out. */
type Changes<T> = { [K in keyof T]?: T[K] | undefined };

/** The object with some of its parts replaced; itself where none differs. */
function changed<T extends object>(given: T, changes: Changes<T>): T {
  const differing = Object.entries(changes).filter(
    ([name, value]) => value !== undefined && value !== (given as Record<string, unknown>)[name],
  );
  return differing.length === 0 ? given : { ...given, ...Object.fromEntries(differing) };
}

/** The list with each part replaced; itself where none differs. */
function mapped<T>(given: readonly T[], change: (part: T, at: number) => T): T[] {
  const next = given.map(change);
  return next.every((part, at) => part === given[at]) ? (given as T[]) : next;
}

/** A record with keys and values replaced; itself where none differs. */
function remade<V>(
  given: Readonly<Record<string, V>>,
  change: (key: string, value: V) => readonly [string, V],
): Readonly<Record<string, V>> {
  const entries = Object.entries(given);
  const next = entries.map(([key, value]) => change(key, value));
  const same = entries.every(([key, value], at) => next[at]?.[0] === key && next[at][1] === value);
  return same ? given : Object.fromEntries(next);
}

class Walk {
  private readonly choices: ReadonlyMap<string, ReadonlySet<string>>;
  private readonly inside: ReadonlyMap<string, ReadonlySet<string>>;

  constructor(
    private readonly given: ModelDocument,
    private readonly see: See,
  ) {
    this.choices = choicesIn(given);
    this.inside = rowsInside(given);
  }

  document(): ModelDocument {
    const { given } = this;
    const { figures, term, drawing, tests, insidePrices } = given;
    const list = <T extends { id: string }>(
      name: string,
      parts: readonly T[],
      change: (part: T, path: string) => T,
    ) => mapped(parts, (part) => change(part, `${name}.${part.id}`));
    return changed(given, {
      sections: list('sections', given.sections, (section, path) =>
        changed(section, { rows: mapped(section.rows, (row) => this.row(`${path}.rows`, row)) }),
      ),
      features: list('features', given.features, (feature, path) => this.feature(feature, path)),
      parameters: list('parameters', given.parameters, (parameter, path) => this.parameter(parameter, path)),
      calculations: list('calculations', given.calculations, (calculation, path) =>
        changed(calculation, { formula: this.formula(`${path}.formula`, calculation.formula) }),
      ),
      rules: list('rules', given.rules, (rule, path) => this.rule(rule, path)),
      numbering: mapped(given.numbering, (segment, at) => this.segment(segment, `numbering.${String(at)}`)),
      prices: list('prices', given.prices, (price, path) =>
        changed(price, {
          quantity: this.formula(`${path}.quantity`, price.quantity),
          when: this.maybe(`${path}.when`, price.when),
        }),
      ),
      surcharges: list('surcharges', given.surcharges, (surcharge, path) =>
        changed(surcharge, {
          of: mapped(surcharge.of, (id) => this.other('price', `${path}.of`, id)),
          rate: this.formula(`${path}.rate`, surcharge.rate),
          when: this.formula(`${path}.when`, surcharge.when),
        }),
      ),
      insidePrices:
        insidePrices &&
        list('insidePrices', insidePrices, (price, path) =>
          changed(price, {
            of: mapped(price.of, (id) => this.sold(`${path}.of`, id)),
            rate: this.formula(`${path}.rate`, price.rate),
            when: this.maybe(`${path}.when`, price.when),
          }),
        ),
      materials: list('materials', given.materials, (material, path) =>
        changed(material, {
          quantity: this.formula(`${path}.quantity`, material.quantity),
          when: this.maybe(`${path}.when`, material.when),
          cut: this.maybe(`${path}.cut`, material.cut),
        }),
      ),
      operations: list('operations', given.operations, (operation, path) =>
        changed(operation, {
          setUp: this.formula(`${path}.setUp`, operation.setUp),
          run: this.formula(`${path}.run`, operation.run),
          when: this.maybe(`${path}.when`, operation.when),
          text: this.texts(`${path}.text`, operation.text),
        }),
      ),
      extraDays: this.maybe('extraDays', given.extraDays),
      term:
        term &&
        changed(term, {
          start: this.maybe('term.start', term.start),
          months: this.formula('term.months', term.months),
        }),
      drawing:
        drawing &&
        changed(drawing, {
          shapes: list('drawing', drawing.shapes, (shape, path) => this.shape(shape, path)),
          dimensions: list('drawing', drawing.dimensions, (dimension, path) =>
            changed(dimension, {
              view: this.other('view', `${path}.view`, dimension.view),
              from: this.formulas(`${path}.from`, dimension.from),
              to: this.formulas(`${path}.to`, dimension.to),
              offset: this.formula(`${path}.offset`, dimension.offset),
              of: dimension.of && this.way(`${path}.of`, dimension.of),
              when: this.maybe(`${path}.when`, dimension.when),
            }),
          ),
        }),
      figures: changed(figures, {
        mass: figures.mass && this.row('figures.mass', figures.mass),
        installation: figures.installation && this.row('figures.installation', figures.installation),
        more: mapped(figures.more, (id) => this.row('figures.more', id)),
      }),
      tests: tests && list('tests', tests, (test, path) => this.test(test, path)),
    });
  }

  private seen(named: Named, path: string): string {
    return this.see({ named, path }) ?? named.id;
  }

  private row(path: string, id: string): string {
    return this.seen({ is: 'row', id }, path);
  }

  private option(path: string, of: string, id: string): string {
    return this.choices.has(of) ? this.seen({ is: 'option', of, id }, path) : id;
  }

  private other(is: 'rule' | 'price' | 'view' | 'layer', path: string, id: string): string {
    return this.seen({ is, id }, path);
  }

  /** "row", "row.option", "row/option/1/way inside" and "row/option/quantity". */
  private way(path: string, way: string): string {
    const [, row = '', mark = '', option = '', rest = ''] =
      /^([^./]+)(?:([./])([^./]+)(.*))?$/.exec(way) ?? [];
    if (row === '') return way;
    const next = this.row(path, row);
    return mark === '' ? next : `${next}${mark}${this.option(path, row, option)}${rest}`;
  }

  /** What a price inside is of: a price part, or a way. */
  private sold(path: string, id: string): string {
    return this.given.prices.some((price) => price.id === id)
      ? this.other('price', path, id)
      : this.way(path, id);
  }

  /** Whether a name within the filters of some lists is a row of what is in them. */
  private isInner(name: string, within: readonly string[]): boolean {
    return within.some((list) => this.inside.get(list)?.has(name));
  }

  private maybe(path: string, source: string | undefined): string | undefined {
    return source === undefined ? undefined : this.formula(path, source);
  }

  private formulas<T extends string[]>(path: string, sources: T): T {
    return mapped(sources, (source, at) => this.formula(`${path}.${String(at)}`, source)) as T;
  }

  /** What cannot be read mentions nothing that could be told. */
  private formula(path: string, source: string, gives?: string): string {
    return this.spliced(path, source, mentionsIn(source, gives) ?? []);
  }

  private spliced(path: string, source: string, mentions: readonly Mention[]): string {
    let [text, upTo] = ['', 0];
    for (const mention of mentions) {
      const next = this.mention(path, source, mention);
      if (next === undefined) continue;
      text += source.slice(upTo, mention.from) + next;
      upTo = mention.to;
    }
    return upTo === 0 ? source : text + source.slice(upTo);
  }

  /** What is to stand in the place of a mention; nothing where it stays. */
  private mention(path: string, source: string, mention: Mention): string | undefined {
    if (mention.is === 'name')
      return this.isInner(mention.name, mention.within)
        ? undefined
        : this.see({ named: { is: 'row', id: mention.name }, path, source });
    if (mention.is === 'field')
      return this.choices.get(mention.of)?.has(mention.name)
        ? this.see({ named: { is: 'option', of: mention.of, id: mention.name }, path, source })
        : undefined;
    for (const of of mention.of) {
      if (!this.choices.has(of)) continue;
      const next = this.see({ named: { is: 'option', of, id: mention.text }, path, source });
      if (next !== undefined) return JSON.stringify(next);
    }
    return undefined;
  }

  private texts(path: string, texts: Texts): Texts {
    return remade(texts, (language, text) => [
      language,
      text.replace(placeholder, (_, way: string) => `{${this.way(path, way)}}`),
    ]);
  }

  private quantity(path: string, quantity: string | Quantity | undefined): string | Quantity | undefined {
    if (quantity === undefined) return undefined;
    return typeof quantity === 'string'
      ? this.formula(path, quantity)
      : changed(quantity, { usual: this.formula(`${path}.usual`, quantity.usual) });
  }

  private feature(feature: Feature, path: string): Feature {
    return changed(feature, {
      usual: feature.usual && mapped(feature.usual, (id) => this.option(`${path}.usual`, feature.id, id)),
      options: mapped(feature.options, (option): Option =>
        changed(option, { quantity: this.quantity(`${path}.${option.id}.quantity`, option.quantity) }),
      ),
    });
  }

  private parameter(parameter: Parameter, path: string): Parameter {
    switch (parameter.type) {
      case 'number': {
        const { standard, usual } = parameter;
        return changed(parameter, {
          usual: usual && this.proposed(`${path}.usual`, parameter.id, usual),
          standard:
            standard &&
            changed(standard, {
              of: this.row(`${path}.standard`, standard.of),
              values: remade(standard.values, (value, option) => [
                value,
                this.option(`${path}.standard`, standard.of, option),
              ]),
            }),
        });
      }
      case 'date':
        return changed(parameter, {
          usual: parameter.usual && this.proposed(`${path}.usual`, parameter.id, parameter.usual),
        });
      case 'choice':
        return changed(parameter, {
          usual: parameter.usual && this.option(`${path}.usual`, parameter.id, parameter.usual),
        });
      case 'yesno':
        return changed(parameter, { quantity: this.quantity(`${path}.quantity`, parameter.quantity) });
      case 'text':
        return parameter;
    }
  }

  private proposed<P extends Proposed>(path: string, of: string, value: P): P {
    if (typeof value === 'string') return this.option(path, of, value) as P;
    const formula: { formula: string } | null = typeof value === 'object' ? value : null;
    return formula === null
      ? value
      : (changed(formula, { formula: this.formula(path, formula.formula, of) }) as P);
  }

  private rule(rule: Rule, path: string): Rule {
    const { where } = rule;
    const based = changed(rule, {
      where:
        where &&
        remade(where, (input, values) => [
          this.row(`${path}.where`, input),
          mapped(values, (value) => this.option(`${path}.where`, input, value)),
        ]),
    });
    switch (based.kind) {
      case 'require':
        return changed(based, {
          when: this.maybe(`${path}.when`, based.when),
          must: this.formula(`${path}.must`, based.must),
        });
      case 'exclude':
        return changed(based, { all: this.formulas(`${path}.all`, based.all) });
      case 'limit':
        return changed(based, {
          of: this.way(`${path}.of`, based.of),
          when: this.maybe(`${path}.when`, based.when),
          least: this.maybe(`${path}.least`, based.least),
          most: this.maybe(`${path}.most`, based.most),
        });
      case 'table':
        return changed(based, {
          of: mapped(based.of, (id) => this.way(`${path}.of`, id)),
          rows: mapped(based.rows, (row, at) =>
            mapped(row, (cell, column) => {
              const name = based.of[column] ?? '';
              const where = `${path}.rows.${String(at)}.${String(column)}`;
              return this.spliced(where, cell, mentionsInCell(name, cell) ?? []);
            }),
          ),
        });
      case 'set':
      case 'usual':
        return changed(based, {
          of: this.way(`${path}.of`, based.of),
          when: this.maybe(`${path}.when`, based.when),
          value: this.proposed<Proposed>(`${path}.value`, based.of, based.value),
        });
      case 'show':
        return changed(based, {
          of: this.way(`${path}.of`, based.of),
          when: this.formula(`${path}.when`, based.when),
        });
      case 'say':
        return changed(based, { when: this.formula(`${path}.when`, based.when) });
    }
  }

  private segment(segment: Segment, path: string): Segment {
    const based = changed(segment, { when: this.maybe(`${path}.when`, segment.when) });
    switch (based.kind) {
      case 'code':
      case 'number':
      case 'letters':
        return changed(based, { of: this.way(`${path}.of`, based.of) });
      case 'marks':
        return changed(based, {
          of: mapped(based.of, (mark, at) =>
            changed(mark, { when: this.formula(`${path}.of.${String(at)}.when`, mark.when) }),
          ),
        });
      case 'sequence':
        return changed(based, { of: mapped(based.of, (id) => this.way(`${path}.of`, id)) });
      default:
        return based;
    }
  }

  private shape(shape: Shape, path: string): Shape {
    const based = changed(shape, {
      layer: this.other('layer', `${path}.layer`, shape.layer),
      when: this.maybe(`${path}.when`, shape.when),
      repeat: this.maybe(`${path}.repeat`, shape.repeat),
      of: shape.of && this.way(`${path}.of`, shape.of),
      views: shape.views && mapped(shape.views, (view) => this.other('view', `${path}.views`, view)),
    });
    switch (based.kind) {
      case 'box':
        return changed(based, {
          at: this.formulas(`${path}.at`, based.at),
          size: this.formulas(`${path}.size`, based.size),
        });
      case 'cylinder':
        return changed(based, {
          at: this.formulas(`${path}.at`, based.at),
          radius: this.formula(`${path}.radius`, based.radius),
          radiusTo: this.maybe(`${path}.radiusTo`, based.radiusTo),
          length: this.formula(`${path}.length`, based.length),
        });
      case 'prism':
        return changed(based, {
          outline: mapped(based.outline, (corner, at) =>
            this.formulas(`${path}.outline.${String(at)}`, corner),
          ),
          from: this.formula(`${path}.from`, based.from),
          length: this.formula(`${path}.length`, based.length),
        });
      case 'label':
        return changed(based, {
          at: this.formulas(`${path}.at`, based.at),
          height: this.formula(`${path}.height`, based.height),
          text: this.texts(`${path}.text`, based.text),
        });
      case 'build':
        return changed(based, {
          at: this.formulas(`${path}.at`, based.at),
          pick: this.way(`${path}.pick`, based.pick),
        });
    }
  }

  private test(test: ModelTest, path: string): ModelTest {
    const { context, decisions, expect } = test;
    const value = <V>(where: string, row: string, given: V): V => {
      if (typeof given === 'string') return this.option(where, row, given) as V;
      return Array.isArray(given)
        ? (mapped(given as string[], (each) => this.option(where, row, each)) as V)
        : given;
    };
    return changed(test, {
      context:
        context &&
        remade(context, (input, given) => [
          this.row(`${path}.context`, input),
          value(`${path}.context`, input, given),
        ]),
      decisions: remade<DecisionValue>(decisions, (row, given) => [
        this.way(`${path}.decisions`, row),
        value(`${path}.decisions`, row, given),
      ]),
      expect: changed(expect, {
        values:
          expect.values &&
          remade(expect.values, (row, given) => [
            this.way(`${path}.values`, row),
            value(`${path}.values`, row, given),
          ]),
        standings:
          expect.standings &&
          remade(expect.standings, (row, given) => [this.way(`${path}.standings`, row), given]),
        reasons:
          expect.reasons &&
          remade(expect.reasons, (target, rules) => [
            this.target(`${path}.reasons`, target),
            mapped(rules, (rule) => this.other('rule', `${path}.reasons`, rule)),
          ]),
        messages:
          expect.messages && mapped(expect.messages, (rule) => this.other('rule', `${path}.messages`, rule)),
      }),
    });
  }

  /** "row.option", or "row = value". */
  private target(path: string, target: string): string {
    const [, row = '', value] = /^(\S+)(?: = (.*))?$/.exec(target) ?? [];
    const way = this.way(path, row);
    return value === undefined ? way : `${way} = ${this.option(path, row, value)}`;
  }
}
