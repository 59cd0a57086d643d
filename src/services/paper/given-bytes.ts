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
export const mostDocumentBytes = 60 * 1024 * 1024;

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

/** Why annexes cannot be joined: one that is no PDF, cannot be read, or all too large together. */
export async function lookAtAnnexes(annexes: readonly Annex[]): Promise<Failure | null> {
  const found = await bytesOf(annexes.map(({ file }) => file));
  let bytes = 0;
  for (const { file, name, kind } of annexes) {
    const one = found[file];
    if (!one) continue;
    bytes += one.bytes.length;
    if (kind === 'picture' ? !pictures.has(one.kind) : one.kind !== 'pdf')
      return { code: 'paper.annexKind', params: { name } };
    if (bytes > mostDocumentBytes)
      return { code: 'paper.annexSize', params: { most: mostDocumentBytes / 1024 / 1024 } };
    if (kind === 'pdf' && !(await askPapers('readsAsPdf', { bytes: one.bytes })))
      return { code: 'paper.annexUnread', params: { name } };
  }
  return null;
}
