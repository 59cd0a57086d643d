/** Files of the Workshop written and read again: decision tables, sheets. */
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../../scripts/demo-documents';
import { outlineRows, outlineSheet, ruleOf, tableOf, wordsSheet } from '../../../core/modelling';
import { readRows } from '../../paper/files/read-table';
import { readDmn, writeDmn } from './dmn';
import { writeSheet } from './sheet';

const bridge = demoDocument('ridgeback');
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

describe('decision tables in a file', () => {
  it('are read as they were written', async () => {
    const tables = bridge.rules.flatMap((rule) =>
      rule.kind === 'table' ? [tableOf(rule, bridge, 'en')] : [],
    );
    const read = await readDmn(await writeDmn('ridgeback', tables));
    expect(read).toEqual({ is: 'tables', tables, notTaken: [] });
  });

  it('are taken from a file of another hand, and what is no table is told', async () => {
    const read = await readDmn(
      bytes(`<?xml version="1.0"?>
<definitions xmlns="https://www.omg.org/spec/DMN/20191111/MODEL/" id="d" name="d" namespace="urn:x">
  <inputData id="i" name="Mounting"/>
  <decision id="a" name="Allowed"><decisionTable id="t" hitPolicy="FIRST">
    <input id="i1" label="Mounting"><inputExpression id="e1"><text>mounting</text></inputExpression></input>
    <output id="o1" name="allowed"/>
    <rule id="r1"><description>so the plant</description>
      <inputEntry id="c1"><text>"pit"</text></inputEntry><outputEntry id="c2"><text>true</text></outputEntry></rule>
  </decisionTable></decision>
  <decision id="b" name="Price"><literalExpression id="l"><text>1 + 1</text></literalExpression></decision>
  <businessKnowledgeModel id="k" name="How"/>
</definitions>`),
    );
    if (read.is !== 'tables') throw new Error('it can be read');
    expect(read.notTaken.map(({ table, params }) => [table, params['what']])).toEqual([
      ['Price', 'LiteralExpression'],
      ['How', 'BusinessKnowledgeModel'],
    ]);
    const [table] = read.tables;
    expect(table && ruleOf(table, bridge, 'made')).toMatchObject({
      rule: { of: ['mounting'], rows: [['"pit"']], listed: 'allowed' },
      notTaken: [{ code: 'dmn.annotation', params: { text: 'so the plant' } }],
    });
  });

  it('are in nothing that is no such file, or means harm', async () => {
    for (const text of [
      '',
      'no xml',
      '<a/>',
      '<!DOCTYPE x [<!ENTITY a "b">]><definitions/>',
      '{"is": "tables"}',
    ])
      expect(await readDmn(bytes(text))).toEqual({ is: 'unreadable' });
  });
});

describe('sheets', () => {
  it('are read as they were written, in both formats', async () => {
    for (const sheet of [outlineSheet(bridge, 'de'), wordsSheet(bridge)])
      for (const format of ['csv', 'xlsx'] as const) {
        const read = readRows(await writeSheet('outline', sheet, format));
        if (read.is !== 'rows') throw new Error('it can be read');
        const wide = sheet[0]?.length ?? 0;
        const full = read.rows.map((row) => Array.from({ length: wide }, (_, at) => row[at] ?? ''));
        expect(full).toEqual(sheet.map((row) => [...row]));
      }
  });

  it('change nothing where they come in as they went out', async () => {
    const read = readRows(await writeSheet('outline', outlineSheet(bridge, 'en'), 'xlsx'));
    if (read.is !== 'rows') throw new Error('it can be read');
    expect(outlineRows(bridge, read.rows, { language: 'en', isItem: () => true }).edit).toEqual({
      do: 'several',
      edits: [],
    });
  });
});
