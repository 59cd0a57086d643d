/** What a finding of the check-up comes to as an edit, where the mend is mechanical. */
import type { Finding } from '../../core/engine';
import type { ModelDocument, Rule } from '../../core/model';
import type { Edit } from '../../core/modelling';

type Table = Extract<Rule, { kind: 'table' }>;

/** A mend, and what it does. */
export interface Mend {
  does: 'dropRule' | 'dropRow' | 'addRow';
  edit: Edit;
}

/** The mend of a finding; null where somebody has to think. */
export function mendOf({ kind, at, other }: Finding, document: ModelDocument): Mend | null {
  const [list = '', id = '', , row] = at.split('.');
  const table = document.rules.find((rule): rule is Table => rule.id === id && rule.kind === 'table');
  const rows = (next: readonly (readonly string[])[]): Edit => ({
    do: 'set',
    at: ['rules', id],
    name: 'rows',
    value: next,
  });
  switch (kind) {
    case 'repeatsOthers':
    case 'neverFires':
      return list === 'rules' ? { does: 'dropRule', edit: { do: 'remove', at: ['rules', id] } } : null;
    case 'rowsOverlap': {
      const [one, two] = [row, other?.split('.').at(-1)].map((each) => table?.rows[Number(each)]);
      // Where both are written alike the later says nothing.
      return table && one && two && one.join('\n') === two.join('\n')
        ? { does: 'dropRow', edit: rows(table.rows.filter((each) => each !== two)) }
        : null;
    }
    case 'tableHole': {
      const [of = '', value = ''] = (other ?? '').split(' = ');
      if (!table || value === '') return null;
      const cell = /^-?\d+(\.\d+)?$|^(true|false)$/.test(value) ? value : JSON.stringify(value);
      return {
        does: 'addRow',
        edit: rows([...table.rows, table.of.map((each) => (each === of ? cell : '-'))]),
      };
    }
    default:
      return null;
  }
}
