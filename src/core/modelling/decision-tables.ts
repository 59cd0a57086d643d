/**
 * Table rules as decision tables of the DMN standard, and back. What a decision table says that a table rule cannot is
 * told, never dropped: several hits that mean something by their order, what is added up, columns that are no rows.
 */
import { parsesAsCell } from '../formula';
import type { ModelDocument, Rule, Texts } from '../model';

/** A decision table as DMN has it. */
export interface DecisionTable {
  name: string;
  /** UNIQUE where a file says nothing. */
  hitPolicy: string;
  /** How hits are added up, of COLLECT. */
  aggregation?: string;
  inputs: readonly { label: string; expression: string }[];
  outputs: readonly { label: string; name: string }[];
  rules: readonly { inputs: readonly string[]; outputs: readonly string[]; annotation: string }[];
}

/** Something that could not be taken over, and where: a table, and a row of it from 1. */
export interface NotTaken {
  code:
    | 'dmn.other'
    | 'dmn.hitPolicy'
    | 'dmn.order'
    | 'dmn.aggregation'
    | 'dmn.input'
    | 'dmn.output'
    | 'dmn.cell'
    | 'dmn.value'
    | 'dmn.annotation'
    | 'dmn.rows'
    | 'dmn.empty';
  table: string;
  params: Readonly<Record<string, string>>;
  /** Because of it the whole table was left. */
  left: boolean;
}

type Table = Extract<Rule, { kind: 'table' }>;

/** What the only output of a table rule is called. */
const allowed = 'allowed';
const mostRows = 5_000;

/** A table rule as a decision table: every row that is met says the same, so any hit counts. */
export function tableOf(rule: Table, document: ModelDocument, language: string): DecisionTable {
  const names = namesIn(document);
  return {
    name: rule.reason[language] ?? rule.id,
    hitPolicy: 'ANY',
    inputs: rule.of.map((id) => ({ label: names.get(id)?.[language] ?? id, expression: id })),
    outputs: [{ label: allowed, name: allowed }],
    rules: rule.rows.map((cells) => ({
      inputs: cells,
      outputs: [rule.listed === 'forbidden' ? 'false' : 'true'],
      annotation: '',
    })),
  };
}

/** A decision table as the table rule of this id, with what could not be taken over; null where nothing could. */
export function ruleOf(
  table: DecisionTable,
  document: ModelDocument,
  id: string,
): { rule: Table | null; notTaken: readonly NotTaken[] } {
  return new Taking(table, document).rule(id);
}

const namesIn = ({ context, features, parameters, calculations }: ModelDocument): Map<string, Texts> =>
  new Map(
    [...context, ...features, ...parameters, ...calculations].map((row): [string, Texts] => [
      row.id,
      row.name,
    ]),
  );

class Taking {
  private readonly notTaken: NotTaken[] = [];
  private readonly names: ReadonlyMap<string, Texts>;
  private readonly options: ReadonlyMap<string, readonly { id: string; name: Texts }[]>;

  constructor(
    private readonly table: DecisionTable,
    document: ModelDocument,
  ) {
    this.names = namesIn(document);
    this.options = new Map([
      ...document.features.map((row) => [row.id, row.options] as const),
      ...document.context.map((row) => [row.id, row.values] as const),
      ...document.parameters.flatMap((row) =>
        row.type === 'choice' ? [[row.id, row.options] as const] : [],
      ),
    ]);
  }

