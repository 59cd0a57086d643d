/** For the tests of sentences: rules of every kind at random, the same for the same seed. */
import type { Feature, ModelDocument, Rule } from '../../model';

type Random = (below: number) => number;

/** A rule of some kind about rows of a document; its formulas can be read, and need not compile. */
export function anyRule(document: ModelDocument, random: Random): Rule {
  const rules = new RandomRules(document, random);
  return rules.rule();
}

class RandomRules {
  /** Builds that formulas go through, with the documents they are of. */
  private readonly around: { name: string; document: ModelDocument }[] = [];

  constructor(
    private readonly top: ModelDocument,
    private readonly random: Random,
  ) {}

  private one<T>(of: readonly T[]): T {
    return of[this.random(of.length)] as T;
  }

  rule(): Rule {
    const { random } = this;
    const maybe = <T extends object>(make: () => T): T | Record<string, never> =>
      random(2) === 0 ? make() : {};
    const when = () => maybe(() => ({ when: this.condition(2) }));
    const severity = () => maybe(() => ({ severity: this.one(['error', 'warning', 'note'] as const) }));
    const base = {
      id: `r${String(random(100))}`,
      reason: this.one([
        {},
        { en: 'It bends.', de: 'Es biegt sich.' },
        { en: 'Since: because "so", and so {x}.', de: '  Leer.  ' },
        { de: 'Nur deutsch' },
      ]) as Rule['reason'],
      ...maybe(() => ({ from: '2027-01-01' })),
      ...maybe(() => ({ where: { region: ['eu'] } })),
    };
    switch (random(8)) {
      case 0:
        return { ...base, kind: 'require', ...when(), must: this.condition(2), ...severity() };
      case 1: {
        const all = Array.from({ length: 1 + random(3) }, () => this.condition(1));
        return { ...base, kind: 'exclude', all, ...severity() };
      }
      case 2: {
        const least = { least: this.number(2) };
        const most = { most: this.number(2) };
        const bounds = this.one([least, most, { ...least, ...most }]);
        return { ...base, kind: 'limit', of: this.numeric(), ...when(), ...bounds, ...severity() };
      }
      case 3: {
        const of = [this.row().id, this.row().id];
        return {
          ...base,
          kind: 'table',
          of,
          rows: [['-', '"x"']],
          listed: this.one(['allowed', 'forbidden']),
          ...severity(),
        };
      }
      case 4:
        return { ...base, kind: 'set', ...this.target(), ...when(), firm: random(2) === 0 };
      case 5:
        return { ...base, kind: 'usual', ...this.target(), ...when() };
      case 6:
        return { ...base, kind: 'show', of: this.row().id, when: this.condition(2) };
      default:
        return { ...base, kind: 'say', when: this.condition(2), severity: this.one(['warning', 'note']) };
    }
  }

  private target() {
    const { features, parameters } = this.top;
    const feature = this.one(features);
    const option = this.one(feature.options);
    const numbers = parameters.filter(({ type }) => type === 'number');
    const number = numbers.length > 0 ? this.one(numbers) : { id: `${feature.id}/${option.id}/quantity` };
    return this.one([
      { of: feature.id, value: option.id },
      { of: feature.id, value: this.random(2) === 0 ? null : 'gone' },
      { of: `${feature.id}.${option.id}`, value: this.random(2) === 0 },
      { of: `${feature.id}/${option.id}/quantity`, value: '3' },
      { of: `${feature.id}/${option.id}/1/housing`, value: 'desk' },
      { of: number.id, value: this.one(['12', '-1.5', '0.25']) },
      { of: number.id, value: { formula: this.number(2) } },
    ]);
  }

  private get here(): { prefix: string; document: ModelDocument } {
    const all = [{ prefix: '', document: this.top }];
    for (const { name, document } of this.around) all.push({ prefix: `${name}.`, document });
    return this.one(all);
  }

  private row(): { id: string } {
    return this.one([...this.top.features, ...this.top.parameters]);
  }

  private numeric(): string {
    const rows = [
      ...this.top.parameters.filter(({ type }) => type === 'number' || type === 'date'),
      ...this.top.calculations.filter(({ type }) => type === 'number'),
    ];
    return rows.length > 0 ? this.one(rows).id : 'gone';
  }

