/** Files of the store as the thread for papers takes them. */
import { Op } from 'sequelize';
import type { Annex } from '../../core/paper';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { openFile } from '../files/files';
import type { Failure } from '../kernel/failure';
import { askPapers } from '../kernel/papers';
import type { GivenFiles } from './files/given-files';

/** All files of one document together at most, in bytes. */
const mostDocumentBytes = 60 * 1024 * 1024;

const pictures = new Set(['png', 'jpeg', 'webp', 'svg']);

/** What is in some files, by their ids; those that are gone are left out. */
export async function bytesOf(ids: readonly string[]): Promise<GivenFiles> {
  if (ids.length === 0) return {};
  const { files, fileContents } = connected().records;
  const rows = await files.findAll({ where: { id: { [Op.in]: [...ids] } }, raw: true });
  const contents = await fileContents.findAll({
    where: { hash: { [Op.in]: rows.map(({ hash }) => hash) } },
    raw: true,
  });
  const byHash = new Map(contents.map((content) => [content.hash, content]));
  return Object.fromEntries(
    rows.flatMap(({ id, hash }) => {
      const content = byHash.get(hash);
      return content ? [[id, { kind: content.kind, bytes: new Uint8Array(content.bytes) }] as const] : [];
    }),
  );
}

/** Annexes that somebody may see, by their ids; others are left out as if they were gone. */
export async function annexBytes(actor: Actor, annexes: readonly Annex[]): Promise<GivenFiles> {
  const seen = await Promise.all(
    annexes.map(async ({ file }) => ((await openFile(actor, file, 'small')).ok ? [file] : [])),
  );
  return bytesOf(seen.flat());
}

/** Of some files those that are there, with what they are and how large; nothing of them is read. */
async function headsOf(ids: readonly string[]): Promise<Map<string, { kind: string; size: number }>> {
  if (ids.length === 0) return new Map();
  const { files, fileContents } = connected().records;
  const rows = await files.findAll({ where: { id: { [Op.in]: [...ids] } }, raw: true });
  const heads = await fileContents.findAll({
    where: { hash: { [Op.in]: rows.map(({ hash }) => hash) } },
    attributes: ['hash', 'kind', 'size'],
    raw: true,
  });
  const byHash = new Map(heads.map((head) => [head.hash, head]));
  return new Map(
    rows.flatMap(({ id, hash }) => {
      const head = byHash.get(hash);
      return head ? [[id, { kind: head.kind, size: head.size }] as const] : [];
    }),
  );
}

/** Annexes that are no longer there. */
export async function annexesGone(annexes: readonly Annex[]): Promise<Annex[]> {
  const there = await headsOf(annexes.map(({ file }) => file));
  return annexes.filter(({ file }) => !there.has(file));
}

/** Why annexes together are too much for one document; told by their sizes, before any of them is read. */
export async function tooLarge(annexes: readonly Annex[]): Promise<Failure | null> {
  const there = await headsOf(annexes.map(({ file }) => file));
  const bytes = annexes.reduce((sum, { file }) => sum + (there.get(file)?.size ?? 0), 0);
  return bytes > mostDocumentBytes
    ? { code: 'paper.annexSize', params: { most: mostDocumentBytes / 1024 / 1024 } }
    : null;
}

/** Why annexes cannot go along: all too large together, one of another kind, or one that cannot be read. */
export async function lookAtAnnexes(annexes: readonly Annex[]): Promise<Failure | null> {
  const large = await tooLarge(annexes);
  if (large) return large;
  const found = await bytesOf(annexes.map(({ file }) => file));
  for (const { file, name, kind } of annexes) {
    const one = found[file];
    if (!one) continue;
    if (kind === 'picture' ? !pictures.has(one.kind) : one.kind !== 'pdf')
      return { code: 'paper.annexKind', params: { name } };
    if (kind === 'pdf' && !(await askPapers('readsAsPdf', { bytes: one.bytes })))
      return { code: 'paper.annexUnread', params: { name } };
  }
  return null;
}
