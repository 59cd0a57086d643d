/** A mail as it is asked for: kept, with the work of sending it, in the transaction of whoever calls. */
import { randomUUID } from 'node:crypto';
import { connected, type MailRow } from '../../data';
import { askForJob } from '../kernel/jobs/queue';
import { mailJob } from './job';

/** What is known of a mail when it is asked for. */
export type AskedMail = Pick<
  MailRow,
  | 'quoteId'
  | 'revisionId'
  | 'buildId'
  | 'customerId'
  | 'shareId'
  | 'sender'
  | 'recipients'
  | 'subject'
  | 'words'
  | 'link'
  | 'language'
  | 'wanted'
  | 'madeBy'
>;

/** Keeps it and asks for the work; gives its id. */
export async function keepAsked(asked: AskedMail): Promise<string> {
  const id = randomUUID();
  await connected().records.mails.create({
    ...asked,
    id,
    messageId: `${id}@${asked.sender.address.split('@').at(-1) ?? 'localhost'}`,
    state: 'making',
    raw: null,
    hash: null,
    server: null,
    refused: [],
    returned: [],
    problem: null,
    tries: 0,
    handedAt: null,
    sentAt: null,
    madeAt: new Date(),
  });
  await askForJob(mailJob, { mail: id }, { by: asked.madeBy, once: `mail ${id}` });
  return id;
}
