/** Sending a mail: what it begins with, and the moment at which it is asked for. */
import type { BuildMailInput, MailView, QuoteMailInput, SendView } from '../../contract';
import { withLink } from '../../core/sending';
import { connected, type WantedDocument } from '../../data';
import { translator } from '../../i18n';
import { refusal, type Actor } from '../access/actor';
import { inDays, today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { inTransaction, record } from '../kernel/unit-of-work';
import { obstacles, sendQuote } from '../quotes/history/revisions';
import { partsIn, priceAll } from '../quotes/figures/quote-pricing';
import { stale } from '../quotes/quotes';
import { holdQuote, stateOf } from '../quotes/quote-state';
import { makeShare } from '../shares/shares';
import { aboutBuild, aboutQuote, type Subject } from './about';
import { keepAsked } from './keep';
import { seeMail } from './mails';
import { offeredDocuments } from './offered';
import { senderOf } from './sender';
import { usualTexts } from './texts';

/** A link opens for so many days, unless somebody says otherwise. */
const shareDays = 60;

/** What a mail about a quote begins with. */
export async function seeQuoteSending(actor: Actor, id: string): Promise<Result<SendView>> {
  const found = await aboutQuote(actor, id);
  if (!found.ok) return found;
  const subject = found.value;
  const { quote, revision } = subject;
  const state = await stateOf(quote);
  const draft = revision.state === 'draft';
  const wrong = state && draft ? await obstacles(state, await priceAll(await partsIn(state))) : [];
  return done({
    ...(await viewOf(actor, subject)),
    quote: {
      id: quote.id,
      number: quote.number,
      title: quote.title,
      revision: revision.number,
      version: quote.version,
      draft,
    },
    obstacles: [
      ...wrong.map(({ code, params }) => ({ code, ...(params ? { params } : {}) })),
      ...(draft && revision.validUntil < today() ? [{ code: 'quote.validPast' }] : []),
    ],
    before: await connected().records.mails.count({ where: { quoteId: quote.id } }),
  });
}

/** What a mail about a build begins with. */
export async function seeBuildSending(actor: Actor, id: string): Promise<Result<SendView>> {
  const found = await aboutBuild(actor, id);
  if (!found.ok) return found;
  const { build, quote } = found.value;
  return done({
    ...(await viewOf(actor, { ...found.value, quote: null, revision: null }, quote?.id ?? null)),
    build: { id: build.id, partNumber: build.outcome.partNumber, quoteId: quote?.id ?? null },
    obstacles: [],
    before: await connected().records.mails.count({ where: { buildId: build.id } }),
  });
}

async function viewOf(
  actor: Actor,
  subject: Subject,
  of = subject.quote?.id ?? null,
): Promise<Omit<SendView, 'obstacles' | 'before'>> {
  const sender = await senderOf(actor, of);
  return {
    customer: subject.customer,
    language: subject.language,
    sender,
    contacts: subject.contacts,
    texts: await usualTexts(actor, subject),
    documents: await offeredDocuments(actor, subject),
    press: translator(subject.language)('mail.press'),
    until: inDays(shareDays),
  };
}

/** Sends a quote by mail: a draft is frozen by it, in the same moment, or nothing happens at all. */
export async function mailQuote(
  actor: Actor,
  id: string,
  { version, ...mail }: QuoteMailInput,
  base: string,
): Promise<Result<MailView>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  return inTransaction(async () => {
    const held = await holdQuote(actor, id);
    if (!held) return fail('missing', { code: 'quote.missing' });
    const old = await stale(actor, held, version);
    if (old) return old;
    const before = await aboutQuote(actor, id);
    if (!before.ok) return before;
    if (before.value.revision.state === 'draft') {
      const sent = await sendQuote(actor, id, { version });
      if (!sent.ok) return sent;
    } else if (before.value.revision.state === 'lost') return fail('conflict', { code: 'mail.quoteLost' });
    return keepMail(actor, before.value, mail, base);
  });
}

/** Sends a mail about a build. */
export async function mailBuild(
  actor: Actor,
  id: string,
  mail: BuildMailInput,
  base: string,
): Promise<Result<MailView>> {
  const refused = refusal(actor, 'quotes');
  if (refused) return refused;
  return inTransaction(async () => {
    const found = await aboutBuild(actor, id);
    if (!found.ok) return found;
    const { quote } = found.value;
    return keepMail(actor, { ...found.value, quote: null, revision: null }, mail, base, quote);
  });
}

/** Keeps a mail and asks for the work of sending it, in the transaction of whoever calls. */
async function keepMail(
  actor: Actor,
  subject: Subject,
  { recipients, subject: title, words, documents, share }: BuildMailInput,
  base: string,
  of = subject.quote,
): Promise<Result<MailView>> {
  const wanted = documents as WantedDocument[];
  const offered = await offeredDocuments(actor, subject);
  const known = new Set(offered.map((each) => JSON.stringify(each.wanted)));
  if (wanted.some((each) => !known.has(JSON.stringify(each))))
    return fail('invalid', { code: 'mail.badDocument', field: 'documents' });
  const first = recipients.find(({ as }) => as === 'to') ?? recipients[0];
  const made =
    share && first
      ? await makeShare(actor, subject, { name: first.name, address: first.address, until: share.until })
      : null;
  if (made && !made.ok) return made;
  const link = made?.ok ? `${base}${made.value.path}` : null;
  const { quote, revision, build, customerId } = subject;
  const id = await keepAsked({
    quoteId: quote?.id ?? null,
    revisionId: revision?.id ?? null,
    buildId: build?.id ?? null,
    customerId,
    shareId: made?.ok ? made.value.row.id : null,
    sender: await senderOf(actor, of?.id ?? null),
    recipients: recipients.map(({ as, name, address }) => ({ as, name, address })),
    subject: title,
    words: withLink(words, link),
    link,
    language: subject.language,
    wanted,
    madeBy: actor.id,
  });
  await record(actor, 'mail.asked', quote?.number ?? build?.outcome.partNumber ?? '', {
    to: recipients.map(({ address }) => address).join(', '),
    subject: title,
    documents: wanted.length,
  });
  return seeMail(actor, id);
}
