/** Rows and tables of who did what. */
import { DataTypes } from 'sequelize';
import { text, jsonb, ref, now, type Define } from './columns';

/** Who did what to what; never changed. */
export interface AuditRow {
  id?: number;
  at?: Date;
  userId: string | null;
  action: string;
  subject: string;
  details: Record<string, unknown>;
}

/** Its tables. */
export const auditRecords = (table: Define) => ({
  audit: table<AuditRow>('audit_entries', {
    id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
    at: now(),
    userId: ref,
    action: text,
    subject: text,
    details: jsonb,
  }),
});
