/** Entries written into a file, as a job: some at a time, so that nobody waits for it. */
import { QueryTypes } from 'sequelize';
import Papa from 'papaparse';
import type { AuditFileInput } from '../../contract';
import { connected } from '../../data';
import { translator } from '../../i18n';
import { detailsText } from '../../i18n/audit';
import type { Actor } from '../access/actor';
import { keepMade } from '../files/files';
import { today } from '../kernel/clock';
import type { JobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { record } from '../kernel/unit-of-work';
import { conditionFor, countOf, type Found } from './audit';

/** What is wanted, and in which language its columns are called. */
interface Input {
  wanted: AuditFileInput;
  language: string;
}

/** A file has so many entries at most. */
const most = 200_000;
/** So many at a time. */
const atOnce = 1000;

/** Writes entries into a file for spreadsheets; what one would take for a formula is text in it. */
export const auditFile: JobKind<Input, { text: string; rows: number }> = {
  kind: 'audit.file',
  tries: 3,
  async work({ wanted, language }, job) {
    const t = translator(language);
    const of = Math.min(most, await countOf(wanted));
    const head = [t('audit.at'), t('audit.by'), t('audit.action'), t('audit.subject'), t('audit.details')];
    const texts = [Papa.unparse([head], { escapeFormulae: true })];
    let [rows, before]: [number, string | null] = [0, null];
    while (rows < of) {
      await job.progress({ done: rows, of });
      const some = await earlier(wanted, before);
      if (some.length === 0) break;
      texts.push(
        Papa.unparse(
          some.map(({ at, by, action, subject, details }) => [
            at.toISOString(),
            by ?? t('job.house'),
            action,
            subject,
            detailsText(details),
          ]),
          { escapeFormulae: true },
        ),
      );
      rows += some.length;
      before = some.at(-1)?.id ?? null;
    }
    return { text: `\ufeff${texts.join('\r\n')}\r\n`, rows };
  },
  async finish({ text, rows }, _, { askedBy }) {
    const name = `audit-${today()}.csv`;
    const file = await keepMade(askedBy ?? '', { name, kind: 'csv', bytes: Buffer.from(text) });
    return { rows, file, name };
  },
};

/** The next entries before one, the newest first. */
function earlier(wanted: AuditFileInput, before: string | null): Promise<Found[]> {
  const { where, bind } = conditionFor(wanted);
  const from =
    before === null ? '' : `${where === '' ? 'where' : 'and'} a.id < $${String(bind.push(before))}`;
  return connected().sequelize.query<Found>(
    `select a.id, a.at, u.name as by, a.action, a.subject, a.details
     from audit_entries a left join users u on u.id = a.user_id ${where} ${from}
     order by a.id desc limit ${String(atOnce)}`,
    { bind, type: QueryTypes.SELECT },
  );
}

/** Asks for a file; the same that is being written already is not written twice. Gives the id of the job. */
export const askForAuditFile = (actor: Actor, wanted: AuditFileInput): Promise<string> =>
  connected().transaction(async () => {
    const { id, fresh } = await askForJob(
      auditFile,
      { wanted, language: actor.language },
      { by: actor.id, once: `audit ${actor.id} ${JSON.stringify(wanted)}` },
    );
    if (fresh) await record(actor, 'audit.file', 'audit', wanted);
    return id;
  });
