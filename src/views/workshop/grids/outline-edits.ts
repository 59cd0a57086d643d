/** From the lines of the outline back to sections, features and parameters: which edits make the document as they stand. */
import type { ModelDocument } from '../../../core/model';
import { differences, edited, editOf, type Edit, type Part } from '../../../core/modelling';
import { isBlank, isWrong, type Row } from '../../../ui/grid';
import { idOf, type ListEdit } from './list-edits';
import { rowKinds, type OutlineKind } from './outline-columns';
import type { PartColumn } from './part-columns';

/** Where a part stands, as a line of the outline is called. */
const sectionKey = (id: string): string => `sections/${id}`;
const rowKey = (id: string): string => `rows/${id}`;
const optionKey = (row: string, id: string): string => `rows/${row}/${id}`;

const partOf = (value: object): Part => value as Part;
const optionsOf = (row: Part): readonly Part[] => (row['options'] as readonly Part[] | undefined) ?? [];

/** The lines: sections, in them their rows, in those their options. */
export function outlineLines(document: ModelDocument, columns: readonly PartColumn[]): Row[] {
  const rows = new Map([...document.features, ...document.parameters].map((each) => [each.id, partOf(each)]));
  const line = (id: string, depth: number, part: Part): Row => ({
    id,
    depth,
    cells: columns.map(({ read }) => read(part)),
  });
  return document.sections.flatMap((section) => [
    line(sectionKey(section.id), 0, partOf(section)),
    ...section.rows.flatMap((id) => {
      const row = rows.get(id);
      // A row that a class gives is not this model's to change.
      if (!row) return [{ id: rowKey(id), depth: 1, cells: columns.map((_, at) => (at === 0 ? id : '')) }];
      return [
        line(rowKey(id), 1, row),
        ...optionsOf(row).map((option) => line(optionKey(id, option.id), 2, option)),
      ];
    }),
  ]);
}

/** The document as the lines stand, the names that were changed, and those that new lines got. */
class Outlined {
  readonly ids = new Map<string, string>();
  readonly renames: Extract<Edit, { do: 'rename' }>[] = [];
  private readonly sections: Part[] = [];
  private readonly rows = new Map<string, Part>();
  private readonly old: ReadonlyMap<string, Part>;
  private readonly taken: Set<string>;

  constructor(
    private readonly document: ModelDocument,
    private readonly columns: readonly PartColumn[],
    private readonly nameOf: (row: string) => string,
  ) {
    const { sections, features, parameters } = document;
    const rows = [...features, ...parameters].map(partOf);
    this.old = new Map([
      ...sections.map((each) => [sectionKey(each.id), partOf(each)] as const),
      ...rows.map((each) => [rowKey(each.id), each] as const),
      ...rows.flatMap((row) => optionsOf(row).map((each) => [optionKey(row.id, each.id), each] as const)),
    ]);
    this.taken = new Set([...rows, ...document.calculations, ...document.context].map(({ id }) => id));
  }

  read(lines: readonly Row[]): ModelDocument {
    lines.forEach((line, at) => {
      if (isBlank(line) && !this.old.has(this.nameOf(line.id))) return;
      if (line.depth === 0) this.section(line);
      else if (line.depth === 1) this.row(line, (lines[at + 1]?.depth ?? 0) > 1);
      else this.option(line);
    });
    const kept = <T extends { id: string }>(before: readonly T[], is: (part: Part) => boolean): T[] => [
      // What no section shows stays as it is.
      ...before.flatMap((each) => {
        const now = this.byOld.get(each.id);
        if (now) return [now as unknown as T];
        return this.shown.has(each.id) ? [] : [each];
      }),
      ...[...this.rows.values()]
        .filter((each) => this.fresh.has(each.id) && is(each))
        .map((each) => each as unknown as T),
    ];
    const { features, parameters } = this.document;
    const sections = this.sections as unknown as ModelDocument['sections'];
    return {
      ...this.document,
      sections,
      features: kept(features, (each) => each['type'] === undefined),
      parameters: kept(parameters, (each) => each['type'] !== undefined),
    };
  }

  /** Rows by the ids that they had. */
  private readonly byOld = new Map<string, Part>();
  private readonly fresh = new Set<string>();

  private get shown(): ReadonlySet<string> {
    return new Set(this.document.sections.flatMap(({ rows }) => rows));
  }

  private written(line: Row, known: Part | undefined, before: Part): Part {
    return this.columns.reduce((so, column, at) => {
      const cell = line.cells[at];
      if (cell === undefined || isWrong(cell) || cell === column.read(so)) return so;
      // What is new keeps what it begins with, where nothing was typed.
      if (cell === '' && !known) return so;
      return column.write(so, cell);
    }, before);
  }

  private text(line: Row, id: string): string {
    const cell = line.cells[this.columns.findIndex(({ column }) => column.id === id)];
    return cell === undefined || isWrong(cell) ? '' : cell;
  }

