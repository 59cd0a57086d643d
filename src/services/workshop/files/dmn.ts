/** Decision tables in files of the DMN standard. */
import { DmnModdle, type Element } from 'dmn-moddle';
import type { DecisionTable, NotTaken } from '../../../core/modelling';

/** What a file has: its tables, and what in it is none. */
export type DmnRead =
  { is: 'tables'; tables: readonly DecisionTable[]; notTaken: readonly NotTaken[] } | { is: 'unreadable' };

const most = 5 * 1024 * 1024;

/** Reads the decision tables of a file. Entities are never resolved, nothing outside of the file is looked at. */
export async function readDmn(bytes: Uint8Array): Promise<DmnRead> {
  if (bytes.length > most) return { is: 'unreadable' };
  const xml = new TextDecoder().decode(bytes);
  // A declaration of a document type has no place in these files, and entities could be made to grow.
  if (/<!DOCTYPE|<!ENTITY/i.test(xml)) return { is: 'unreadable' };
  let root: Element;
  try {
    ({ rootElement: root } = await new DmnModdle().fromXML(xml));
  } catch {
    return { is: 'unreadable' };
  }
  const elements = listOf(root, 'drgElement');
  const tables: DecisionTable[] = [];
  const notTaken: NotTaken[] = [];
  for (const element of elements) {
    const name = textOf(element, 'name') || textOf(element, 'id');
    const logic = element['decisionLogic'] as Element | undefined;
    if (element.$type === 'dmn:Decision' && logic?.$type === 'dmn:DecisionTable')
      tables.push(tableIn(name, logic));
    // Data that tables ask for are rows here, and told of there.
    else if (element.$type !== 'dmn:InputData')
      notTaken.push({
        code: 'dmn.other',
        table: name,
        params: { what: (logic ?? element).$type.replace('dmn:', '') },
        left: true,
      });
  }
  return { is: 'tables', tables, notTaken };
}

function tableIn(name: string, table: Element): DecisionTable {
  const aggregation = textOf(table, 'aggregation');
  return {
    name,
    hitPolicy: textOf(table, 'hitPolicy') || 'UNIQUE',
    ...(aggregation === '' ? {} : { aggregation }),
    inputs: listOf(table, 'input').map((input) => ({
      label: textOf(input, 'label'),
      expression: textOf((input['inputExpression'] as Element | undefined) ?? {}, 'text'),
    })),
    outputs: listOf(table, 'output').map((output) => ({
      label: textOf(output, 'label'),
      name: textOf(output, 'name'),
    })),
    rules: listOf(table, 'rule').map((rule) => ({
      inputs: listOf(rule, 'inputEntry').map((entry) => textOf(entry, 'text')),
      outputs: listOf(rule, 'outputEntry').map((entry) => textOf(entry, 'text')),
      annotation: [
        textOf(rule, 'description'),
        ...listOf(rule, 'annotationEntry').map((entry) => textOf(entry, 'text')),
      ]
        .filter(Boolean)
        .join(' '),
    })),
  };
}

type Held = Readonly<Record<string, unknown>>;
const listOf = (held: Held, name: string): readonly Element[] => (held[name] as Element[] | undefined) ?? [];
const textOf = (held: Held, name: string): string => {
  const value = held[name];
  return typeof value === 'string' ? value : '';
};

/** Writes decision tables as one file. */
export async function writeDmn(name: string, tables: readonly DecisionTable[]): Promise<Uint8Array> {
  const moddle = new DmnModdle();
  const text = (type: string, id: string, value: string) => moddle.create(type, { id, text: value });
  const decisions = tables.map((table, at) => {
    const own = (part: string): string => `table${String(at + 1)}_${part}`;
    return moddle.create('dmn:Decision', {
      id: own('decision'),
      name: table.name,
      decisionLogic: moddle.create('dmn:DecisionTable', {
        id: own('table'),
        hitPolicy: table.hitPolicy,
        input: table.inputs.map(({ label, expression }, column) =>
          moddle.create('dmn:InputClause', {
            id: own(`input${String(column + 1)}`),
            label,
            inputExpression: text('dmn:LiteralExpression', own(`asks${String(column + 1)}`), expression),
          }),
        ),
        output: table.outputs.map(({ label, name: output }, column) =>
          moddle.create('dmn:OutputClause', { id: own(`output${String(column + 1)}`), label, name: output }),
        ),
        rule: table.rules.map(({ inputs, outputs }, row) => {
          const cell = (what: string, column: number): string =>
            own(`row${String(row + 1)}_${what}${String(column + 1)}`);
          return moddle.create('dmn:DecisionRule', {
            id: own(`row${String(row + 1)}`),
            inputEntry: inputs.map((each, column) => text('dmn:UnaryTests', cell('in', column), each)),
            outputEntry: outputs.map((each, column) =>
              text('dmn:LiteralExpression', cell('out', column), each),
            ),
          });
        }),
      }),
    });
  });
  const root = moddle.create('dmn:Definitions', {
    id: 'tables',
    name,
    namespace: 'urn:iunctura:tables',
    drgElement: decisions,
  });
  const { xml } = await moddle.toXML(root, { format: true });
  return new TextEncoder().encode(xml);
}
