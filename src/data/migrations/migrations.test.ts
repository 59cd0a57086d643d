/**
 * A database that was in use since the first release comes to the newest schema with everything that was made
 * in it.
 */
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { migrations } from '.';

const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
const rows = async (sql: string, values: unknown[] = []): Promise<Record<string, unknown>[]> =>
  (await client.query<Record<string, unknown>>(sql, values)).rows;
const insert = (table: string, row: Record<string, unknown>) =>
  client.query(
    `insert into ${table} (${Object.keys(row).join(', ')}) values (${Object.keys(row)
      .map((_, at) => `$${String(at + 1)}`)
      .join(', ')})`,
    Object.values(row),
  );
/** What the database says to a change that it must refuse; the rest of the transaction goes on. */
async function refused(sql: string): Promise<string> {
  await client.query('savepoint tried');
  try {
    await client.query(sql);
    return '';
  } catch (problem) {
    return (problem as Error).message;
  } finally {
    await client.query('rollback to savepoint tried');
  }
}
let at = 0;
/** Moves on to the release whose last step of the schema is given. */
async function release(name: string): Promise<void> {
  const end = migrations.findIndex((each) => each.name === name) + 1;
  for (const { up } of migrations.slice(at, end)) await client.query(up);
  at = end;
}

const [mara, customer, version] = [randomUUID(), randomUUID(), randomUUID()];
/** A quote as the first release kept it: one revision, and a line with a build. */
async function quote(number: string, { discount = '0', warnings = [] as string[] } = {}) {
  const [id, revision, build, line] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()];
  await insert('quotes', {
    id,
    number,
    title: number,
    customer_id: customer,
    owner_id: mara,
    updated_by: mara,
    created_at: '2026-02-03T10:00:00Z',
  });
  await insert('quote_revisions', {
    id: revision,
    quote_id: id,
    number: 1,
    state: 'draft',
    price_list: 'EU-26',
    customer: '{}',
    valid_until: '2026-06-30',
  });
  await insert('builds', {
    id: build,
    model_version_id: version,
    quote_id: id,
    context: JSON.stringify({ date: '2026-02-01' }),
    decisions: '[]',
    outcome: JSON.stringify({ warnings }),
  });
  await insert('quote_lines', {
    id: line,
    revision_id: revision,
    position: 0,
    build_id: build,
    sku: 'RIDGEBACK',
    quantity: 1,
    discount,
  });
  return { id, revision, build, line };
}
let draft: Awaited<ReturnType<typeof quote>>;
let won: Awaited<ReturnType<typeof quote>>;
let [second, lone] = ['', ''];

beforeAll(async () => {
  await client.connect();
  // All of it in a schema of its own, and taken back in the end: the other tests use the database too.
  await client.query('begin; create schema first_release; set local search_path to first_release');
  await release('0001-first');
  await insert('price_lists', {
    code: 'EU-26',
    name: '{}',
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
    id: mara,
    email: 'mara@harrowmoor.example',
    name: 'Mara Lindqvist',
    language: 'en',
    role: 'engineer',
    password_hash: 'none',
  });
  await insert('families', { code: 'weighing', name: '{}', position: 0 });
  await insert('items', {
    sku: 'RIDGEBACK',
    family: 'weighing',
    name: '{}',
    kind: 'model',
    unit: 'pc',
    cost: '0',
    lead_days: 10,
    sold: true,
  });
  await insert('price_entries', { price_list: 'EU-26', sku: 'RIDGEBACK', price: '1250.500000' });
  await insert('agreements', {
    id: randomUUID(),
    class: 'key',
    family: 'weighing',
    rate: '0.09',
    valid_from: '2026-01-01',
  });
  await insert('models', { id: 'ridgeback', sku: 'RIDGEBACK' });
  await insert('model_versions', {
    id: version,
    model_id: 'ridgeback',
    number: 1,
    document: '{}',
    hash: 'h',
  });
  draft = await quote('Q-1', { warnings: ['The heaviest module needs a crane.'] });
  won = await quote('Q-2', { discount: '0.05' });
});
afterAll(async () => {
  await client.query('rollback');
  await client.end();
});

