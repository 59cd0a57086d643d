/** Documents of the shelf made anew, where what they are of moved on since; those of before stay. */
import type { ShelvedView } from '../../contract';
import { connected, type WantedDocument } from '../../data';
import { refusal, type Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { isReference } from '../kernel/reference';
import { documentFor } from '../outbox/documents';
import { mediaOf } from '../paper/composing';
import { aboutBuild, aboutQuote } from '../outbox/about';
import { seeShelved } from './list';

/**
 * Makes a sheet or drawings of a build as it stands by now, or the quotation of the newest revision; where nothing moved
 * on, what is there is given. A package is made anew where its schedule is.
 */
export async function makeAgain(actor: Actor, id: string): Promise<Result<ShelvedView>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  const seen = isReference(id) ? await seeShelved(actor, id) : null;
  if (!seen) return fail('missing', { code: 'files.missing' });
  const { shelf } = connected().records;
  const row = await shelf.findByPk(id, { raw: true });
  if (!row || !seen.movedOn) return done(seen);
  const wanted = wantedAgain(seen);
  if (!wanted) return fail('conflict', { code: 'shelf.notAgain' });
  const about =
    row.quoteId === null ? await aboutBuild(actor, row.buildId ?? '') : await aboutQuote(actor, row.quoteId);
  if (!about.ok) return about;
  const { quote, revision, customerId } = about.value;
  const made = await documentFor(
    actor,
    { quoteId: quote?.id ?? null, revisionId: revision?.id ?? null, buildId: row.buildId, customerId },
    wanted,
  );
  if (!made.ok) return made;
  const again = await seeShelved(actor, made.value.id);
  return again ? done(again) : fail('missing', { code: 'files.missing' });
}

function wantedAgain({ kind, type, build }: ShelvedView): WantedDocument | null {
  if (kind === 'quotation') {
    const format = ['pdf', 'docx', 'xlsx', 'html', 'xml'].find((each) => mediaOf(each) === type);
    return format === undefined ? null : { is: 'quotation', format };
  }
  return (kind === 'specification' || kind === 'drawings') && build ? { is: kind, build: build.id } : null;
}