  rule(id: string): { rule: Table | null; notTaken: readonly NotTaken[] } {
    const { table } = this;
    const inputs = table.inputs.map(({ label, expression }) => this.rowOf(expression, label, 'dmn.input'));
    const listed = this.listed();
    const outputs =
      listed === null ? table.outputs.map(({ label, name }) => this.rowOf(name, label, 'dmn.output')) : [];
    this.policy(listed !== null);
    if (table.rules.length > mostRows) this.leave('dmn.rows', { most: String(mostRows) });
    if (table.rules.length === 0) this.leave('dmn.empty', {});
    for (const [row, { annotation }] of table.rules.entries())
      if (annotation.trim() !== '')
        this.tell('dmn.annotation', { row: String(row + 1), text: annotation.trim() }, false);
    const of = [...inputs, ...outputs];
    const rows = table.rules.map((each, row) =>
      [...each.inputs, ...(listed === null ? each.outputs : [])].map((cell, at) =>
        this.cell(cell, of[at] ?? null, row, at >= inputs.length),
      ),
    );
    if (this.notTaken.some(({ left }) => left)) return { rule: null, notTaken: this.notTaken };
    const reason = { en: table.name, de: table.name };
    const rule: Table = {
      id,
      kind: 'table',
      of: of.flatMap((each) => each ?? []),
      rows,
      listed: listed ?? 'allowed',
      reason,
    };
    return { rule, notTaken: this.notTaken };
  }

  /** Whether the only output says of each row that it is, or is not, allowed; null where it says something else. */
  private listed(): 'allowed' | 'forbidden' | null {
    const { outputs, rules } = this.table;
    const [only] = outputs;
    if (outputs.length !== 1 || !only || this.names.has(only.name)) return null;
    const said = new Set(rules.map((each) => (each.outputs[0] ?? '').trim().toLowerCase()));
    if (said.size !== 1) return null;
    return said.has('true') ? 'allowed' : said.has('false') ? 'forbidden' : null;
  }

  private policy(plain: boolean): void {
    const { hitPolicy, aggregation } = this.table;
    if (aggregation !== undefined) this.leave('dmn.aggregation', { what: aggregation });
    else if (hitPolicy === 'UNIQUE' || hitPolicy === 'ANY') return;
    // Where all rows say the same it does not matter which of them is met.
    else if ((hitPolicy === 'FIRST' || hitPolicy === 'COLLECT' || hitPolicy === 'RULE ORDER') && plain)
      return;
    else if (hitPolicy === 'FIRST') this.leave('dmn.order', {});
    else this.leave('dmn.hitPolicy', { policy: hitPolicy });
  }

  /** The row that a column is of: by its id, or by what it is called. */
  private rowOf(expression: string, label: string, code: 'dmn.input' | 'dmn.output'): string | null {
    const found = [expression, label].map((each) => each.trim()).filter(Boolean);
    for (const name of found) {
      if (this.names.has(name)) return name;
      const same = [...this.names].find(([, texts]) =>
        Object.values(texts).some((text) => text.toLowerCase() === name.toLowerCase()),
      );
      if (same) return same[0];
    }
    this.leave(code, { name: label || expression });
    return null;
  }

  /** A cell with what options are called turned into their ids. */
  private cell(given: string, of: string | null, row: number, isOutput: boolean): string {
    const text = given.trim();
    if (text === '' || text === '-') {
      if (isOutput) this.leave('dmn.cell', { row: String(row + 1), cell: text });
      return '-';
    }
    if (of === null) return text;
    const options = this.options.get(of);
    const read = options
      ? text.replace(/"((?:[^"\\\\]|\\\\.)*)"/g, (whole, name: string) => {
          if (options.some(({ id }) => id === name)) return whole;
          const known = options.find((option) =>
            Object.values(option.name).some((each) => each.toLowerCase() === name.toLowerCase()),
          );
          if (!known) this.leave('dmn.value', { row: String(row + 1), value: name });
          return known ? JSON.stringify(known.id) : whole;
        })
      : text;
    if (!parsesAsCell(read)) this.leave('dmn.cell', { row: String(row + 1), cell: text });
    return read;
  }

  private leave(code: NotTaken['code'], params: Readonly<Record<string, string>>): void {
    this.tell(code, params, true);
  }

  private tell(code: NotTaken['code'], params: Readonly<Record<string, string>>, left: boolean): void {
    this.notTaken.push({ code, table: this.table.name, params, left });
  }
}
