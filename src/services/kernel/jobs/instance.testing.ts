/**
 * For tests: an instance of the server that does nothing but jobs, to be killed. It works on one as long as
 * the database says that it should.
 */
import { QueryTypes } from 'sequelize';
import { connected } from '../../../data';
import type { JobKind } from './kind';
import { JobWorker } from './worker';

/** Works while the table `tried` says so; what comes of it is a row of `effects`. */
const slow: JobKind<{ name: string }, string> = {
  kind: 'slow',
  tries: 5,
  async work({ name }, job) {
    const { sequelize } = connected();
    for (let round = 1; ; round += 1) {
      await job.progress({ done: round, of: 1_000_000 });
      const [may] = await sequelize.query<{ ends: boolean }>('select ends from tried', {
        type: QueryTypes.SELECT,
      });
      if (may?.ends) return name;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  },
  async finish(name) {
    await connected().sequelize.query('insert into effects (name) values ($1)', { bind: [name] });
    return name;
  },
};

new JobWorker([slow as never], { lease: 1, heartbeat: 0.2, idle: 0.1 }).start();
// Nothing else keeps the process there.
setInterval(() => undefined, 1000);
