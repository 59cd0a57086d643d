/** Rows, options and values of a model in the person's words. */
import type { Cause, Decision } from '../../core/engine';
import type { Outline, PlainValue } from '../../core/model';
import { date, own, type Translate } from '../../i18n';

export class Words {
  constructor(
    private readonly outline: Outline,
    private readonly t: Translate,
    readonly language: string,
  ) {}

  /** A row by itself, as on the sheet, where its place is said above it. */
  label(id: string): string {
    const { features, parameters, calculations } = this.outline;
    const name = own([...features, ...parameters, ...calculations].find((each) => each.id === id)?.name, this.language) || id;
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
    const option = this.outline.features.find((each) => each.id === row)?.options.find((each) => each.id === id);
    return own(option?.name, this.language) || id;
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
    if (Array.isArray(value)) return value.map((each: string) => this.option(row, each)).join(', ') || this.t('bench.nothing');
    const parameter = this.outline.parameters.find((each) => each.id === row);
    if (parameter?.type === 'number') return this.number(String(value), parameter.unit);
    if (parameter?.type === 'date') return date(String(value), this.language);
    if (parameter?.type === 'text') return String(value);
    return this.option(row, String(value));
  }

  number(value: string, unit: string): string {
    const written = this.language === 'de' ? value.replace('.', ',') : value;
    return unit ? `${written} ${unit}` : written;
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