  private idFor(line: Row, taken: (id: string) => boolean, fallback: string): string {
    const typed = this.text(line, 'id');
    return typed !== '' && !taken(typed)
      ? typed
      : idOf(this.text(line, 'name') || this.text(line, 'item'), taken, fallback);
  }

  private section(line: Row): void {
    const known = this.old.get(this.nameOf(line.id));
    const isTaken = (id: string): boolean =>
      this.sections.some((each) => each.id === id) || this.document.sections.some((each) => each.id === id);
    const id = known?.id ?? this.idFor(line, isTaken, 'section');
    const part = this.written(line, known, known ?? { id, name: this.named(line), rows: [] });
    this.note(line, known, part, ['sections'], sectionKey(id));
    this.sections.push({ ...part, rows: [] });
  }

  private row(line: Row, holds: boolean): void {
    const name = this.nameOf(line.id);
    const section = this.lastSection();
    const foreign =
      !this.old.has(name) &&
      this.document.sections.some(({ rows }) => rows.some((id) => rowKey(id) === name));
    if (foreign) {
      (section['rows'] as string[]).push(name.slice('rows/'.length));
      return;
    }
    const known = this.old.get(name);
    const id = known?.id ?? this.idFor(line, (each) => this.taken.has(each), 'row');
    this.taken.add(id);
    const part = this.written(line, known, known ?? this.newRow(id, line, holds));
    const options = Array.isArray(part['options']) ? { options: [] } : {};
    const list = part['type'] === undefined ? 'features' : 'parameters';
    this.note(line, known, part, [list], rowKey(id));
    const made = { ...part, ...options };
    this.rows.set(part.id, made);
    if (known) this.byOld.set(known.id, made);
    else this.fresh.add(part.id);
    (section['rows'] as string[]).push(part.id);
  }

  private option(line: Row): void {
    const owner = [...this.rows.values()].at(-1);
    if (!owner || !Array.isArray(owner['options'])) return;
    const options = owner['options'] as Part[];
    const known = this.old.get(this.nameOf(line.id));
    const isTaken = (id: string): boolean =>
      options.some((each) => each.id === id) ||
      optionsOf(this.old.get(rowKey(owner.id)) ?? owner).some((each) => each.id === id);
    const id = known?.id ?? this.idFor(line, isTaken, 'option');
    const part = this.written(line, known, known ?? { id, name: this.named(line) });
    this.note(line, known, part, ['features', owner.id, 'options'], optionKey(owner.id, id));
    options.push(part);
  }

  private lastSection(): Part {
    const last = this.sections.at(-1);
    if (last) return last;
    const first = { id: 'main', name: this.document.name, rows: [] as string[] };
    this.sections.push(first);
    return first;
  }

  private named(line: Row): Record<string, string> {
    const name = this.text(line, 'name') || this.text(line, 'name2') || this.text(line, 'item');
    return Object.fromEntries(this.document.languages.map((language) => [language, name]));
  }

  private newRow(id: string, line: Row, holds: boolean): Part {
    const typed = this.text(line, 'what') as OutlineKind;
    const kind = rowKinds.includes(typed) ? typed : 'feature';
    const base = { id, name: this.named(line) };
    switch (kind) {
      case 'number':
        return { ...base, type: 'number', unit: '', least: '0', most: '100', step: '1', usual: '0' };
      case 'yesno':
        return { ...base, type: 'yesno', usual: false };
      case 'choice':
        return { ...base, type: 'choice', options: [] };
      case 'text':
        return { ...base, type: 'text', most: 40, optional: true };
      case 'date':
        return { ...base, type: 'date', least: '2000-01-01', most: '2099-12-31', optional: true };
      default:
        // Of a feature without options none is picked yet.
        return { ...base, least: holds ? 1 : 0, most: 1, options: [] };
    }
  }

  private note(line: Row, known: Part | undefined, part: Part, list: readonly string[], key: string): void {
    if (!known) this.ids.set(line.id, key);
    else if (part.id !== known.id) this.renames.push({ do: 'rename', at: [...list, known.id], to: part.id });
  }
}

/** The edit that makes the document as the lines stand. */
export function outlineEdit(
  document: ModelDocument,
  lines: readonly Row[],
  columns: readonly PartColumn[],
  nameOf: (row: string) => string,
): ListEdit | null {
  const renaming = new Outlined(document, columns, nameOf);
  renaming.read(lines);
  // Another id is changed in all that names it; nothing else is, since ids are typed one at a time.
  if (renaming.renames.length > 0) {
    const edits = renaming.renames.filter((edit) => edited(document, edit).ok);
    return edits.length === 0 ? null : { edit: { do: 'several', edits }, ids: new Map() };
  }
  const outlined = new Outlined(document, columns, nameOf);
  const edits = differences(document, outlined.read(lines)).map(editOf);
  return edits.length === 0 ? null : { edit: { do: 'several', edits }, ids: outlined.ids };
}
