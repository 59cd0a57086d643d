/** Who did what to what, to be looked through and taken away. */
import { object, string } from 'yup';
import { endpoint, json } from './endpoint';
import type { JobView } from './jobs';
import { exactly, optionalDay, optionalId, page, type Page, type Sent } from './schema';

const wanted = {
  /** Whose entries. */
  person: optionalId,
  /** How the number or name of what it was done to begins. */
  subject: string().trim().max(200, 'input.tooLong').default(''),
  /** First and last day, by the time of the house. */
  from: optionalDay,
  to: optionalDay,
};
/** Which entries are asked for. */
export const auditListInput = object({ ...wanted, page });
/** What passes `auditListInput`. */
export type AuditListQuery = Sent<typeof auditListInput>;
/** Which entries are taken away as a file. */
export const auditFileInput = exactly(wanted);
/** What passes `auditFileInput`. */
export type AuditFileInput = Sent<typeof auditFileInput>;

/** That somebody did something; `by` is null where the house did it itself. */
export interface AuditView {
  id: string;
  /** A moment in ISO form. */
  at: string;
  by: string | null;
  action: string;
  subject: string;
  /** What it was about, by names; of what changed, `from` and `to`. */
  details: Record<string, unknown>;
}
/** A page of entries. */
export type AuditPage = Page<AuditView>;

/** Endpoints of who did what. */
export const audit = {
  'GET /audit': endpoint({
    says: 'A page of who did what to what, the newest first, by person, subject and days.',
    who: 'administer',
    query: auditListInput,
    answers: json<AuditPage>('AuditPage'),
  }),
  'POST /audit/file': endpoint({
    says: 'Writes the same into a file, the newest first, of 200,000 entries at most: a job, whose outcome names the file.',
    who: 'administer',
    input: auditFileInput,
    answers: json<JobView>('JobView'),
  }),
};
