/** Work that the house does by itself, now and then. */
import { connected } from '../../data';
import { dropOld } from '../access/sessions';
import { dropLoose } from '../files/files';
import { dropOldTries } from '../access/sign-in-limits';
import type { JobKind } from '../kernel/jobs/kind';
import { dropJobs } from '../kernel/jobs/queue';
import { log } from '../kernel/log';
import { refreshFacts, wrongFacts, type WrongFacts } from '../quotes/figures/quote-facts';

const day = 24 * 60 * 60 * 1000;
/** Jobs that ended can be looked up for so long. */
const jobsKept = 30 * day;

/** Takes away what is over: sessions, tries to sign in, keys of requests, jobs, files that nobody used. */
export const tidy: JobKind<null, null> = {
  kind: 'house.tidy',
  tries: 3,
  work: () => Promise.resolve(null),
  async finish() {
    await dropOld();
    await dropOldTries();
    await connected().sequelize.query("delete from answers where at < now() - interval '1 day'");
    const now = new Date();
    // What was worked out stays as long as its job, or the price change that it was worked out for.
    await connected().sequelize.query(
      `delete from what_ifs w where not exists (select 1 from jobs j where j.id = w.job)
         and not exists (select 1 from price_changes c where c.impact_job = w.job)`,
    );
    const loose = await dropLoose(now);
    return { jobs: await dropJobs(new Date(now.getTime() - jobsKept)), files: loose };
  },
};

/**
 * Checks what lists show of quotes against pricing, and puts right what differs. There should be nothing: what
 * is found is told in the log too.
 */
export const facts: JobKind<null, WrongFacts[]> = {
  kind: 'house.facts',
  tries: 3,
  work: (_input, job) => wrongFacts((done, of, at) => job.progress({ done, of, at })),
  async finish(wrong) {
    for (const { number, revision, kept, now } of wrong)
      log.error({ number, revision, kept, now }, 'facts of a quote differed from its prices');
    await refreshFacts(wrong);
    return { wrong: wrong.length, quotes: [...new Set(wrong.map(({ number }) => number))].join(', ') };
  },
};
