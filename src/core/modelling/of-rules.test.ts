/** Rules of rows, and rows of rules. */
import { expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import { rowsOfRule, rulesOfRow } from '.';

it('lead to each other over all of the demo', () => {
  for (const id of ['ridgeback', 'tarn', 'beacon', 'farmDriveOver']) {
    const document = demoDocument(id);
    const rows = [...document.features, ...document.parameters];
    for (const row of rows)
      for (const rule of document.rules)
        expect(rulesOfRow(document, row.id).includes(rule.id), `${row.id} ${rule.id}`).toBe(
          rowsOfRule(document, rule.id).has(row.id),
        );
    // What a rule is about is among its rows.
    for (const rule of document.rules)
      if ('of' in rule)
        for (const of of [rule.of].flat()) expect(rowsOfRule(document, rule.id)).toContain(of.split('.')[0]);
  }
});
