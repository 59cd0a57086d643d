/** Notes for colleagues, days to follow up on, and attachments of a quote. */
import { randomUUID } from 'node:crypto';
import type { AttachInput, ColleaguesView, FollowUpChange, FollowUpInput } from '../../contract';
import { connected } from '../../data';
import { may, refusal, type Actor } from '../access/actor';
import { use } from '../files/files';
import { done, fail, type Result } from '../kernel/failure';
import { tell } from '../kernel/live';
import { isReference } from '../kernel/reference';
import { inTransaction, record } from '../kernel/unit-of-work';
import { findQuote, holdQuote, type QuoteBase } from '../quotes/quote-state';
import { colleaguesOf } from './people';
import { colleaguesView } from './view';

/** Days that can be meant: neither long ago nor in another life. */
const farthest = { before: 1, after: 5 };
/** So many files at most, so that a quote stays something that can be read. */
const mostFiles = 100;

/** Does something about a quote that the actor sees, and tells what colleagues know of it by then. */
export function aboutQuote(
  actor: Actor,
  id: string,
  work: (quote: QuoteBase) => Promise<Result<unknown>>,
): Promise<Result<ColleaguesView>> {
  return inTransaction(async () => {
    const quote = await holdQuote(actor, id);
    if (!quote) return fail('missing', { code: 'quote.missing' });
    if (actor.role === 'administrator')
      return fail('forbidden', { code: 'refused.permission', params: { permission: 'quotes' } });
    const result = await work(quote);
    return result.ok ? done(await colleaguesView(actor, quote)) : result;
  });
}

/** Writes a note. */
export const writeNote = (actor: Actor, id: string, words: string): Promise<Result<ColleaguesView>> =>
  aboutQuote(actor, id, async (quote) => {
    const { quoteNotes } = connected().records;
    await quoteNotes.create({
      id: randomUUID(),
      quoteId: quote.id,
      words,
      handedFrom: null,
      handedTo: null,
      madeBy: actor.id,
      madeAt: new Date(),
    });
    if (quote.ownerId !== actor.id) await tell([quote.ownerId], { kind: 'desk', quote: quote.id });
    return done(null);
  });

/** Takes back one's own note; that a quote was handed over stays written. */
export async function takeBackNote(actor: Actor, id: string): Promise<Result<ColleaguesView>> {
  const missing = fail('missing', { code: 'colleague.missing' });
  const note = isReference(id) ? await connected().records.quoteNotes.findByPk(id, { raw: true }) : null;
  if (!note || !(await findQuote(actor, note.quoteId))) return missing;
  return aboutQuote(actor, note.quoteId, async (quote) => {
    if (note.madeBy !== actor.id || note.handedTo !== null)
      return fail('forbidden', { code: 'colleague.notYours' });
    await connected().records.quoteNotes.destroy({ where: { id } });
    await record(actor, 'note.takenBack', quote.number, { words: note.words });
    return done(null);
  });
}

/** A day to come back to the quote on, for oneself or a colleague. */
export const followUp = (
  actor: Actor,
  id: string,
  { day, words, for: whose }: FollowUpInput,
): Promise<Result<ColleaguesView>> =>
  aboutQuote(actor, id, async (quote) => {
    const wrong = farDay(day);
    if (wrong) return wrong;
    const forUser = whose ?? actor.id;
    if (forUser !== actor.id && !(await colleaguesOf(actor)).some((each) => each.id === forUser))
      return fail('invalid', { code: 'colleague.unknown', field: 'for' });
    await connected().records.followUps.create({
      id: randomUUID(),
      quoteId: quote.id,
      day,
      words,
      forUser,
      madeBy: actor.id,
      madeAt: new Date(),
      doneAt: null,
      doneBy: null,
    });
    await tell([forUser], { kind: 'desk', quote: quote.id });
    return done(null);
  });

function farDay(day: string): Result<never> | null {
  const years = (Date.parse(day) - Date.now()) / (365 * 86_400_000);
  return years < -farthest.before || years > farthest.after
    ? fail('invalid', { code: 'colleague.farDay', field: 'day' })
    : null;
}

/** Moves a follow-up to another day, or says that it is done; any colleague may, so that nothing hangs on who is away. */
export async function changeFollowUp(
  actor: Actor,
  id: string,
  { day, done: isDone }: FollowUpChange,
): Promise<Result<ColleaguesView>> {
  const { followUps } = connected().records;
  const row = isReference(id) ? await followUps.findByPk(id, { raw: true }) : null;
  if (!row || !(await findQuote(actor, row.quoteId))) return fail('missing', { code: 'colleague.missing' });
  return aboutQuote(actor, row.quoteId, async (quote) => {
    const wrong = day === undefined ? null : farDay(day);
    if (wrong) return wrong;
    await followUps.update(
      {
        ...(day === undefined ? {} : { day }),
        ...(isDone === undefined
          ? {}
          : { doneAt: isDone ? new Date() : null, doneBy: isDone ? actor.id : null }),
      },
      { where: { id } },
    );
    await tell([row.forUser], { kind: 'desk', quote: quote.id });
    return done(null);
  });
}

/** Attaches a file that the actor brought. */
export const attach = (
  actor: Actor,
  id: string,
  { file, kind, words }: AttachInput,
): Promise<Result<ColleaguesView>> =>
  aboutQuote(actor, id, async (quote) => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const { quoteFiles } = connected().records;
    if ((await quoteFiles.count({ where: { quoteId: quote.id } })) >= mostFiles)
      return fail('invalid', { code: 'colleague.tooManyFiles', params: { most: mostFiles } });
    const used = await use(actor, file, 'quote', quote.id);
    if (!used.ok) return used;
    await quoteFiles.upsert({
      quoteId: quote.id,
      fileId: file,
      kind,
      words,
      madeBy: actor.id,
      madeAt: new Date(),
    });
    await record(actor, 'quote.attached', quote.number, { name: used.value.name, kind });
    return done(null);
  });

/** Takes an attachment away; what was sent along with a mail stays on the shelf. */
export const detach = (actor: Actor, id: string, file: string): Promise<Result<ColleaguesView>> =>
  aboutQuote(actor, id, async (quote) => {
    if (!may(actor, 'quotes')) return refusal(actor, 'quotes') ?? done(null);
    const { quoteFiles, files } = connected().records;
    const where = { quoteId: quote.id, fileId: file };
    const gone = isReference(file) ? await quoteFiles.destroy({ where }) : 0;
    if (gone === 0) return fail('missing', { code: 'files.missing' });
    const named = await files.findByPk(file, { attributes: ['name'], raw: true });
    await files.update({ about: null, aboutId: null }, { where: { id: file } });
    await record(actor, 'quote.detached', quote.number, { name: named?.name ?? '' });
    return done(null);
  });
