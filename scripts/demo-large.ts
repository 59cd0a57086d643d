/**
 * `npm run demo:large`: the demo's house grown to 20,000 items on three price lists and 5,000 quotes, to see how the
 * application holds at that size. Everything is made of what the demo has: the same ids come out each time, and where it
 * was run before it adds nothing.
 */
import { connected } from '../src/data';
import { refreshAll } from '../src/services/quotes/figures/quote-facts';
import { databaseUrl } from './database-url';

process.env.DATABASE_URL = databaseUrl();
const [items, quotes] = [20_000, 5_000];
const { sequelize } = connected();
const run = async (sql: string): Promise<void> => {
  await sequelize.query(sql);
};

/** The columns of a table. */
async function columnsOf(table: string): Promise<string[]> {
  const [rows] = (await sequelize.query(
    `select column_name as name from information_schema.columns where table_name = '${table}' order by ordinal_position`,
  )) as unknown as [{ name: string }[]];
  return rows.map(({ name }) => name);
}

/** An id that follows from another and the number of the copy. */
const copied = (column: string): string => `uuid(md5(o.${column}::text || c.n))`;

/** Copies rows with other values in some columns; `from` gives rows `o` and numbers of copies `c.n`. */
async function copy(table: string, from: string, other: Record<string, string>): Promise<void> {
  const columns = await columnsOf(table);
  await run(
    `insert into ${table} (${columns.map((name) => `"${name}"`).join(', ')})
     select ${columns.map((name) => other[name] ?? `o."${name}"`).join(', ')} from ${from} on conflict do nothing`,
  );
}

await connected().transaction(async () => {
  // Items are like those of the demo, each with a number, cost and prices of its own; a price is never below cost.
  await run(`create temporary table grown on commit drop as
    select o.sku as of, format('%s-%s', o.sku, lpad(n::text, 5, '0')) as sku, n,
      1 + mod(n * 7919, 400) / 1000.0 as factor
    from (select *, row_number() over (order by sku) as place, count(*) over () as all_items from items where kind <> 'model') o
    join generate_series(1, ${String(items)}) n on mod(n, o.all_items) + 1 = o.place
    order by n limit (select greatest(0, ${String(items)} - count(*)) from items)`);
  await copy('items', 'items o join grown c on c.of = o.sku', {
    sku: 'c.sku',
    name: `(select jsonb_object_agg(key, to_jsonb(value || ' ' || c.n)) from jsonb_each_text(o.name))`,
    cost: 'round(o.cost * c.factor, 2)',
    picture: 'null',
    data_sheet: 'null',
    replaced_by: 'null',
    goes_with: `'[]'`,
    version: '1',
  });
  await copy(
    'price_entries',
    "(select * from price_entries where inside = '' and change_id is null) o join grown c on c.of = o.sku",
    {
      sku: 'c.sku',
      entry: `case when o.entry ->> 'method' = 'unit'
        then jsonb_build_object('method', 'unit', 'price', trim_scale(round((o.entry ->> 'price')::numeric * c.factor, 2))::text)
        else o.entry end`,
    },
  );
  // Quotes are those of the demo again, with their newest revisions, lines and builds.
  await run(`create temporary table again on commit drop as
    select q.id, r.id as revision, n from quotes q
    join lateral (select id from quote_revisions v where v.quote_id = q.id order by number desc limit 1) r on true
    join generate_series(1, ${String(quotes)}) n on true
    where q.number ~ '^Q-[0-9]{2}-[0-9]{4}$' order by n, q.number limit (select greatest(0, ${String(quotes)} - count(*)) from quotes)`);
  await copy('quotes', 'quotes o join again c on c.id = o.id', {
    id: copied('id'),
    number: `format('%s-%s', o.number, lpad(c.n::text, 4, '0'))`,
    created_at: `o.created_at - make_interval(hours => c.n * 7)`,
    updated_at: `o.updated_at - make_interval(hours => c.n * 7)`,
  });
  await copy('quote_revisions', 'quote_revisions o join again c on c.revision = o.id', {
    id: copied('id'),
    quote_id: copied('quote_id'),
    number: '1',
  });
  await copy('builds', 'builds o join again c on c.revision = o.revision_id', {
    id: copied('id'),
    quote_id: copied('quote_id'),
    revision_id: copied('revision_id'),
    variant_group: copied('variant_group'),
  });
  await copy('quote_lines', 'quote_lines o join again c on c.revision = o.revision_id', {
    id: copied('id'),
    revision_id: copied('revision_id'),
    build_id: copied('build_id'),
    origin: copied('id'),
    alternative_set: copied('alternative_set'),
  });
});
await run('analyze');
console.log(`${String(await refreshAll())} facts of quotes worked out.`);
const [[counts]] = (await sequelize.query(
  'select (select count(*) from items) as items, (select count(*) from price_entries) as entries, (select count(*) from quotes) as quotes',
)) as unknown as [[{ items: string; entries: string; quotes: string }]];
console.log(`${counts.items} items, ${counts.entries} entries, ${counts.quotes} quotes.`);
await connected().close();