describe('from release to release', () => {
  it('builds become the first variants of their groups, and their warnings say by which rule', async () => {
    await release('0002-bench');
    expect(await rows('select talk_id, letter from builds where id = $1', [draft.build])).toEqual([
      { talk_id: draft.build, letter: 'A' },
    ]);
    expect(
      await rows(`select outcome -> 'warnings' as warnings from builds order by quote_id = $1 desc`, [
        draft.id,
      ]),
    ).toEqual([{ warnings: [{ rule: '', text: 'The heaviest module needs a crane.' }] }, { warnings: [] }]);
    // As this release was used: two variants quoted, one as the other's alternative, and one that is an
    // alternative to nothing; then it was accepted.
    const variant = randomUUID();
    [second, lone] = [randomUUID(), randomUUID()];
    await insert('builds', {
      id: variant,
      model_version_id: version,
      quote_id: won.id,
      context: '{}',
      decisions: '[]',
      outcome: '{"warnings": []}',
      talk_id: won.build,
      letter: 'B',
    });
    await insert('quote_lines', {
      id: second,
      revision_id: won.revision,
      position: 1,
      build_id: variant,
      sku: 'RIDGEBACK',
      quantity: 1,
      discount: '0',
      alternative: true,
    });
    await insert('quote_lines', {
      id: lone,
      revision_id: won.revision,
      position: 2,
      sku: 'RIDGEBACK',
      quantity: 1,
      discount: '0',
      alternative: true,
    });
    await client.query(`update quote_revisions set state = 'accepted' where id = $1`, [won.revision]);
    await insert('orders', {
      id: randomUUID(),
      number: 'O-1',
      quote_id: won.id,
      revision_id: won.revision,
      currency: 'EUR',
      net: '1187.975',
      promised: '2026-04-01',
      created_by: mara,
      created_at: '2026-03-05T09:00:00Z',
    });
  });

  it('prices and discounts are worth what they were, also where nothing may change any more', async () => {
    await release('0003-pricing');
    expect(await rows('select entry from price_entries')).toEqual([
      { entry: { method: 'unit', price: '1250.5' } },
    ]);
    expect(await rows('select class, family, rate, kind, fixed from grants')).toEqual([
      { class: 'key', family: 'weighing', rate: '0.090000', kind: 'agreement', fixed: false },
    ]);
    expect(
      await rows('select hand from quote_lines where id = any($1) order by hand nulls last', [
        [won.line, draft.line],
      ]),
    ).toEqual([{ hand: { by: 'rate', value: '0.05' } }, { hand: null }]);
    expect(await refused(`update quote_lines set quantity = 2 where id = '${won.line}'`)).toMatch(
      /never change/,
    );
  });

  it('revisions know who made and settled them, lines their origin and the day of their price', async () => {
    await release('0006-inside');
    expect(
      await rows('select made_by, settled_by, settled_at from quote_revisions where id = $1', [won.revision]),
    ).toEqual([{ made_by: mara, settled_by: mara, settled_at: new Date('2026-03-05T09:00:00Z') }]);
    expect(
      await rows('select settled_at, lost from quote_revisions where id = $1', [draft.revision]),
    ).toEqual([{ settled_at: null, lost: null }]);
    expect(await rows('select revision_id from builds where quote_id = $1 group by 1', [won.id])).toEqual([
      { revision_id: won.revision },
    ]);
    expect(await rows('select origin, priced_on::text from quote_lines where id = $1', [won.line])).toEqual([
      { origin: won.line, priced_on: '2026-02-01' },
    ]);
    // Without a build it is the day of the quote.
    expect(await rows('select priced_on::text from quote_lines where id = $1', [lone])).toEqual([
      { priced_on: '2026-02-03' },
    ]);
    expect(await rows('select valid_from::text, inside from price_entries')).toEqual([
      { valid_from: '2000-01-01', inside: '' },
    ]);
    await insert('quote_steps', { revision_id: draft.revision, number: 1, user_id: mara, change: '{}' });
  });

  it('lines of one talk are alternatives of one another, contacts are kept, and undo starts anew', async () => {
    await release('0007-ledger');
    const rivals = async (id: string) =>
      (await rows('select rivals from quote_lines where id = $1', [id]))[0]?.rivals;
    expect(await rivals(won.line)).toBe(await rivals(second));
    expect(await rivals(won.line)).not.toBeNull();
    expect([await rivals(won.line), null]).not.toContain(await rivals(lone));
    expect(await rivals(draft.line)).toBeNull();
    expect(await rows('select customer_id, name, email, position from contacts')).toEqual([
      { customer_id: customer, name: 'Ebba Lund', email: 'ebba@norrvik.example', position: 0 },
    ]);
    expect(await rows('select * from quote_steps')).toEqual([]);
  });

  it('sign-in is counted by account and address, a stamp tells of changes, and what lists show is to be worked out', async () => {
    await release('0008-stand');
    const stamp = async () => (await rows('select stamp from reference_stamp'))[0]?.stamp;
    const before = await stamp();
    await rows("update items set cost = cost where sku = 'none'");
    expect(await stamp()).not.toBe(before);
    const again = await stamp();
    await rows('update quotes set title = title');
    expect(await stamp()).toBe(again);
    expect(await rows('select * from revision_facts')).toEqual([]);
    await insert('sign_in_attempts', { account: 'a@b.example', address: '192.0.2.1' });
    await insert('devices', { token_hash: 'x', user_id: mara });
    await insert('answers', { user_id: mara, key: 'k', asked: 'a' });
  });

  it('words are compared by their pieces', async () => {
    await release('0009-finding');
    expect(await rows("select public.word_similarity('norvik', 'Norrvik Skog AB') > 0.45 as alike")).toEqual([
      { alike: true },
    ]);
  });

  it('quantities may have three decimals, no more', async () => {
    await release('0010-measured');
    expect(await refused(`update quote_lines set quantity = 2.5 where id = '${draft.line}'`)).toBe('');
    expect(await refused(`update quote_lines set quantity = 2.0005 where id = '${draft.line}'`)).toMatch(
      /quantity_check/,
    );
    expect(await refused(`update quote_lines set quantity = 0 where id = '${draft.line}'`)).toMatch(
      /quantity_check/,
    );
    expect(await rows('select quantity from quote_lines where id = $1', [draft.line])).toEqual([
      { quantity: 1 },
    ]);
  });

  it('what a sign-off was asked for is what it had been', async () => {
    await release('0011-asked');
    expect(await rows('select count(*)::int as other from sign_offs where asked <> figures')).toEqual([
      { other: 0 },
    ]);
  });

  it('builds go on belonging to their quotes, with nothing that was asked for them', async () => {
    await release('0012-builds-alone');
    expect(await rows('select quote_id, owner_id, asked from builds where id = $1', [draft.build])).toEqual([
      { quote_id: draft.id, owner_id: null, asked: [] },
    ]);
  });

  it('variants have a group and alternatives a set, in what was written about them too', async () => {
    const [before] = await rows('select rivals from quote_lines where id = $1', [won.line]);
    await insert('audit_entries', { user_id: mara, action: 'lines.rivals', subject: 'Q-2', details: '{}' });
    await release('0013-names');
    expect(await rows('select alternative_set from quote_lines where id = $1', [won.line])).toEqual([
      { alternative_set: before?.rivals },
    ]);
    expect(await rows('select variant_group from builds where id = $1', [draft.build])).toEqual([
      { variant_group: draft.build },
    ]);
    expect(await rows("select subject from audit_entries where action = 'lines.alternatives'")).toEqual([
      { subject: 'Q-2' },
    ]);
    expect(await refused("update audit_entries set subject = 'Q-3'")).toMatch(/never change/);
  });

  it('of jobs that are not over there is one for one thing, and only one that is worked on has a worker', async () => {
    await release('0014-jobs');
    const job = { kind: 'facts', once: 'facts', input: '{}', most_tries: 1 };
    await insert('jobs', { id: randomUUID(), ...job });
    const again = `insert into jobs (id, kind, once, input, most_tries) values (gen_random_uuid(), 'facts', 'facts', '{}', 1)`;
    expect(await refused(again)).toMatch(/jobs_once/);
    expect(await refused("update jobs set state = 'running'")).toMatch(/jobs_leased/);
    expect(await refused("update jobs set state = 'done'")).toMatch(/jobs_ended/);
    await rows("update jobs set state = 'done', ended_at = now()");
    await rows(again);
  });

  it('somebody may run the house', async () => {
    const change = "update users set role = 'administrator' where email = 'mara@harrowmoor.example'";
    await release('0015-administrator');
    await rows(change);
    expect(await refused(change.replace('administrator', 'owner'))).toMatch(/users_role_check/);
  });

  it('files say what is in them once, and are used by something or by nothing', async () => {
    await release('0016-files');
    const hash = 'a'.repeat(64);
    const content = { hash, kind: 'text', size: 1, bytes: 'a' };
    await insert('file_contents', content);
    expect(
      await refused(
        `insert into file_contents (hash, kind, size, bytes) values ('${'b'.repeat(64)}', 'text', 2, 'a')`,
      ),
    ).toMatch(/check/);
    const [mara] = (await rows("select id from users where email = 'mara@harrowmoor.example'")) as {
      id: string;
    }[];
    await insert('files', { id: randomUUID(), hash, name: 'a.txt', owner: mara?.id ?? '' });
    expect(await refused("update files set about = 'house'")).toMatch(/files_about/);
    expect(await refused('delete from file_contents')).toMatch(/files_hash_fkey/);
  });

  it('numbers go on from where they were', async () => {
    const [was] = (await rows('select last_value, is_called from quote_numbers')) as {
      last_value: string;
      is_called: boolean;
    }[];
    await release('0017-house');
    expect(await rows("select next from number_counters where range = 'quote' and year = 0")).toEqual([
      { next: String(Number(was?.last_value) + (was?.is_called ? 1 : 0)) },
    ]);
  });

  it('people are let in by links, put aside, and stood in for by others from day to day', async () => {
    await release('0018-people');
    const [of, by] = [randomUUID(), randomUUID()];
    for (const id of [of, by])
      await insert('users', { id, email: `${id}@x.example`, name: 'Nell', language: 'en', role: 'manager' });
    await rows(`update users set aside_at = now() where id = '${of}'`);
    const deputy = (who: string, from: string, to: string): string =>
      `insert into deputies (id, user_id, deputy_id, starts, ends) values (gen_random_uuid(), '${of}', '${who}', '${from}', '${to}')`;
    expect(await refused(deputy(by, '2027-03-05', '2027-03-01'))).toMatch(/deputies_check/);
    expect(await refused(deputy(of, '2027-03-01', '2027-03-05'))).toMatch(/deputies_check/);
    expect(await refused(deputy(by, '2027-03-01', '2027-03-01'))).toBe('');
  });

  it('the house says where it sells', async () => {
    const part = (name: string): string =>
      `insert into house_parts (part, value) values ('${name}', '{"markets": []}')`;
    expect(await refused(part('markets'))).toMatch(/house_parts_part_check/);
    await release('0019-markets');
    expect(await refused(part('markets'))).toBe('');
    expect(await refused(part('prices'))).toMatch(/house_parts_part_check/);
  });

  it('kept prices say how their parts are counted, as models do', async () => {
    const kept = {
      build: { parts: [{ id: 'a', grows: 'once' }, { id: '"grows": "own"', grows: 'own' }, { id: 'c' }] },
    };
    await rows('alter table quote_lines disable trigger user');
    await rows(`update quote_lines set frozen = $1 where id = $2`, [JSON.stringify(kept), won.line]);
    await rows('alter table quote_lines enable trigger user');
    await release('0020-counting');
    expect(await rows('select frozen from quote_lines where id = $1', [won.line])).toEqual([
      {
        frozen: {
          build: {
            parts: [{ id: 'a', counts: 'line' }, { id: '"grows": "own"', counts: 'typed' }, { id: 'c' }],
          },
        },
      },
    ]);
    expect(await refused(`update quote_lines set frozen = null where id = '${won.line}'`)).not.toBe('');
  });

  it('versions are in force from the day on which they were published, the first of a model always', async () => {
    await release('0021-workshop');
    expect(await rows('select in_force::text as from, withdrawn_at from model_releases')).toEqual([
      { from: '2000-01-01', withdrawn_at: null },
    ]);
    expect(await refused('update model_releases set withdrawn_at = now()')).toMatch(/releases_withdrawn/);
    expect(await rows("select part from house_parts where part = 'workshop'")).toEqual([]);
  });

  it('drafts have room for what their check-up came to', async () => {
    await release('0022-checked');
    expect(await rows('select count(*)::int as there from model_drafts where checked is not null')).toEqual([
      { there: 0 },
    ]);
  });

  it('what is chosen for the paper of a revision goes with it', async () => {
    await release('0023-paper');
    await rows(
      `insert into paper_compositions (revision_id, composition, changed_by)
       select id, '{}', (select id from users limit 1) from quote_revisions`,
    );
    expect(
      await refused(`insert into paper_compositions (revision_id, composition, changed_by)
      select gen_random_uuid(), '{}', id from users limit 1`),
    ).toMatch(/foreign key/);
    expect(await rows('select version from paper_compositions limit 1')).toEqual([{ version: 1 }]);
  });

  it('items and families are sold as before, and families lie inside each other', async () => {
    await release('0024-items');
    expect(await rows('select count(*)::int as there from items where not active or version <> 1')).toEqual([
      { there: 0 },
    ]);
    const [family] = await rows('select code from families limit 1');
    expect(await refused("update families set parent = 'nowhere'")).toMatch(/foreign key/);
    await rows(
      `insert into families (code, name, position, parent) values ('inner', '{}', 99, '${String(family?.code)}')`,
    );
    expect(await refused('update items set step = 0')).toMatch(/check/);
  });

  it('prices and terms hold as before, and what a price change brought never changes', async () => {
    const before = await rows('select count(*)::int as there, sum(rate) as sum from tax_rates');
    await release('0025-terms');
    expect(await rows('select count(*)::int as there, sum(rate) as sum from tax_rates')).toEqual(before);
    expect(await rows('select distinct entry is null as gone, change_id from price_entries')).toEqual([
      { gone: false, change_id: null },
    ]);
    const change = randomUUID();
    await insert('price_changes', { id: change, name: 'Spring', in_force: '2026-01-01', state: 'published' });
    await rows(
      `insert into price_entries (price_list, sku, inside, entry, valid_from, change_id) values ('EU-26', 'RIDGEBACK', '', null, '2026-01-01', '${change}')`,
    );
    expect(
      await refused(`update price_entries set valid_from = '2027-01-01' where change_id is not null`),
    ).toMatch(/never change/);
    expect(await refused('delete from price_entries where change_id is not null')).toMatch(/in force/);
    await insert('work_centres', { code: 'SAW', name: '{}', rate: '1', valid_from: '2026-01-01' });
    await insert('work_centres', { code: 'SAW', name: '{}', rate: '2', valid_from: '2026-02-01' });
  });

  it('steps of a price change are kept with it, and go with it', async () => {
    await release('0026-price-steps');
    const change = randomUUID();
    await insert('price_changes', { id: change, name: 'Tried', in_force: '2027-01-01' });
    await insert('price_change_steps', {
      change_id: change,
      number: '1',
      what: 'rows',
      before: '[]',
      after: '[]',
    });
    await rows(`delete from price_changes where id = '${change}'`);
    expect(await rows('select number from price_change_steps')).toEqual([]);
  });

  it('what freight costs is said once for a list, country and day', async () => {
    await release('0027-freight');
    const row = {
      price_list: 'EU-26',
      country: 'SE',
      base: '1',
      per_kg: '2',
      least: '3',
      valid_from: '2026-01-01',
    };
    await insert('freight_rates', row);
    expect(
      await refused(
        `insert into freight_rates (price_list, country, base, per_kg, least, valid_from) values ('EU-26', 'SE', 1, 2, 3, '2026-01-01')`,
      ),
    ).toMatch(/duplicate/);
    const stamp = async () => (await rows('select stamp from reference_stamp'))[0]?.stamp;
    const before = await stamp();
    await insert('freight_rates', { ...row, valid_from: '2027-01-01' });
    expect(await stamp()).not.toBe(before);
  });

  it('what went out is kept with it: a mail is whole before it goes, and a yes names what it is to', async () => {
    await release('0028-sending');
    const mail = (more: string): string =>
      `insert into mails (id, message_id, sender, recipients, subject, words, language, wanted, made_by, state) select gen_random_uuid(), gen_random_uuid()::text, '{}', '[]', 'a', 'b', 'en', '[]', id, '${more}' from users limit 1`;
    expect(await refused(mail('making'))).toBe('');
    expect(await refused(mail('waiting'))).toMatch(/mails_made/);
    const share = randomUUID();
    await rows(
      `insert into shares (id, token_hash, quote_id, revision_id, for_name, for_address, language, until, made_by) select '${share}', 'x', r.quote_id, r.id, '', '', 'en', '2099-01-01', r.made_by from quote_revisions r limit 1`,
    );
    const answer = (document: string): string =>
      `insert into share_answers (id, share_id, revision_id, answer, words, name, address, agent, document) select gen_random_uuid(), '${share}', revision_id, 'accepted', '', 'Ana', '', '', ${document} from shares where id = '${share}'`;
    expect(await refused(answer('null'))).toMatch(/share_answers_document/);
    await rows(answer(`'${'a'.repeat(64)}'`));
    expect(await refused(answer(`'${'a'.repeat(64)}'`))).toMatch(/share_answers_once/);
  });

  it('what a colleague answers is whole, and asked of one person or one role', async () => {
    await release('0029-colleagues');
    const request = (columns: string, values: string): string =>
      `insert into quote_requests (id, quote_id, kind, words, made_by, ${columns}) select gen_random_uuid(), q.id, 'look', 'a', q.owner_id, ${values} from quotes q limit 1`;
    expect(await refused(request('role', `'modeller'`))).toBe('');
    expect(await refused(request('role, asked_of', `'modeller', q.owner_id`))).toMatch(/requests_asked/);
    expect(await refused(request('role, answer', `'modeller', 'b'`))).toMatch(/requests_answered/);
    expect(await refused(request('role, part', `'modeller', '{}'`))).toMatch(/requests_part/);
    expect(await refused(request('role, line_origin', `'modeller', q.id`))).toMatch(/requests_line/);
    expect(
      await refused(
        `insert into quote_notes (id, quote_id, words, made_by) select gen_random_uuid(), id, '', owner_id from quotes limit 1`,
      ),
    ).toMatch(/notes_words/);
  });

  it('a tag stands once in a schedule, and anew in another one', async () => {
    await release('0030-schedules');
    const [one, other] = [randomUUID(), randomUUID()];
    for (const id of [one, other])
      await rows(
        `insert into schedules (id, name, owner_id, updated_by) select '${id}', 'Site', id, id from users limit 1`,
      );
    const position = (schedule: string, at: number, quantity = '1'): string =>
      `insert into schedule_positions (id, schedule_id, position, tag, tag_key, quantity) values (gen_random_uuid(), '${schedule}', ${String(at)}, 'Gate 1', 'gate 1', ${quantity})`;
    await rows(position(one, 1));
    await rows(position(other, 1));
    expect(await refused(position(one, 2))).toMatch(/positions_tag/);
    expect(await refused(position(one, 1).replaceAll('ate 1', 'ate 2'))).toMatch(/positions_place/);
    expect(await refused(position(one, 3, '0').replaceAll('ate 1', 'ate 3'))).toMatch(/quantity/);
  });

  it('what is settled still never changes in the end, and what is a draft still can', async () => {
    expect(at).toBe(migrations.length);
    expect(await refused(`update quote_lines set quantity = 2 where id = '${won.line}'`)).toMatch(
      /never change/,
    );
    expect(await refused(`delete from quote_lines where id = '${second}'`)).toMatch(/never change/);
    expect(await refused(`update builds set decisions = '[1]' where id = '${won.build}'`)).toMatch(
      /never change/,
    );
    expect(await refused(`update model_versions set hash = 'other'`)).toMatch(/never change/);
    expect(await refused(`update quote_lines set quantity = 2 where id = '${draft.line}'`)).toBe('');
    expect(await refused(`update builds set decisions = '[1]' where id = '${draft.build}'`)).toBe('');
  });
});
