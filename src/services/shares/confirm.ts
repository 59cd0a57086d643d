/** What a customer is told by mail of what they said, and of what the house answers. */
import { connected, type AnswerOutcome, type ShareAnswerRow } from '../../data';
import { dateTime, translator } from '../../i18n';
import { keepAsked } from '../outbox/keep';
import { senderOf } from '../outbox/sender';
import type { Opened } from './opened';

/** A yes is confirmed to both: to the customer, and to whoever it belongs to. */
export async function confirm(
  opened: Opened,
  { answer, name, at, document }: ShareAnswerRow,
  outcome: AnswerOutcome | null,
): Promise<void> {
  if (answer !== 'accepted') return;
  const { share, owner, quote } = opened;
  const t = translator(share.language);
  const order =
    outcome && 'order' in outcome
      ? await connected().records.orders.findByPk(outcome.order, { attributes: ['number'], raw: true })
      : null;
  const told = {
    number: quote?.number ?? '',
    name,
    at: dateTime(at.toISOString(), share.language),
    hash: document ?? '',
    by: owner.name,
    order: order?.number ?? '',
  };
  await send(
    opened,
    t('mail.confirm.subject', told),
    t(order ? 'mail.confirm.ordered' : 'mail.confirm.waits', told),
  );
}

/** What the house says to an answer. */
export const tellReply = async (opened: Opened, asked: ShareAnswerRow, reply: string): Promise<void> => {
  const t = translator(opened.share.language);
  const told = {
    reference: opened.quote?.number ?? opened.build?.outcome.partNumber ?? '',
    name: asked.name,
    asked: asked.words,
    reply,
    by: opened.owner.name,
  };
  await send(opened, t('mail.reply.subject', told), t('mail.reply.words', told));
};

async function send(
  { share, owner, quote, revision, build }: Opened,
  subject: string,
  words: string,
): Promise<void> {
  const house = { as: 'cc' as const, name: owner.name, address: owner.email };
  const customer = { as: 'to' as const, name: share.forName, address: share.forAddress };
  await keepAsked({
    quoteId: quote?.id ?? null,
    revisionId: revision?.id ?? null,
    buildId: build?.id ?? null,
    customerId: quote?.customerId ?? null,
    shareId: null,
    sender: await senderOf(owner, quote?.id ?? null),
    // Whoever has no address is told behind the share alone.
    recipients:
      share.forAddress === '' || share.forAddress.toLowerCase() === owner.email.toLowerCase()
        ? [{ ...house, as: 'to' }]
        : [customer, house],
    subject,
    words,
    link: null,
    language: share.language,
    wanted: [],
    madeBy: owner.id,
  });
}
