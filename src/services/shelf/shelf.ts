/** The shelf: documents as they were made for a quote, a build or a customer, byte for byte, each content once. */
import { createHash, randomUUID } from 'node:crypto';
import type { FileAnswer } from '../../contract';
import { connected, type ShelfKind, type ShelfRow } from '../../data';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { seeShelved } from './list';

/** Where a document belongs, and what it was made of. */
export type Shelved = Pick<
  ShelfRow,
  'kind' | 'quoteId' | 'revisionId' | 'buildId' | 'customerId' | 'scheduleId' | 'stand'
>;

/** SHA-256 of bytes, in hexadecimal digits. */
export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Puts a document on the shelf. */
export async function shelve(
  actor: Actor,
  of: Shelved,
  { name, type, bytes }: Pick<FileAnswer, 'name' | 'type' | 'bytes'>,
): Promise<ShelfRow> {
  const content = typeof bytes === 'string' ? Buffer.from(bytes) : Buffer.from(bytes);
  const hash = hashOf(content);
  await connected().records.shelfContents.bulkCreate(
    [{ hash, size: content.length, bytes: content, madeAt: new Date() }],
    { ignoreDuplicates: true },
  );
  const row = await connected().records.shelf.create({
    id: randomUUID(),
    ...of,
    name: name.slice(0, 200),
    type,
    hash,
    madeBy: actor.id,
    madeAt: new Date(),
  });
  return row.get({ plain: true });
}

/** A document of a revision that was made before, where there is one. */
export const shelved = (of: {
  revisionId: string;
  kind: ShelfKind;
  type: string;
}): Promise<ShelfRow | null> =>
  connected().records.shelf.findOne({ where: of, order: [['madeAt', 'ASC']], raw: true });

/** What is in a document. */
export async function contentOf(hash: string): Promise<Buffer> {
  const row = await connected().records.shelfContents.findByPk(hash, { raw: true });
  if (!row) throw new Error(`the shelf has lost ${hash}`);
  return row.bytes;
}

/** A document as a file that is saved. */
export async function fileOf({ name, type, hash }: ShelfRow): Promise<FileAnswer> {
  return {
    name,
    type,
    bytes: await contentOf(hash),
    headers: {
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
      'x-content-type-options': 'nosniff',
    },
  };
}

/** A document of the shelf, for whoever sees what it belongs to. */
export async function openShelved(actor: Actor, id: string): Promise<Result<FileAnswer>> {
  const missing = fail('missing', { code: 'files.missing' });
  const seen = isReference(id) ? await seeShelved(actor, id) : null;
  const row = seen && (await connected().records.shelf.findByPk(id, { raw: true }));
  return row ? done(await fileOf(row)) : missing;
}
