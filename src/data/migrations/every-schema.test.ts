/** From each earlier schema, with what could be made in it, one comes to the newest. */
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { migrations } from '.';

const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
beforeAll(() => client.connect());
afterAll(() => client.end());

const rows = async (sql: string, values: unknown[] = []): Promise<Record<string, unknown>[]> =>
  (await client.query<Record<string, unknown>>(sql, values)).rows;

/** Writes a row with those of its columns that the schema has. */
async function insert(table: string, row: Record<string, unknown>): Promise<void> {
  const known = new Set(
    (
      await rows(
        'select column_name from information_schema.columns where table_schema = current_schema() and table_name = $1',
        [table],
      )
    ).map((each) => String(each.column_name)),
  );
  const columns = Object.keys(row).filter((column) => known.has(column));
  await client.query(
    `insert into ${table} (${columns.join(', ')}) values (${columns.map((_, at) => `$${String(at + 1)}`).join(', ')})`,
    columns.map((column) => row[column]),
  );
}

/** A customer with a quote, two variants of a scale of which one is a line, and a kept build. */
async function use() {
  const id = () => randomUUID();
  const [person, customer, version, quote, revision, build, variant, line, saved] = Array.from(
    { length: 9 },
    id,
  ) as [string, string, string, string, string, string, string, string, string];
  const name = { name: '{}' };
  await insert('price_lists', {
    code: 'EU-26',
    ...name,
    currency: 'EUR',
    decimals: 2,
    cost_rate: '1',
    valid_from: '2026-01-01',
  });
  await insert('customers', {
    id: customer,
    number: 'C-1',
    name: 'Norrvik Skog AB',
    class: 'key',
    price_list: 'EU-26',
    language: 'en',
    region: 'eu',
    contact_name: 'Ebba Lund',
    contact_email: 'ebba@norrvik.example',
  });
  await insert('users', {
    id: person,
    email: 'mara@harrowmoor.example',
    name: 'Mara Lindqvist',
    language: 'en',
    role: 'engineer',
    password_hash: 'none',
  });
  await insert('families', { code: 'weighing', ...name, position: 0 });
  await insert('items', {
    sku: 'RIDGEBACK',
    family: 'weighing',
    ...name,
    kind: 'model',
    unit: 'pc',
    cost: '0',
    lead_days: 10,
    sold: true,
  });
  await insert('models', { id: 'ridgeback', sku: 'RIDGEBACK' });
  await insert('model_versions', {
    id: version,
    model_id: 'ridgeback',
    number: 1,
    document: '{}',
    hash: 'h',
  });
  await insert('quotes', {
    id: quote,
    number: 'Q-1',
    title: 'Two scales',
    customer_id: customer,
    owner_id: person,
    updated_by: person,
  });
  await insert('quote_revisions', {
    id: revision,
    quote_id: quote,
    number: 1,
    state: 'draft',
    price_list: 'EU-26',
    customer: '{}',
    valid_until: '2026-06-30',
    made_by: person,
  });
  for (const [key, letter] of [
    [build, 'A'],
    [variant, 'B'],
  ] as const)
    await insert('builds', {
      id: key,
      model_version_id: version,
      quote_id: quote,
      revision_id: revision,
      context: JSON.stringify({ date: '2026-02-01', values: { region: 'eu' } }),
      decisions: JSON.stringify([{ on: 'length', value: letter === 'A' ? 'm12' : 'm18' }]),
      outcome: '{"warnings": []}',
      // As the group was called at first, and as it is called.
      talk_id: build,
      variant_group: build,
      letter,
    });
  await insert('quote_lines', {
    id: line,
    revision_id: revision,
    position: 0,
    build_id: build,
    sku: 'RIDGEBACK',
    quantity: 1,
    discount: '0',
    origin: line,
    priced_on: '2026-02-01',
  });
  if ((await rows("select to_regclass('quote_steps') as there"))[0]?.there !== null)
    await insert('quote_steps', {
      revision_id: revision,
      number: 1,
      user_id: person,
      change: JSON.stringify({
        lines: [{ id: line, before: { [await setName()]: null }, note: 'says "rivals": x' }],
      }),
    });
  if ((await rows("select to_regclass('saved_builds') as there"))[0]?.there !== null)
    await insert('saved_builds', {
      id: saved,
      owner_id: person,
      name: 'Quarry gate',
      shared: true,
      model_id: 'ridgeback',
      part_number: 'RB-060',
      decisions: '[]',
    });
  return { quote, revision, build, variant, line, saved, person };
}

/** What a line calls its set of alternatives in this schema. */
const setName = async (): Promise<string> =>
  (
    await rows(
      `select 1 from information_schema.columns where table_schema = current_schema() and table_name = 'quote_lines'
       and column_name = 'rivals'`,
    )
  ).length > 0
    ? 'rivals'
    : 'alternativeSet';

/** The shape of a schema: its columns with their types, and what is refused. */
const shapeSql = `select table_name || '.' || column_name || ' ' || data_type || ' ' || is_nullable as it
  from information_schema.columns where table_schema = current_schema() order by 1`;

describe('from every earlier schema', () => {
  it.each(migrations.slice(0, -1).map(({ name }, at) => [name, at + 1] as const))(
    'what was made under %s is there under the newest, and can go on',
    async (name, steps) => {
      const schema = `from_${name.slice(0, 4)}`;
      await client.query(`begin; create schema ${schema}; set local search_path to ${schema}`);
      try {
        for (const { up } of migrations.slice(0, steps)) await client.query(up);
        const made = await use();
        for (const { up } of migrations.slice(steps)) await client.query(up);
        expect(
          await rows(
            `select id, quote_id, revision_id, owner_id, priced_for, asked, letter, decisions from builds order by letter`,
          ),
        ).toEqual(
          [made.build, made.variant].map((id, at) => ({
            id,
            quote_id: made.quote,
            revision_id: made.revision,
            owner_id: null,
            priced_for: null,
            asked: [],
            // Before there were variants, each build became a group of its own.
            letter: steps === 1 ? 'A' : 'AB'[at],
            decisions: [{ on: 'length', value: ['m12', 'm18'][at] }],
          })),
        );
        expect(
          await rows('select build_id, sku, quantity, origin, priced_on::text from quote_lines'),
        ).toEqual([
          { build_id: made.build, sku: 'RIDGEBACK', quantity: 1, origin: made.line, priced_on: '2026-02-01' },
        ]);
        if (steps > 1)
          expect(await rows('select name, asked from saved_builds')).toEqual([
            { name: 'Quarry gate', asked: [] },
          ]);
        for (const { change } of await rows('select change from quote_steps'))
          expect(change).toEqual({
            lines: [{ id: made.line, before: { alternativeSet: null }, note: 'says "rivals": x' }],
          });
        // What is new can be made beside what is old.
        await insert('builds', {
          ...(await rows('select model_version_id, context, outcome from builds limit 1'))[0],
          id: made.saved,
          decisions: '[]',
          owner_id: made.person,
          priced_for: JSON.stringify({ customer: null, priceList: 'EU-26' }),
          variant_group: made.saved,
        });
        await client.query('savepoint tried');
        await expect(
          client.query('update builds set quote_id = $1 where id = $2', [made.quote, made.saved]),
        ).rejects.toThrow(/builds_home/);
        await client.query('rollback to savepoint tried');
        const shape = await rows(shapeSql);
        await client.query(`create schema ${schema}_fresh; set local search_path to ${schema}_fresh`);
        for (const { up } of migrations) await client.query(up);
        expect(shape).toEqual(await rows(shapeSql));
      } finally {
        await client.query('rollback');
      }
    },
  );
});
