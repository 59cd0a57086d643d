/** The one store of files: what is in one is kept once, told by its content, and seen by who may. */
import { createHash, randomUUID } from 'node:crypto';
import { Op, QueryTypes } from 'sequelize';
import { pictureKinds, type FileAnswer, type FileKind, type FileView } from '../../contract';
import { connected, type FileContentRow, type FileRow } from '../../data';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { aboutKinds, type About } from './about';
import { kindOf, mediaTypes, textIn } from './kind';
import { smaller } from './picture';
import { safeDrawing } from './svg';

type Content = Omit<FileContentRow, 'hash' | 'madeAt'>;

/** Takes a file: whoever brought it alone sees it until it is used somewhere. */
export async function bring(
  actor: Actor,
  { name, bytes }: { name: string; bytes: Uint8Array },
): Promise<Result<FileView>> {
  if (bytes.length === 0) return fail('invalid', { code: 'files.empty' });
  if (await hasTooMany(actor)) return fail('tooMany', { code: 'files.tooManyLoose' });
  const made = await contentOf(bytes, name);
  if (typeof made === 'string') return fail('invalid', { code: made });
  return inTransaction(async () => {
    // Of some that are brought at once each counts those before it.
    await connected().sequelize.query('select pg_advisory_xact_lock(hashtext($1))', {
      bind: [`files of ${actor.id}`],
    });
    if (await hasTooMany(actor)) return fail('tooMany', { code: 'files.tooManyLoose' });
    const file = await keepContent(made, tidyName(name, made.kind as FileKind), actor.id);
    await record(actor, 'file.brought', file.name, { kind: made.kind, size: made.size });
    return done(viewOf(file, made, actor.name));
  });
}

/** Keeps a file that the house made for somebody, who alone sees it; part of a transaction. Gives its id. */
export async function keepMade(
  owner: string,
  { name, kind, bytes }: { name: string; kind: FileKind; bytes: Buffer },
): Promise<string> {
  const plain = { width: null, height: null, small: null, smallKind: null };
  const file = await keepContent({ ...plain, kind, size: bytes.length, bytes }, name, owner);
  return file.id;
}

async function keepContent(made: Content, name: string, owner: string): Promise<FileRow> {
  const { records } = connected();
  const hash = createHash('sha256').update(made.bytes).digest('hex');
  // One that is there already is as new as if it were brought now: it is not just being taken away.
  await records.fileContents.bulkCreate([{ hash, ...made, madeAt: new Date() }], {
    updateOnDuplicate: ['madeAt'],
  });
  const file: FileRow = {
    id: randomUUID(),
    hash,
    name,
    owner,
    about: null,
    aboutId: null,
    madeAt: new Date(),
  };
  await records.files.create(file);
  return file;
}

/** Files and bytes of one person that nothing uses, at most. */
const mostLoose = { files: 200, bytes: 200 * 1024 * 1024 };

async function hasTooMany(actor: Actor): Promise<boolean> {
  const [row] = await connected().sequelize.query<{ files: string; bytes: string }>(
    `select count(*) as files, coalesce(sum(c.size), 0) as bytes
     from files f join file_contents c on c.hash = f.hash where f.owner = $1 and f.about is null`,
    { bind: [actor.id], type: QueryTypes.SELECT },
  );
  return Number(row?.files) >= mostLoose.files || Number(row?.bytes) >= mostLoose.bytes;
}

/** What is kept of some bytes, or the code of why they are not taken. */
async function contentOf(bytes: Uint8Array, name: string): Promise<Content | string> {
  const kind = await kindOf(bytes, name);
  if (kind === null) return 'files.unknownKind';
  const plain = { width: null, height: null, small: null, smallKind: null };
  if (kind === 'svg') {
    const drawing = safeDrawing(textIn(bytes) ?? '');
    if (!drawing) return 'files.broken';
    const safe = Buffer.from(drawing.text);
    return { ...plain, kind, size: safe.length, width: drawing.width, height: drawing.height, bytes: safe };
  }
  if (!pictureKinds.includes(kind)) return { ...plain, kind, size: bytes.length, bytes: Buffer.from(bytes) };
  const picture = await smaller(bytes);
  if (typeof picture === 'string') return picture;
  const { small, ...whole } = picture;
  return { ...whole, size: whole.bytes.length, small, smallKind: 'webp' };
}

/** A file as it is opened. What it is can run nothing, whatever it is opened in. */
export async function openFile(actor: Actor, id: string, as: 'whole' | 'small'): Promise<Result<FileAnswer>> {
  const file = await seen(actor, id);
  if (!file) return fail('missing', { code: 'files.missing' });
  const content = await connected().records.fileContents.findByPk(file.hash, { raw: true });
  if (!content) return fail('missing', { code: 'files.missing' });
  const small = as === 'small' && content.small !== null;
  const kind = (small ? content.smallKind : content.kind) as FileKind;
  const name = file.name.replace(/[^\w .()-]/g, '_');
  return done({
    name: small ? `${name}.webp` : name,
    type: mediaTypes[kind],
    bytes: small ? (content.small as Buffer) : content.bytes,
    headers: {
      ...(pictureKinds.includes(kind) ? { 'content-disposition': `inline; filename="${name}"` } : {}),
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
      'x-content-type-options': 'nosniff',
      'cache-control': 'private, max-age=3600',
    },
  });
}