  condition(depth: number): string {
    if (depth > 0)
      switch (this.random(9)) {
        case 0:
          return `${this.condition(depth - 1)} and ${this.condition(depth - 1)}`;
        case 1:
          return `(${this.condition(depth - 1)} or ${this.condition(depth - 1)})`;
        case 2:
          return `not(${this.condition(depth - 1)})`;
        case 3: {
          const items = Array.from({ length: 1 + this.random(3) }, () => this.condition(depth - 1));
          return `count([${items.join(', ')}][item]) ${this.one(['>=', '<=', '=', '<'])} ${String(this.random(4))}`;
        }
        case 4:
          return this.ofBuilds(depth - 1);
        case 5:
          return `if ${this.condition(depth - 1)} then true else ${this.condition(0)}`;
        default:
      }
    return this.said();
  }

  private ofBuilds(depth: number): string {
    const { prefix, document } = this.here;
    const models = document.library?.models ?? this.top.library?.models ?? [];
    const bringing = document.features.flatMap((feature) =>
      feature.options.flatMap((option) => {
        const inner = models.find(({ id }) => id === option.model);
        return inner ? [{ of: `${prefix}${feature.id}.${option.id}`, inner }] : [];
      }),
    );
    if (bringing.length === 0) return this.said();
    const { of, inner } = this.one(bringing);
    const name = `n${String(this.around.length)}`;
    this.around.push({ name, document: inner });
    const test = this.condition(depth);
    this.around.pop();
    return `(${this.one(['every', 'some'])} ${name} in ${of} satisfies (${test}))`;
  }

  private said(): string {
    const { prefix, document } = this.here;
    const { features, parameters, calculations } = document;
    const single: Feature = this.one(features);
    const option = (): string => JSON.stringify(this.random(12) === 0 ? 'gone' : this.one(single.options).id);
    const name = prefix + single.id;
    switch (this.random(12)) {
      case 0:
        return `${name} = ${option()}`;
      case 1:
        return `${name} != ${option()}`;
      case 2:
        return `(${name} in [${option()}, ${option()}])`;
      case 3:
        return `not(${name} in [${option()}])`;
      case 4:
        return `list contains(${name}, ${option()})`;
      case 5:
        return `not(list contains(${name}, ${option()}))`;
      case 6:
        return `${name} ${this.one(['=', '!='])} null`;
      case 7: {
        const row = this.one([...parameters, ...calculations]);
        return `${prefix}${row.id} ${this.one(['=', '!=', '<', '<=', '>', '>='])} ${this.number(1)}`;
      }
      case 8:
        return prefix + this.one([...parameters, ...calculations]).id;
      case 9:
        return `${prefix}${this.one(parameters).id} = ${this.one(['true', 'false', '"a text"', '@"2027-03-01"'])}`;
      case 10:
        return `(${this.number(1)} in ${this.one(['[1..5]', '(1..5]', '(< 3, > 9)', '[2, 3.5]'])})`;
      default:
        return `${this.number(2)} ${this.one(['<', '>=', '='])} ${this.number(1)}`;
    }
  }

  private number(depth: number): string {
    const { prefix, document } = this.here;
    const feature = this.one(document.features);
    if (depth > 0 && this.random(2) === 0)
      return `(${this.number(depth - 1)} ${this.one(['+', '-', '*', '/', '**'])} ${this.number(depth - 1)})`;
    const row = this.one([...document.parameters, ...document.calculations]);
    return this.one([
      String(this.random(100)),
      '0.25',
      '-3',
      '1234567.5',
      prefix + row.id,
      `-${prefix}${row.id}`,
      `string length(${prefix}${row.id})`,
      `count(${prefix}${feature.id})`,
      `${prefix}${feature.id}.quantity`,
      `${prefix}${feature.id}.${this.one(feature.options).id}.quantity`,
      'today()',
      `max(${prefix}${row.id}, 3)`,
      `min([1, 2])`,
      `sum(1, ${prefix}${row.id}, 3)`,
      `if ${prefix}${feature.id} = "a" then 1 else 2`,
    ]);
  }
}
