/** Who did what to what, to be looked through and taken away. */
import { object, string } from 'yup';
import { endpoint, file, json } from './endpoint';
import { optionalDay, optionalId, page, type Page, type Sent } from './schema';

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
export const auditFileInput = object(wanted);
/** What passes `auditFileInput`. */
export type AuditFileQuery = Sent<typeof auditFileInput>;

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
  'GET /audit.csv': endpoint({
    says: 'The same as a file, the newest first, of 50,000 entries at most.',
    who: 'administer',
    query: auditFileInput,
    answers: file,
  }),
};
