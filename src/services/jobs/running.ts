/** The jobs of this server: which kinds it does, and when the house begins some by itself. */
import { auditFile } from '../audit/audit-file';
import type { AnyJobKind } from '../kernel/jobs/kind';
import { keepSchedules, type Schedule } from '../kernel/jobs/schedule';
import { JobWorker } from '../kernel/jobs/worker';
import { beforeLeaving } from '../kernel/leaving';
import { log } from '../kernel/log';
import { housePart } from '../settings/house';
import { checkJob } from '../workshop/check';
import { itemsJob } from '../items/items';
import { priceImpactJob } from '../prices/impact';
import { priceSheetJob } from '../prices/sheet-job';
import { termsImpactJob } from '../terms/try';
import { impactJob } from '../workshop/impact';
import { mailJob } from '../outbox/job';
import { keepJob } from '../shares/keep-job';
import { packageJob } from '../schedules/package';
import { facts, tidy } from './house';

/** All kinds there are: a new one is told of here, and nowhere else. */
export const kinds = [
  tidy,
  facts,
  auditFile,
  impactJob,
  checkJob,
  priceImpactJob,
  priceSheetJob,
  termsImpactJob,
  itemsJob,
  packageJob,
] as const;

/** Those that a customer waits for: done beside the others, which may take minutes each. */
export const promptKinds = [mailJob, keepJob] as const;

/** By the time of the house. */
const schedulesIn = (zone: string): Schedule[] =>
  [
    { name: 'tidy', kind: tidy, pattern: '*/30 * * * *', zone },
    { name: 'facts', kind: facts, pattern: '40 2 * * *', zone },
  ].map((each) => ({ ...each, kind: each.kind as unknown as AnyJobKind }));

let workers: JobWorker[] = [];

/** Begins with them, once; nothing waits for it. */
export function startJobs(): void {
  if (workers.length > 0) return;
  workers = [kinds, promptKinds].map((each) => new JobWorker(each as unknown as AnyJobKind[]));
  for (const worker of workers) worker.start();
  beforeLeaving(() => Promise.all(workers.map((worker) => worker.close())));
  void housePart('calendar')
    .then(({ zone }) => keepSchedules(schedulesIn(zone)))
    .catch((bug: unknown) => log.warn({ bug }));
}
