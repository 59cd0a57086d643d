/** Many rows at once: sent as one value of JSON and taken apart by the database, some hundred at a time. */
import { setImmediate } from 'node:timers/promises';
import { QueryTypes } from 'sequelize';
import { connected } from './connected';
import type { Table } from './records';

/** Rows that are sent at once: few enough that others come to their turn in between. */
const atOnce = 500;

/**
 * Writes rows that have all the fields of the first one. Where a row of the same key is there, it is changed; without a
 * key rows are only added. Part of the transaction it is called in.
 */
export async function writeMany<T extends object>(
  table: Table<T>,
  rows: readonly T[],
  key?: keyof T & string,
): Promise<void> {
  const [first] = rows;
  if (!first) return;
  const known = table.getAttributes() as Record<string, { field?: string }>;
  const columnOf = (field: string): string => `"${known[field]?.field ?? field}"`;
  const fields = Object.keys(first) as (keyof T & string)[];
  const columns = fields.map(columnOf);
  const changed = fields.filter((field) => field !== key).map(columnOf);
  const meet = key
    ? `on conflict (${columnOf(key)}) do update set ${changed.map((column) => `${column} = excluded.${column}`).join(', ')}`
    : '';
  const name = `"${table.tableName}"`;
  for (let at = 0; at < rows.length; at += atOnce) {
    if (at > 0) await setImmediate();
    const sent = rows
      .slice(at, at + atOnce)
      .map((row) => Object.fromEntries(fields.map((field) => [known[field]?.field ?? field, row[field]])));
    await connected().sequelize.query(
      `insert into ${name} (${columns.join(', ')}) select ${columns.join(', ')} from jsonb_populate_recordset(null::${name}, $1::jsonb) ${meet}`,
      { bind: [JSON.stringify(sent)], type: QueryTypes.INSERT },
    );
  }
}
