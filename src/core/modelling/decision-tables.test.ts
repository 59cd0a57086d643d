/** Table rules as decision tables and back, and all that cannot come back. */
import { describe, expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import { compileModel, type Rule } from '../model';
import { isSameRule, ruleOf, tableOf, type DecisionTable } from '.';

const demo = ['ridgeback', 'beacon', 'quarryGate', 'plumb', 'tarn', 'farmDriveOver'].map(demoDocument);
type Table = Extract<Rule, { kind: 'table' }>;
const isTable = (rule: Rule): rule is Table => rule.kind === 'table';
const bridge = demoDocument('ridgeback');

const mounts: DecisionTable = {
  name: 'What stands where',
  hitPolicy: 'UNIQUE',
  inputs: [{ label: 'Mounting', expression: 'mounting' }],
  outputs: [{ label: 'Deck surface', name: 'surface' }],
  rules: [{ inputs: ['"pit"'], outputs: ['"plate"'], annotation: '' }],
};
const codes = (table: DecisionTable): string[] =>
  ruleOf(table, bridge, 'made').notTaken.map(({ code }) => code);

describe('a table rule as a decision table', () => {
  it('comes back as it was, of every table of the demo', () => {
    const all = demo.flatMap((document) =>
      document.rules.filter(isTable).map((rule) => ({ document, rule })),
    );
    expect(all.length).toBeGreaterThan(1);
    for (const { document, rule } of all)
      for (const language of ['en', 'de']) {
        const back = ruleOf(tableOf(rule, document, language), document, rule.id);
        expect(back.notTaken).toEqual([]);
        const { severity: _, from: _from, until: _until, where: _where, help: _help, ...plain } = rule;
        expect(back.rule && isSameRule({ ...back.rule, reason: rule.reason }, plain as Rule)).toBe(true);
      }
  });

  it('is one too where its result is a row: these go together', () => {
    const [option] = bridge.features.find(({ id }) => id === 'surface')?.options ?? [];
    const named = {
      ...mounts,
      rules: [{ inputs: ['"Pit"'], outputs: [JSON.stringify(option?.name['en'])], annotation: '' }],
    };
    const { rule, notTaken } = ruleOf(named, bridge, 'made');
    expect(notTaken).toEqual([]);
    // What options are called stands for their ids.
    expect(rule).toMatchObject({
      of: ['mounting', 'surface'],
      rows: [['"pit"', JSON.stringify(option?.id)]],
    });
    const result = compileModel({ ...bridge, rules: [...bridge.rules, ...(rule ? [rule] : [])], tests: [] });
    expect(result.ok ? [] : result.problems).toEqual([]);
  });
});

describe('what a table rule has no words for', () => {
  it('is told, never dropped', () => {
    const { rules } = mounts;
    const more = [...rules, { inputs: ['"pit"'], outputs: ['"grating"'], annotation: '' }];
    expect(codes({ ...mounts, hitPolicy: 'PRIORITY' })).toEqual(['dmn.hitPolicy']);
    expect(codes({ ...mounts, hitPolicy: 'FIRST', rules: more })).toEqual(['dmn.order']);
    expect(codes({ ...mounts, hitPolicy: 'COLLECT', aggregation: 'SUM' })).toEqual(['dmn.aggregation']);
    expect(codes({ ...mounts, inputs: [{ label: '', expression: 'weather' }] })).toEqual(['dmn.input']);
    expect(codes({ ...mounts, outputs: [{ label: 'Price', name: 'price' }] })).toEqual(['dmn.output']);
    expect(codes({ ...mounts, rules: [] })).toEqual(['dmn.empty']);
    const row = (input: string, annotation = '') => ({
      ...mounts,
      rules: [{ inputs: [input], outputs: ['"plate"'], annotation }],
    });
    expect(codes(row('"pit'))).toEqual(['dmn.cell']);
    expect(codes(row('"on the roof"'))).toEqual(['dmn.value']);
    // A remark alone leaves the table as it is.
    const remarked = ruleOf(row('"pit"', 'asked by the site'), bridge, 'made');
    expect(remarked.rule).not.toBeNull();
    expect(remarked.notTaken).toMatchObject([{ code: 'dmn.annotation', left: false }]);
  });

  it('is nothing where all rows say the same, whatever the hit policy', () => {
    const said = (output: string): DecisionTable => ({
      ...mounts,
      hitPolicy: 'FIRST',
      outputs: [{ label: '', name: 'ok' }],
      rules: [
        { inputs: ['"pit"'], outputs: [output], annotation: '' },
        { inputs: ['-'], outputs: [output], annotation: '' },
      ],
    });
    expect(ruleOf(said('true'), bridge, 'made').rule).toMatchObject({ listed: 'allowed', of: ['mounting'] });
    expect(ruleOf(said('FALSE'), bridge, 'made').rule).toMatchObject({ listed: 'forbidden' });
    expect(codes(said('"perhaps"'))).toContain('dmn.output');
  });
});
