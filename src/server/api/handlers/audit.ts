import type { audit } from '../../../contract/all';
import { auditFile, listAudit } from '../../../services/audit/audit';
import { done } from '../../../services/kernel/failure';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const auditHandlers: Handlers<typeof audit> = {
  'GET /audit': async ({ query }) => done(await listAudit(query)),
  'GET /audit.csv': async ({ actor, query }) => done(await auditFile(actor, query)),
};
