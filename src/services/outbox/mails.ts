/** Mails as people see them: listed, looked at, sent again where they did not go. */
import { QueryTypes } from 'sequelize';
import {
  mailListInput,
  type FileAnswer,
  type MailListQuery,
  type MailPage,
  type MailRowView,
  type MailServerView,
  type MailView,
  type SeenMail,
} from '../../contract';
import { connected, type MailRow } from '../../data';
import { isDown, keptMessage, readMessage, setDown } from '../../standins/outbox';
import { may, refusal, type Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { askForJob } from '../kernel/jobs/queue';
import { tell } from '../kernel/live';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { visibleSql } from '../quotes/quote-state';
import { nameOf, reference } from '../settings/reference-data';
import { mailJob } from './job';
import { stepMail } from './way';

const pageSize = 50;

interface Found extends Omit<MailRow, 'raw'> {
  quoteNumber: string | null;
  quoteTitle: string | null;
  revision: number | null;
  partNumber: string | null;
  customer: string | null;
  documents: number;
  next: Date | null;
  count: number;
}

/** Mails `m` with what they are about. */
const mailSql = `select m.id, m.quote_id as "quoteId", m.revision_id as "revisionId", m.build_id as "buildId",
    m.message_id as "messageId", m.sender, m.recipients, m.subject, m.words, m.link, m.language, m.wanted,
    m.state, m.hash, m.server, m.refused, m.returned,
    m.problem, m.tries, m.made_by as "madeBy", m.made_at as "madeAt", m.sent_at as "sentAt",
    q.number as "quoteNumber", q.title as "quoteTitle", r.number as revision, b.outcome ->> 'partNumber' as "partNumber",
    coalesce(r.customer ->> 'name', c.name) as customer,
    (select count(*)::int from mail_documents d where d.mail_id = m.id) as documents,
    (select j.run_at from jobs j where j.once = 'mail ' || m.id and j.state = 'waiting') as next,
    count(*) over ()::int as count
  from mails m left join quotes q on q.id = m.quote_id left join quote_revisions r on r.id = m.revision_id
    left join builds b on b.id = m.build_id left join customers c on c.id = m.customer_id`;

/** Of which mails somebody sees: those about quotes that they see, and their own. */
const seenSql = (actor: Actor): string =>
  `(m.made_by = ${connected().sequelize.escape(actor.id)} or (m.quote_id is not null and ${visibleSql(actor)}))`;

async function found(actor: Actor, id: string): Promise<Found | null> {
  if (!isReference(id)) return null;
  const [row] = await connected().sequelize.query<Found>(`${mailSql} where m.id = $1 and ${seenSql(actor)}`, {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  return row ?? null;
}

const missing = fail('missing', { code: 'mail.missing' });

/** A page of mails, the newest first. */
export async function listMails(actor: Actor, asked: Partial<MailListQuery> = {}): Promise<MailPage> {
  const { find, page, state, mine } = mailListInput.cast(asked);
  const rows = await connected().sequelize.query<Found>(
    `${mailSql} where ${seenSql(actor)} and ($1::text is null or m.state = $1)
       and ($2::uuid is null or m.made_by = $2)
       and ($3 = '' or concat_ws(' ', m.subject, q.number, coalesce(r.customer ->> 'name', c.name), m.recipients::text)
         ilike '%' || $3 || '%')
     order by m.number desc limit ${String(pageSize)} offset ${String(page * pageSize)}`,
    {
      bind: [state ?? null, mine === true ? actor.id : null, find.trim().replace(/[\\%_]/g, '\\$&')],
      type: QueryTypes.SELECT,
    },
  );
  const known = await reference();
  return {
    rows: rows.map((row) => rowOf(row, nameOf(known, row.madeBy))),
    page,
    size: pageSize,
    count: rows[0]?.count ?? 0,
  };
}

/** Mails about a quote or a build, the newest first. */
export async function mailsOf(actor: Actor, of: 'quote_id' | 'build_id', id: string): Promise<MailRowView[]> {
  const rows = await connected().sequelize.query<Found>(
    `${mailSql} where m.${of} = $1 and ${seenSql(actor)} order by m.number desc limit 200`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  const known = await reference();
  return rows.map((row) => rowOf(row, nameOf(known, row.madeBy)));
}

function aboutOf(row: Found): Pick<MailRowView, 'quote' | 'build' | 'customer'> {
  return {
    ...(row.quoteId === null
      ? {}
      : {
          quote: {
            id: row.quoteId,
            number: row.quoteNumber ?? '',
            title: row.quoteTitle ?? '',
            revision: row.revision ?? 1,
          },
        }),
    ...(row.buildId === null ? {} : { build: { id: row.buildId, partNumber: row.partNumber ?? '' } }),
    customer: row.customer ?? '',
  };
}

const rowOf = (row: Found, madeBy: string): MailRowView => ({
  ...aboutOf(row),
  id: row.id,
  recipients: row.recipients,
  subject: row.subject,
  state: row.state,
  returned: row.refused.length + row.returned.length > 0,
  documents: Math.max(row.documents, row.state === 'making' ? row.wanted.length : 0),
  madeBy,
  madeAt: row.madeAt.toISOString(),
  sentAt: row.sentAt?.toISOString() ?? null,
});

/** A mail, all of it. */
export async function seeMail(actor: Actor, id: string): Promise<Result<MailView>> {
  const row = await found(actor, id);
  if (!row) return missing;
  const documents = await connected().sequelize.query<MailView['documents'][number]>(
    `select s.id, s.name, s.type, c.size, s.hash from mail_documents d join shelf s on s.id = d.shelf_id
       join shelf_contents c on c.hash = s.hash where d.mail_id = $1 order by d.position`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  const {
    documents: _documents,
    returned: _returned,
    ...head
  } = rowOf(row, nameOf(await reference(), row.madeBy));
  const mine = may(actor, 'quotes');
  return done({
    ...head,
    sender: row.sender,
    words: row.words,
    link: row.link !== null,
    documents,
    wanted: row.state === 'making' ? row.wanted.length : 0,
    hash: row.hash,
    server: row.server,
    refused: row.refused,
    returned: row.returned,
    problem: row.problem && {
      code: row.problem.code,
      ...(row.problem.params ? { params: row.problem.params } : {}),
    },
    tries: row.tries,
    next: row.next?.toISOString() ?? null,
    may: {
      again: mine && ['unsure', 'refused', 'unmade'].includes(row.state),
      arrived: mine && row.state === 'unsure',
      giveBack: mine && row.state === 'sent' && row.server === 'Outbox',
    },
  });
}

/** The message, byte for byte. */
async function rawOf(actor: Actor, id: string): Promise<Buffer | null> {
  const row = await found(actor, id);
  if (row?.hash == null) return null;
  const mail = await connected().records.mails.findByPk(id, { attributes: ['raw'], raw: true });
  return mail?.raw ?? null;
}

/** A mail as whoever gets it sees it. */
export async function seenMail(actor: Actor, id: string): Promise<Result<SeenMail>> {
  const row = await found(actor, id);
  if (!row) return missing;
  // Where our own server has it, it is what that took that is shown.
  const raw = (await keptMessage(row.messageId)) ?? (await rawOf(actor, id));
  return raw ? done(await readMessage(raw)) : fail('conflict', { code: 'mail.notMade' });
}

/** The message as a file. */
export async function messageFile(actor: Actor, id: string): Promise<Result<FileAnswer>> {
  const raw = await rawOf(actor, id);
  return raw ? done({ name: `${id}.eml`, type: 'message/rfc822', bytes: new Uint8Array(raw) }) : missing;
}

/** Sends again what did not go, or of which nobody knows. */
export const sendAgain = (actor: Actor, id: string): Promise<Result<MailView>> =>
  changed(actor, id, 'mail.again', async (row) => {
    if ((await stepMail(id, row.state === 'unmade' ? 'remake' : 'again')) === null)
      return fail('conflict', { code: 'mail.notAgain' });
    await askForJob(mailJob, { mail: id }, { by: actor.id, once: `mail ${id}` });
    return done(null);
  });

/** Says that one arrived of which nobody knew. */
export const hasArrived = (actor: Actor, id: string): Promise<Result<MailView>> =>
  changed(actor, id, 'mail.arrived', async (row) =>
    row.state === 'unsure' && (await stepMail(id, 'taken')) !== null
      ? done(null)
      : fail('conflict', { code: 'mail.notUnsure' }),
  );

const changed = (
  actor: Actor,
  id: string,
  act: string,
  work: (row: Found) => Promise<Result<null>>,
): Promise<Result<MailView>> =>
  inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const row = await found(actor, id);
    if (!row) return missing;
    const did = await work(row);
    if (!did.ok) return did;
    await record(actor, act, row.quoteNumber ?? row.partNumber ?? '', { subject: row.subject });
    return seeMail(actor, id);
  });

/** Which server takes our mails. */
export async function seeMailServer(): Promise<MailServerView> {
  const url = process.env.SMTP_URL;
  return url
    ? { ours: false, at: new URL(url).host, down: false }
    : { ours: true, at: '', down: await isDown() };
}

/** Takes the simulated server down, or brings it up; what waits for it goes at once then. */
export const changeMailServer = (actor: Actor, down: boolean): Promise<Result<MailServerView>> =>
  inTransaction(async () => {
    const refused = refusal(actor, 'administer');
    if (refused) return refused;
    if (process.env.SMTP_URL) return fail('conflict', { code: 'mail.realServer' });
    await setDown(down);
    if (!down)
      await connected().sequelize.query(
        `update jobs set run_at = now() where kind = 'mail.send' and state = 'waiting' and run_at > now()`,
      );
    await record(actor, 'mail.server', down ? 'down' : 'up', {});
    return done(await seeMailServer());
  });

/** Has the simulated server send a mail back from an address, as servers do that find no mailbox later. */
export const giveBack = (
  actor: Actor,
  { mail: id, address }: { mail: string; address: string },
): Promise<Result<MailView>> =>
  changed(actor, id, 'mail.returned', async (row) => {
    if (row.state !== 'sent' || row.server !== 'Outbox') return fail('conflict', { code: 'mail.notOurs' });
    const meant = row.recipients.find((each) => each.address.toLowerCase() === address.toLowerCase());
    if (!meant) return fail('invalid', { code: 'mail.notTo', field: 'address' });
    await noteReturn(id, meant.address, '550 5.1.1 mailbox unknown');
    return done(null);
  });

/** Writes down that a mail came back from an address, once, and tells whoever sent it. */
export async function noteReturn(id: string, address: string, words: string): Promise<void> {
  const [row] = await connected().sequelize.query<{ madeBy: string; quoteId: string | null }>(
    `update mails set returned = returned || $2::jsonb
     where id = $1 and not returned @> $3::jsonb returning made_by as "madeBy", quote_id as "quoteId"`,
    {
      bind: [id, JSON.stringify([{ address, words }]), JSON.stringify([{ address }])],
      type: QueryTypes.SELECT,
    },
  );
  if (row) await tell([row.madeBy], { kind: 'mail', quote: row.quoteId });
}