/** Takes back a file that is not used; whoever brought it may, as long as nothing uses it. */
export async function takeBack(actor: Actor, id: string): Promise<Result<null>> {
  return inTransaction(async () => {
    const file = await own(actor, id);
    if (!file) return fail('missing', { code: 'files.missing' });
    if (file.about !== null) return fail('conflict', { code: 'files.used' });
    await file.destroy();
    await record(actor, 'file.takenBack', file.name, {});
    return done(null);
  });
}

/**
 * Says what uses a file, so that who sees that sees it; one that somebody else brought, or that is used already,
 * is not taken. Part of the transaction of what uses it.
 */
export async function use(
  actor: Actor,
  id: string,
  about: About,
  aboutId: string,
): Promise<Result<FileView>> {
  const file = await own(actor, id);
  if (!file) return fail('missing', { code: 'files.missing' });
  if (file.about !== null && (file.about !== about || file.aboutId !== aboutId))
    return fail('conflict', { code: 'files.used' });
  await file.update({ about, aboutId });
  const content = await contentRow(file.hash);
  return content ? done(viewOf(file, content, actor.name)) : fail('missing', { code: 'files.missing' });
}

/** Ends what uses files, but those named: they are loose from then on, and taken away later. */
export async function endUse(about: About, aboutId: string, keep: readonly string[] = []): Promise<void> {
  await connected().records.files.update(
    { about: null, aboutId: null },
    { where: { about, aboutId, ...(keep.length > 0 ? { id: { [Op.notIn]: [...keep] } } : {}) } },
  );
}

/** The files that something uses, in the order in which they were brought. */
export async function filesOf(about: About, aboutId: string): Promise<FileView[]> {
  return connected().sequelize.query<FileView>(
    `select f.id, f.name, c.kind, c.size, c.width, c.height, u.name as by,
       to_char(f.made_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as at
     from files f join file_contents c on c.hash = f.hash join users u on u.id = f.owner
     where f.about = $1 and f.about_id = $2 order by f.made_at, f.id`,
    { bind: [about, aboutId], type: QueryTypes.SELECT },
  );
}

/** Takes away files that nobody used for a day, and contents that no file has any more. */
export async function dropLoose(now: Date): Promise<number> {
  const { records, sequelize } = connected();
  const before = new Date(now.getTime() - 24 * 60 * 60 * 1000);
  const count = await records.files.destroy({ where: { about: null, madeAt: { [Op.lt]: before } } });
  await sequelize.query(
    `delete from file_contents c where made_at < $1 and not exists (select 1 from files f where f.hash = c.hash)`,
    { bind: [before] },
  );
  return count;
}

/** A file that the person brought, so that nobody else does anything with it meanwhile. */
const own = async (actor: Actor, id: string) =>
  isReference(id) ? connected().records.files.findOne({ where: { id, owner: actor.id }, lock: true }) : null;

/** The file, where the person may see it: their own, or of something that they see. */
async function seen(actor: Actor, id: string): Promise<FileRow | null> {
  if (!isReference(id)) return null;
  const file = await connected().records.files.findByPk(id, { raw: true });
  if (!file) return null;
  if (file.about === null) return file.owner === actor.id ? file : null;
  // What used it before may be of a room that is no more.
  const sees = (aboutKinds as Partial<typeof aboutKinds>)[file.about as About];
  return (await sees?.(actor, file.aboutId ?? '')) === true ? file : null;
}

const contentRow = (hash: string) =>
  connected().records.fileContents.findByPk(hash, {
    attributes: ['kind', 'size', 'width', 'height'],
    raw: true,
  });

const viewOf = (
  { id, name, madeAt }: FileRow,
  { kind, size, width, height }: Pick<Content, 'kind' | 'size' | 'width' | 'height'>,
  by: string,
): FileView => ({ id, name, kind: kind as FileKind, size, width, height, by, at: madeAt.toISOString() });

/** The last part of a path, with the ending of what it is. */
function tidyName(name: string, kind: FileKind): string {
  const last = (name.split(/[/\\]/).at(-1) ?? '').replace(/[\u0000-\u001f\u007f]/g, '').trim();
  const plain = last.replace(/\.[A-Za-z0-9]{1,5}$/, '').slice(0, 120) || 'file';
  // Drawings that are written as text open in what draws only by their own ending.
  const [, drawn] = /\.(dxf|stp|step|ifc)$/i.exec(last) ?? [];
  if (kind === 'text' && drawn !== undefined) return `${plain}.${drawn.toLowerCase()}`;
  return `${plain}.${{ jpeg: 'jpg', text: 'txt' }[kind as string] ?? kind}`;
}
