import type { audit } from '../../../contract/all';
import { listAudit } from '../../../services/audit/audit';
import { askForAuditFile } from '../../../services/audit/audit-file';
import { seeJob } from '../../../services/jobs/jobs';
import { done } from '../../../services/kernel/failure';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const auditHandlers: Handlers<typeof audit> = {
  'GET /audit': async ({ query }) => done(await listAudit(query)),
  'POST /audit/file': async ({ actor, input }) => seeJob(actor, await askForAuditFile(actor, input)),
};
