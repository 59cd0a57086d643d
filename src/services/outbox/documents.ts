/** Documents that go along with a mail, made once and kept as they were. */
import { UniqueConstraintError } from 'sequelize';
import type { FileAnswer } from '../../contract';
import { connected, type MailRow, type ShelfRow, type WantedDocument } from '../../data';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { openFile } from '../files/files';
import { mediaOf, quotation } from '../paper/composing';
import { drawingsArchive, specification } from '../paper/specification';
import { shelve, shelved, type Shelved } from '../shelf/shelf';

type Of = Pick<MailRow, 'quoteId' | 'revisionId' | 'buildId' | 'customerId'>;

/**
 * The quotation of a revision that was sent: the one that was made first, or made now. Of two who make it at the same time
 * the first one's stands, so that a mail and a share are of the same bytes.
 */
export async function quotationOf(
  actor: Actor,
  of: Of & { quoteId: string; revisionId: string },
  format: string,
): Promise<Result<ShelfRow>> {
  const revision = await connected().records.revisions.findByPk(of.revisionId, { raw: true });
  if (!revision) return fail('missing', { code: 'quote.missing' });
  if (revision.state === 'draft') return fail('conflict', { code: 'share.notSent' });
  const type = mediaOf(format);
  if (type === undefined) return fail('missing', { code: 'file.format' });
  const there = () => shelved({ revisionId: of.revisionId, kind: 'quotation', type });
  const before = await there();
  if (before) return done(before);
  const made = await quotation(actor, of.quoteId, format, revision.number);
  if (!made.ok) return made;
  try {
    const stand = `revision ${String(revision.number)}`;
    return await kept(actor, { ...of, kind: 'quotation', stand }, made.value);
  } catch (thrown) {
    const first = thrown instanceof UniqueConstraintError ? await there() : null;
    if (first) return done(first);
    throw thrown;
  }
}

/** A document that is wanted, on the shelf. */
export async function documentFor(actor: Actor, of: Of, wanted: WantedDocument): Promise<Result<ShelfRow>> {
  switch (wanted.is) {
    case 'quotation':
      return of.quoteId !== null && of.revisionId !== null
        ? quotationOf(actor, { ...of, quoteId: of.quoteId, revisionId: of.revisionId }, wanted.format)
        : fail('missing', { code: 'quote.missing' });
    case 'specification':
    case 'drawings': {
      const made = await (wanted.is === 'specification'
        ? specification(actor, wanted.build, 'pdf')
        : drawingsArchive(actor, wanted.build));
      if (!made.ok) return made;
      const build = await connected().records.builds.findByPk(wanted.build, {
        attributes: ['version'],
        raw: true,
      });
      return kept(
        actor,
        { ...of, kind: wanted.is, buildId: wanted.build, stand: `build ${String(build?.version ?? 0)}` },
        made.value,
      );
    }
    case 'file': {
      const made = await openFile(actor, wanted.file, 'whole');
      return made.ok ? kept(actor, { ...of, kind: 'file', stand: wanted.file }, made.value) : made;
    }
  }
}

async function kept(
  actor: Actor,
  { kind, quoteId, revisionId, buildId, customerId, stand }: Shelved,
  made: FileAnswer,
): Promise<Result<ShelfRow>> {
  return done(await shelve(actor, { kind, quoteId, revisionId, buildId, customerId, stand }, made));
}
