/** Rows, options and values of a model in the person's words. */
import { shownUnit, shownValue, type Units } from '../../core/exact';
import type { Cause, Decision } from '../../core/engine';
import type { Outline, PlainValue } from '../../core/model';
import { date, number, own, unitIn, type Translate } from '../../i18n';

/** The texts of a model in the language of whoever reads. */
export class Words {
  private readonly names: ReadonlyMap<string, string>;
  private readonly parameters: ReadonlyMap<string, Outline['parameters'][number]>;

  constructor(
    private readonly outline: Outline,
    private readonly t: Translate,
    readonly language: string,
    /** In which lengths and masses are written. */
    readonly units: Units = 'metric',
  ) {
    const { features, parameters, calculations } = outline;
    const names = new Map(
      [...calculations, ...parameters, ...features].map((each) => [
        each.id,
        own(each.name, language) || each.id,
      ]),
    );
    for (const feature of features)
      for (const option of feature.options)
        names.set(`${feature.id}.${option.id}`, own(option.name, language) || option.id);
    this.names = names;
    this.parameters = new Map(parameters.map((each) => [each.id, each]));
  }

  /** A row by itself, as on the sheet, where its place is said above it. */
  label(id: string): string {
    const name = this.names.get(id) ?? id;
    return id.endsWith('/quantity') ? this.t('bench.howMany', { what: name }) : name;
  }

  /** A row with the build inside that it belongs to. */
  row(id: string): string {
    const place = own(this.outline.places[id.slice(0, id.lastIndexOf('/'))], this.language);
    return place ? `${place}, ${this.label(id)}` : this.label(id);
  }

  /** What a build inside is called; undefined at the top. */
  place(place: string | undefined): string | undefined {
    return place === undefined ? undefined : own(this.outline.places[place], this.language);
  }

  /** A section with the build inside that it belongs to. */
  section({ name, place }: Outline['sections'][number]): string {
    const of = this.place(place);
    return of ? `${of} · ${own(name, this.language)}` : own(name, this.language);
  }

  option(row: string, id: string): string {
    return this.names.get(`${row}.${id}`) ?? id;
  }

  /** "Approach parts: Barrier" for one option of a multiple choice, else the row. */
  subject(on: string): string {
    const [row = '', option] = on.split('.');
    return option === undefined ? this.row(row) : this.option(row, option);
  }

  value(on: string, value: PlainValue | undefined): string {
    const [row = ''] = on.split('.');
    if (value === undefined) return this.t('bench.open');
    if (value === null) return this.t('bench.nothing');
    if (typeof value === 'boolean') return this.t(value ? 'bench.yes' : 'bench.no');
    if (Array.isArray(value))
      return value.map((each: string) => this.option(row, each)).join(', ') || this.t('bench.nothing');
    const parameter = this.parameters.get(row);
    if (parameter?.type === 'number') return this.number(String(value), parameter.unit);
    if (parameter?.type === 'date') return date(String(value), this.language);
    if (parameter?.type === 'text') return String(value);
    return this.option(row, String(value));
  }

  number(value: string, unit: string): string {
    const written = number(shownValue(value, unit, this.units), this.language, 12);
    return unit ? `${written} ${unitIn(shownUnit(unit, this.units), this.language)}` : written;
  }

  /** A figure rounded to so many decimals. */
  figure(value: string, unit: string, decimals: number): string {
    const said = shownUnit(unit, this.units);
    const written = number(
      shownValue(value, unit, this.units),
      this.language,
      said === unit ? decimals : Math.max(decimals, 0),
    );
    return said ? `${written} ${unitIn(said, this.language)}` : written;
  }

  /** A length of the drawing, in millimetres: feet and inches for who reads those. */
  length(millimetres: number): string {
    if (this.units === 'metric') return number(String(Math.round(millimetres)), this.language, 0);
    const inches = Math.round(millimetres / 25.4);
    const [feet, rest] = [Math.floor(inches / 12), inches % 12];
    return feet === 0
      ? `${String(rest)}"`
      : rest === 0
        ? `${String(feet)}'`
        : `${String(feet)}' ${String(rest)}"`;
  }

  cause(cause: Cause): string {
    if (cause.kind === 'rule') return own(cause.reason, this.language);
    if (cause.kind === 'shape') return this.t('bench.shapeCause', { what: this.row(cause.row) });
    return this.decision(cause.decision);
  }

  decision({ on, value }: Decision): string {
    return this.t('bench.you', { what: this.subject(on), value: this.value(on, value) });
  }
}
