/** The work of sending a mail: its documents and message are made and kept, then it is handed over, once. */
import { connected, type MailRow, type ShelfRow } from '../../data';
import { actorOf } from '../access/sessions';
import type { Actor } from '../access/actor';
import type { Failure } from '../kernel/failure';
import { JobRefused, type JobKind } from '../kernel/jobs/kind';
import { contentOf, hashOf } from '../shelf/shelf';
import { documentFor } from './documents';
import { writeMessage } from './message';
import type { MailServer } from './port';
import { mailServer } from './server';
import { keepMessage, mailOf, stepMail } from './way';

/** A mail takes so many bytes along at most; more is refused by most servers. */
const mostBytes = 25 * 1024 * 1024;
/** Tries at most: with pauses of an hour at most, more than a week. */
const mostTries = 200;

/** What a job of this kind is about. */
export interface MailInput {
  mail: string;
}

/** Sends a mail. What is handed over outlives the job, so that each step is written down as it is made. */
export const mailJob: JobKind<MailInput> = {
  kind: 'mail.send',
  // More than a mail has, so that it is the mail that gives up, and says so.
  tries: mostTries + 50,
  async work({ mail: id }, job) {
    const mail = await mailOf(id);
    if (!mail) return;
    if (mail.state === 'making') await makeWhole(mail);
    await handOver(id, mailServer(), () => job.signal.throwIfAborted());
  },
  async finish(_made, { mail: id }) {
    return { subject: (await mailOf(id))?.subject ?? '' };
  },
};

/** Makes the documents and the message, and keeps both at once. */
async function makeWhole(mail: MailRow): Promise<void> {
  const owner = await connected().records.users.findByPk(mail.madeBy);
  if (!owner) throw new Error(`mail ${mail.id} is of nobody`);
  // Documents of a mail are in the language of whoever reads it.
  const actor: Actor = { ...actorOf(owner), language: mail.language as Actor['language'] };
  const documents: ShelfRow[] = [];
  for (const wanted of mail.wanted) {
    const made = await documentFor(actor, mail, wanted);
    if (!made.ok) return unmade(mail.id, made.failures[0] ?? { code: 'mail.unmade' });
    documents.push(made.value);
  }
  const enclosed = await Promise.all(
    documents.map(async ({ name, type, hash }) => ({ name, type, bytes: await contentOf(hash) })),
  );
  if (enclosed.reduce((sum, { bytes }) => sum + bytes.length, 0) > mostBytes)
    return unmade(mail.id, { code: 'mail.tooLarge', params: { most: mostBytes / 1024 / 1024 } });
  const raw = await writeMessage(mail, enclosed);
  await connected().transaction(async () => {
    if (!(await keepMessage(mail.id, raw, hashOf(raw)))) return;
    await connected().records.mailDocuments.bulkCreate(
      documents.map(({ id }, position) => ({ mailId: mail.id, position, shelfId: id })),
    );
  });
}

async function unmade(id: string, { code, params }: Failure): Promise<never> {
  const problem = { code, ...(params ? { params } : {}) };
  await stepMail(id, 'unmade', { problem });
  throw new JobRefused(problem);
}

/** Thrown so that the job comes again after a pause. */
class Later extends Error {}

/**
 * Hands a mail over, unless it was. Before the server is told anything it stands written that it will be; whoever finds
 * that of an earlier try asks the server, or, where it cannot be asked, leaves it to a person.
 */
export async function handOver(id: string, server: MailServer, stillMine: () => void): Promise<void> {
  const mail = await mailOf(id);
  if (!mail?.raw) return;
  const { messageId, sender, recipients, raw } = mail;
  if (mail.state === 'handing' && (await afterFall(mail, server)) !== 'free') return;
  stillMine();
  const attempt = await stepMail(id, 'begun');
  // Sent, refused or unsure by now, or somebody else has it.
  if (attempt === null) return;
  const handed = await server.hand({
    messageId,
    from: sender.address,
    to: recipients.map(({ address }) => address),
    raw,
  });
  if (handed.is === 'taken') {
    await stepMail(id, 'taken', { server: server.name, refused: handed.refused });
    return;
  }
  const problem = { code: `mail.${handed.is}`, params: { words: handed.words } };
  if (handed.is === 'later' && attempt < mostTries) {
    await stepMail(id, 'later', { attempt, problem });
    throw new Later(handed.words);
  }
  await stepMail(id, handed.is === 'lost' ? 'lost' : 'refused', { attempt, problem });
}

/** What became of a try that was cut off: free to go again only where the server says that it has nothing. */
async function afterFall(mail: MailRow, server: MailServer): Promise<'free' | 'over'> {
  const attempt = mail.tries;
  const there = await server.has(mail.messageId);
  if (there === true) await stepMail(mail.id, 'taken', { server: server.name });
  else if (there === null) await stepMail(mail.id, 'lost', { attempt, problem: { code: 'mail.cutOff' } });
  else if ((await stepMail(mail.id, 'later', { attempt })) !== null) return 'free';
  return 'over';
}
