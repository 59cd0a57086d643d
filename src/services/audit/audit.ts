/** Who did what to what, for whoever runs the house. */
import { QueryTypes } from 'sequelize';
import {
  auditListInput,
  type AuditFileInput,
  type AuditListQuery,
  type AuditPage,
  type AuditView,
} from '../../contract';
import { connected } from '../../data';
import { houseZone } from '../kernel/clock';

const pageSize = 50;

/** An entry as it is read. */
export interface Found {
  id: string;
  at: Date;
  by: string | null;
  action: string;
  subject: string;
  details: Record<string, unknown>;
}

/** A page of entries, the newest first. */
export async function listAudit(asked: Partial<AuditListQuery> = {}): Promise<AuditPage> {
  const { page, ...wanted } = auditListInput.cast(asked);
  const { where, bind } = conditionFor(wanted);
  const rows = await connected().sequelize.query<Found>(
    `select a.id, a.at, u.name as by, a.action, a.subject, a.details
     from audit_entries a left join users u on u.id = a.user_id ${where}
     order by a.id desc limit ${String(pageSize)} offset ${String(page * pageSize)}`,
    { bind, type: QueryTypes.SELECT },
  );
  return { rows: rows.map(viewOf), page, size: pageSize, count: await countOf(wanted) };
}

/** How many there are. */
export async function countOf(wanted: AuditFileInput): Promise<number> {
  const { where, bind } = conditionFor(wanted);
  const [row] = await connected().sequelize.query<{ count: string }>(
    `select count(*) as count from audit_entries a ${where}`,
    { bind, type: QueryTypes.SELECT },
  );
  return Number(row?.count ?? 0);
}

/** People whose entries can be asked for. */
export async function people(): Promise<{ id: string; name: string }[]> {
  const rows = await connected().records.users.findAll({ order: [['name', 'ASC']] });
  return rows.map(({ id, name }) => ({ id, name }));
}

/** Which entries are wanted, as a condition, and what is bound to it; `a` are the entries. */
export function conditionFor({ person, subject, from, to }: AuditFileInput): {
  where: string;
  bind: unknown[];
} {
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
  return { where: conditions.length > 0 ? `where ${conditions.join(' and ')}` : '', bind };
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
