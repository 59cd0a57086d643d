/** Who did what to what, for whoever runs the house. */
import { QueryTypes } from 'sequelize';
import Papa from 'papaparse';
import {
  auditListInput,
  type AuditFileQuery,
  type AuditListQuery,
  type AuditPage,
  type AuditView,
  type FileAnswer,
} from '../../contract';
import { connected } from '../../data';
import { translator } from '../../i18n';
import { detailsText } from '../../i18n/audit';
import type { Actor } from '../access/actor';
import { houseZone, today } from '../kernel/clock';

const pageSize = 50;
/** A file has so many entries at most. */
const mostInFile = 50_000;

interface Found {
  id: string;
  at: Date;
  by: string | null;
  action: string;
  subject: string;
  details: Record<string, unknown>;
  count: string;
}

/** A page of entries, the newest first. */
export async function listAudit(asked: Partial<AuditListQuery> = {}): Promise<AuditPage> {
  const { page, ...wanted } = auditListInput.cast(asked);
  const rows = await find(wanted, pageSize, page * pageSize);
  return { rows: rows.map(viewOf), page, size: pageSize, count: Number(rows[0]?.count ?? 0) };
}

/** The same as a file; what a spreadsheet would take for a formula is text in it. */
export async function auditFile(actor: Actor, wanted: AuditFileQuery): Promise<FileAnswer> {
  const t = translator(actor.language);
  const rows = await find(wanted, mostInFile, 0);
  const text = Papa.unparse(
    [
      [t('audit.at'), t('audit.by'), t('audit.action'), t('audit.subject'), t('audit.details')],
      ...rows.map(({ at, by, action, subject, details }) => [
        at.toISOString(),
        by ?? t('job.house'),
        action,
        subject,
        detailsText(details),
      ]),
    ],
    { escapeFormulae: true },
  );
  return { name: `audit-${today()}.csv`, type: 'text/csv; charset=utf-8', bytes: `\ufeff${text}\r\n` };
}

/** People whose entries can be asked for. */
export async function people(): Promise<{ id: string; name: string }[]> {
  const rows = await connected().records.users.findAll({ order: [['name', 'ASC']] });
  return rows.map(({ id, name }) => ({ id, name }));
}

function find({ person, subject, from, to }: AuditFileQuery, most: number, after: number): Promise<Found[]> {
  const bind: unknown[] = [];
  const bound = (value: unknown): string => `$${String(bind.push(value))}`;
  /** The moment at which a day begins in the house. */
  const dawn = (day: string): string => `(${bound(day)}::date)::timestamp at time zone ${bound(houseZone())}`;
  const conditions = [
    ...(person ? [`a.user_id = ${bound(person)}`] : []),
    ...(subject ? [`lower(a.subject) like ${bound(`${likeText(subject.toLowerCase())}%`)}`] : []),
    ...(from ? [`a.at >= ${dawn(from)}`] : []),
    ...(to ? [`a.at < (${bound(to)}::date + 1)::timestamp at time zone ${bound(houseZone())}`] : []),
  ];
  return connected().sequelize.query<Found>(
    `select a.id, a.at, u.name as by, a.action, a.subject, a.details, count(*) over () as count
     from audit_entries a left join users u on u.id = a.user_id
     ${conditions.length > 0 ? `where ${conditions.join(' and ')}` : ''}
     order by a.id desc limit ${String(most)} offset ${String(after)}`,
    { bind, type: QueryTypes.SELECT },
  );
}

/** Text as `like` takes it for itself. */
const likeText = (text: string): string => text.replace(/[\\%_]/g, '\\$&');

const viewOf = ({ id, at, by, action, subject, details }: Found): AuditView => ({
  id,
  at: at.toISOString(),
  by,
  action,
  subject,
  details,
});
