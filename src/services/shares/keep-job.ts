/** The work of making the quotation that a share shows, so that a yes is to just those bytes. */
import { connected } from '../../data';
import { actorOf } from '../access/sessions';
import { JobRefused, type JobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { quotationOf } from '../outbox/documents';

/** A job of this kind is about a revision. */
export const keepJob: JobKind<{ revision: string }, string> = {
  kind: 'paper.keep',
  tries: 8,
  async work({ revision: id }) {
    const { revisions, quotes, users } = connected().records;
    const revision = await revisions.findByPk(id, { raw: true });
    const quote = revision && (await quotes.findByPk(revision.quoteId, { raw: true }));
    const owner = quote && (await users.findByPk(quote.ownerId, { raw: true }));
    if (!quote || !owner) throw new JobRefused({ code: 'quote.missing' });
    const made = await quotationOf(
      actorOf(owner),
      { quoteId: quote.id, revisionId: id, buildId: null, customerId: quote.customerId },
      'pdf',
    );
    if (!made.ok) throw new JobRefused(made.failures[0] ?? { code: 'mail.unmade' });
    return made.value.name;
  },
  finish: (name) => Promise.resolve({ name }),
};

/** Asks for the quotation of a revision to be made and kept, once however many ask. */
export const keepQuotation = (revision: string): Promise<unknown> =>
  askForJob(keepJob, { revision }, { once: `keep ${revision}` });
