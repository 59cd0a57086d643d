/** What a customer sees behind a share: the document as it was sent, and what they answered. */
import { QueryTypes } from 'sequelize';
import type { FileAnswer, OwnAnswer, SharedView } from '../../contract';
import { mayAnswer, type PageDocument } from '../../core/sending';
import { connected } from '../../data';
import { own } from '../../i18n';
import type { Scene } from '../../core/drawing';
import { findBuild } from '../builds/find-build';
import { versionById } from '../catalogue/models';
import { today } from '../kernel/clock';
import { askEngine } from '../kernel/engines';
import { done, fail, type Result } from '../kernel/failure';
import { tell } from '../kernel/live';
import { Recent } from '../kernel/threads/recent';
import { quotationPage } from '../paper/composing';
import { bytesOf } from '../paper/given-bytes';
import { houseOf } from '../paper/given';
import { specificationPage } from '../paper/specification';
import { mediaTypes } from '../files/kind';
import { fileOf } from '../shelf/shelf';
import { keepQuotation } from './keep-job';
import { openShare, type Opened } from './opened';

/** What of a share never changes, since what it is of does not: kept for those who open it next. */
interface Shown {
  document: PageDocument;
  lines: SharedView['lines'];
  builds: SharedView['builds'];
  house: SharedView['house'];
  contact: SharedView['contact'];
  title: string;
  customer: string;
}

/** By revision or version of a build, language and owner; its weight is that of its document, in characters. */
const kept = new Recent<Promise<Result<Shown>>>(60_000_000);

async function shownBy(opened: Opened): Promise<Result<Shown>> {
  const { revision, build, share, owner } = opened;
  const of = revision?.id ?? `${build?.id ?? ''} ${String(build?.version)}`;
  // Whoever has it now is who answers, so what was handed over is shown with their name.
  const key = `${of} ${share.language} ${owner.id}`;
  const before = kept.get(key);
  if (before) return before;
  const making = build ? buildShown(opened) : quoteShown(opened);
  // Those who come while it is made wait for the same.
  kept.set(key, making, 1_000);
  try {
    const made = await making;
    if (made.ok) kept.set(key, making, JSON.stringify(made.value.document).length);
    else kept.delete(key);
    return made;
  } catch (thrown) {
    kept.delete(key);
    throw thrown;
  }
}

async function quoteShown({ owner, quote, revision }: Opened): Promise<Result<Shown>> {
  if (!quote || !revision) return fail('missing', { code: 'shared.missing' });
  const made = await quotationPage(owner, quote.id, revision.number);
  if (!made.ok) return made;
  const { page, given } = made.value;
  const { language } = page;
  const { house, owner: contact } = given;
  return done({
    document: page,
    lines: given.lines.map(({ id, position, name }) => ({ id, position, name: own(name, language) })),
    builds: await drawnBuilds(owner, revision.id, language),
    house: { name: house.name, phone: house.phone, email: house.email },
    contact: { name: contact.name, email: contact.email },
    title: given.title,
    customer: given.customer.name,
  });
}

/** Builds of a revision that have a drawing, by line. */
async function drawnBuilds(
  owner: Opened['owner'],
  revision: string,
  language: string,
): Promise<SharedView['builds']> {
  const rows = await connected().sequelize.query<{
    id: string;
    name: Record<string, string>;
    partNumber: string;
  }>(
    `select b.id, v.document -> 'name' as name, b.outcome ->> 'partNumber' as "partNumber"
     from quote_lines l join builds b on b.id = l.build_id join model_versions v on v.id = b.model_version_id
     where l.revision_id = $1 and v.document -> 'drawing' is not null order by l.position`,
    { bind: [revision], type: QueryTypes.SELECT },
  );
  return rows.map(({ id, name, partNumber }) => ({
    id,
    partNumber,
    name: own(name, language) || own(name, owner.language),
  }));
}

async function buildShown({ owner, build }: Opened): Promise<Result<Shown>> {
  const found = await findBuild(owner, build?.id ?? '');
  if (!found.ok) return found;
  const { build: row, home } = found.value;
  const document = await specificationPage(owner, found.value);
  const { name } = await versionById(row.modelVersionId);
  const house = await houseOf(home.of === 'quote' ? home.quote.dealer : null);
  const scene = await askEngine('scene', { version: row.modelVersionId, values: row.outcome.values });
  const title = own(name, document.language);
  return done({
    document,
    lines: [],
    builds: scene ? [{ id: row.id, name: title, partNumber: row.outcome.partNumber }] : [],
    house: { name: house.name, phone: house.phone, email: house.email },
    contact: { name: owner.name, email: owner.email },
    title,
    customer: '',
  });
}

/** What a share shows now. */
export async function seeShared(token: string): Promise<Result<SharedView>> {
  const opened = await openShare(token);
  if (!opened.ok) return opened;
  await noteSeen(opened.value);
  return viewOf(opened.value);
}

/** The view of an open share. */
export async function viewOf(opened: Opened): Promise<Result<SharedView>> {
  const { share, quote, revision, build, newer } = opened;
  const shown = await shownBy(opened);
  if (!shown.ok) return shown;
  const state = await stateOf(opened);
  if (quote && state.hash === null && revision) await keepQuotation(revision.id);
  return done({
    of: build ? 'build' : 'quote',
    language: share.language,
    ...shown.value,
    reference: build ? build.outcome.partNumber : `${quote?.number ?? ''} R${String(revision?.number ?? 1)}`,
    until: share.until,
    validUntil: revision?.validUntil ?? null,
    ...state,
    newer,
    mayAnswer: mayAnswer({
      quote: revision !== null,
      newest: !newer,
      state: revision?.state ?? 'draft',
      expired: (revision?.validUntil ?? today()) < today(),
      accepted: state.accepted !== null,
    }),
  });
}

