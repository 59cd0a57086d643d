/** The rows of a brought file into a price change, as a job: all or none, those that cannot be read to be mended. */
import { QueryTypes } from 'sequelize';
import type { AskedJob, ChangeSheetInput } from '../../contract';
import { sheetReader, type SheetRow } from '../../core/prices';
import { connected, type PriceChangeEntryRow } from '../../data';
import type { Actor } from '../access/actor';
import { done, fail, type Result } from '../kernel/failure';
import { JobRefused, type JobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { inTransaction, record } from '../kernel/unit-of-work';
import { readLongRows } from '../paper/line-table';
import { reference } from '../settings/reference-data';
import { rowOf } from './changes';
import { countChange, findChange, holdDraft, writeRows } from './kept';
import { listIn } from './prices';
import { sheetMeans } from './sheet-means';
import { remembered } from './steps';

interface Input {
  change: string;
  version: number;
  file: string;
  list: string;
  language: string;
}

interface Made {
  rows: PriceChangeEntryRow[];
  wrong: number;
  unknown: string[];
}

/** So many rows between looks at whether it is to stop. */
const atOnce = 1000;

/** Reads a file and puts its rows into a change. */
export const priceSheetJob: JobKind<Input, Made> = {
  kind: 'prices.sheet',
  tries: 3,
  async work({ change: id, version, file, list, language }, job) {
    const change = await findChange(id);
    if (!change || change.version !== version) throw new JobRefused({ code: 'change.stale' });
    const bytes = await bytesOf(file, job.askedBy);
    const read = await readLongRows(bytes);
    if (!read.ok) throw new JobRefused(read.failures[0] ?? { code: 'file.unreadable' });
    const [head = [], ...body] = read.value.rows;
    await job.progress({ done: 0, of: body.length });
    const means = await sheetMeans(language, await reference(), list, change.inForce);
    const reader = sheetReader(head, means);
    if (!reader) throw new JobRefused({ code: 'sheet.noNumbers' });
    const made: Made = { rows: [], wrong: 0, unknown: reader.unknown };
    for (const [at, line] of body.entries()) {
      if (at % atOnce === atOnce - 1) {
        await job.progress({ done: at, of: body.length });
        await new Promise((resolve) => setImmediate(resolve));
      }
      const row = reader.read(line, at + 2);
      if (!row) continue;
      if (row.is === 'wrong') made.wrong += 1;
      made.rows.push(keptRow(id, row));
    }
    if (made.rows.length === 0) throw new JobRefused({ code: 'sheet.empty' });
    return made;
  },
  async finish({ rows, wrong, unknown }, { change, version }, { askedBy }) {
    const held = await holdDraft(change, version);
    if (!held.ok) throw new JobRefused(held.failures[0] ?? { code: 'change.stale' });
    // Rows of an earlier file that nobody mended are not those of this one.
    const wrongOnes = await connected().sequelize.query<{ place: string }>(
      'select place from price_change_rows where change_id = $1 and wrong is not null',
      { bind: [change], type: QueryTypes.SELECT },
    );
    const over = wrongOnes.map(({ place }) => place);
    await remembered(askedBy, change, 'sheet', [...over, ...rows.map(({ place }) => place)], async () => {
      await connected().records.priceChangeRows.destroy({ where: { changeId: change, place: over } });
      await writeRows(rows);
    });
    await countChange(change);
    const by = askedBy === null ? null : ({ id: askedBy } as Actor);
    await record(by, 'prices.sheet', held.value.name, { id: change, rows: rows.length, wrong });
    return { rows: rows.length, wrong, unknown: unknown.slice(0, 10).join(', ') };
  },
};

/** A row as it is kept; one that cannot be read is named by its place in the file. */
function keptRow(change: string, row: SheetRow): PriceChangeEntryRow {
  if (row.is === 'entry') return rowOf(change, row.place, row.entry, null);
  const { at, place, typed, wrong } = row;
  return {
    ...rowOf(change, place, null, null),
    place: `row ${String(at)}`,
    wrong: { typed, wrong },
  };
}

async function bytesOf(id: string, owner: string | null): Promise<Buffer> {
  const { files, fileContents } = connected().records;
  const file = await files.findOne({ where: { id, owner: owner ?? '' }, raw: true });
  const content = file && (await fileContents.findByPk(file.hash, { raw: true }));
  if (!content) throw new JobRefused({ code: 'files.missing' });
  return content.bytes;
}

/** Begins it. */
export const takeSheet = (
  actor: Actor,
  change: string,
  { version, file, list }: ChangeSheetInput,
): Promise<Result<AskedJob>> =>
  inTransaction(async () => {
    const held = await holdDraft(change, version);
    if (!held.ok) return held;
    if (!listIn(await reference(), list)) return fail('invalid', { code: 'list.missing', field: 'list' });
    const own = await connected().records.files.count({ where: { id: file, owner: actor.id } });
    if (own === 0) return fail('missing', { code: 'files.missing' });
    const { id } = await askForJob(
      priceSheetJob,
      { change, version, file, list, language: actor.language },
      { by: actor.id, subject: held.value.name, once: `sheet ${change}` },
    );
    return done({ job: id });
  });