/** What of a share moves on: its documents, what was answered, and whether anybody said yes. */
async function stateOf({
  share,
  revision,
}: Opened): Promise<Pick<SharedView, 'documents' | 'hash' | 'answers' | 'accepted'>> {
  const [row] = await connected().sequelize.query<{
    documents: SharedView['documents'];
    hash: string | null;
    answers: OwnAnswer[];
    accepted: SharedView['accepted'];
  }>(
    `select
       (select coalesce(jsonb_agg(to_jsonb(d)), '[]') from (${documentsSql}) d) as documents,
       (select hash from shelf where revision_id = $1 and kind = 'quotation' and type = 'application/pdf'
          order by made_at limit 1) as hash,
       (select coalesce(jsonb_agg(jsonb_build_object('answer', answer, 'line', line_named, 'words', words, 'name', name,
            'at', at, 'reply', reply) order by at), '[]')
          from (select * from share_answers where share_id = $2 order by at limit 200) a) as answers,
       (select jsonb_build_object('name', name, 'at', at) from share_answers
          where revision_id = $1 and answer = 'accepted' limit 1) as accepted`,
    { bind: [revision?.id ?? null, share.id], type: QueryTypes.SELECT },
  );
  if (!row) throw new Error('a query without conditions gave no row');
  const exact = <T extends { at: string }>(one: T): T => ({ ...one, at: new Date(one.at).toISOString() });
  return { ...row, answers: row.answers.map(exact), accepted: row.accepted && exact(row.accepted) };
}

/** Documents that the customer was sent of the same, and the quotation itself. */
const documentsSql = `
  select distinct on (s.hash) s.id, s.name, s.type, c.size, s.hash from shelf s join shelf_contents c on c.hash = s.hash
  where (s.revision_id = $1 and s.kind = 'quotation' and s.type = 'application/pdf')
     or s.id in (select d.shelf_id from mail_documents d join mails m on m.id = d.mail_id
                 where m.share_id = $2 and m.state = 'sent')
  order by s.hash, s.made_at`;

/** That it was opened is written once a minute at most, so that nobody writes by looking. */
async function noteSeen({ share, owner, quote }: Opened): Promise<void> {
  if (share.lastSeenAt && Date.now() - share.lastSeenAt.getTime() < 60_000) return;
  const [row] = await connected().sequelize.query<{ first: boolean }>(
    `update shares set seen = seen + 1, last_seen_at = now(), first_seen_at = coalesce(first_seen_at, now())
     where id = $1 and (last_seen_at is null or last_seen_at < now() - interval '1 minute')
     returning seen = 1 as first`,
    { bind: [share.id], type: QueryTypes.SELECT },
  );
  if (row?.first === true)
    await tell([...new Set([owner.id, share.madeBy])], { kind: 'desk', quote: quote?.id ?? null });
}

/** A document behind a share: only one that it shows. */
export async function sharedDocument(token: string, id: string): Promise<Result<FileAnswer>> {
  const opened = await openShare(token);
  if (!opened.ok) return opened;
  const missing = fail('missing', { code: 'files.missing' });
  if (!(await stateOf(opened.value)).documents.some((each) => each.id === id)) return missing;
  const row = await connected().records.shelf.findByPk(id, { raw: true });
  return row ? done(await fileOf(row)) : missing;
}

/** A picture that stands in the document of a share. */
export async function sharedPicture(token: string, id: string): Promise<Result<FileAnswer>> {
  const opened = await openShare(token);
  if (!opened.ok) return opened;
  const shown = await shownBy(opened.value);
  if (!shown.ok) return shown;
  const { head, blocks } = shown.value.document;
  const named = new Set([
    head.mark,
    ...blocks.flatMap(({ nodes }) => nodes.flatMap((node) => (node.is === 'picture' ? [node.file] : []))),
  ]);
  const file = named.has(id) ? (await bytesOf([id]))[id] : undefined;
  if (!file) return fail('missing', { code: 'files.missing' });
  const { kind } = file;
  return done({
    name: `picture.${kind}`,
    type: mediaTypes[kind as keyof typeof mediaTypes],
    bytes: file.bytes,
    headers: {
      'content-disposition': 'inline',
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
      'cache-control': 'private, max-age=3600',
    },
  });
}

const scenes = new Recent<Scene>(20_000_000);

/** The drawing of a build behind a share. */
export async function sharedScene(token: string, id: string): Promise<Result<Scene>> {
  const opened = await openShare(token);
  if (!opened.ok) return opened;
  const missing = fail('missing', { code: 'drawing.missing' });
  const shown = await shownBy(opened.value);
  if (!shown.ok) return shown;
  if (!shown.value.builds.some((build) => build.id === id)) return missing;
  const build = await connected().records.builds.findByPk(id, { raw: true });
  if (!build) return missing;
  const key = `${id} ${String(build.version)}`;
  const before = scenes.get(key);
  if (before) return done(before);
  const scene = await askEngine('scene', { version: build.modelVersionId, values: build.outcome.values });
  if (!scene) return missing;
  scenes.set(key, scene, JSON.stringify(scene).length);
  return done(scene);
}
