/**
 * The specification package of a schedule, as a job: a sheet of each position, one after another, and then all
 * in one file.
 */
import type { AskedJob, PackageInput } from '../../contract';
import {
  composePackage,
  composePosition,
  composeSchedule,
  type Annex,
  type PaperDocument,
  type PaperPosition,
} from '../../core/paper';
import { fileTag } from '../../core/schedule';
import { connected, type ScheduleRow } from '../../data';
import { translator } from '../../i18n';
import { paperWords } from '../../i18n/paper-words';
import { refusal, type Actor } from '../access/actor';
import { actorOf } from '../access/sessions';
import { fileName } from '../builds/drawings';
import { done, fail, type Result } from '../kernel/failure';
import { JobRefused, type JobKind } from '../kernel/jobs/kind';
import { askForJob } from '../kernel/jobs/queue';
import { tell } from '../kernel/live';
import { askLongPapers, askPapers } from '../kernel/papers';
import { inTransaction, record } from '../kernel/unit-of-work';
import { bytesOf, tooLarge } from '../paper/given-bytes';
import type { GivenFiles } from '../paper/files/given-files';
import { shelve } from '../shelf/shelf';
import { sheetOf } from './files';
import { findSchedule } from './find';
import { dataSheetsOf, headGiven, plainPosition, withSheets } from './given';
import { toldPositions, type Told } from './told';

interface Input extends PackageInput {
  schedule: string;
}

interface Made {
  name: string;
  type: string;
  bytes: Uint8Array;
  positions: number;
  sheets: number;
  stand: string;
  customerId: string | null;
}

/** So many sheets in one package at most: more is a library, and a schedule of its own for each part of a site. */
const mostSheets = 500;
/** Sheets between looks at whether it is to stop. */
const atOnce = 5;

/** Makes the package and puts it on the shelf. */
export const packageJob: JobKind<Input, Made> = {
  kind: 'schedule.package',
  tries: 3,
  async work({ schedule: id, as, language, drawings, dataSheets }, job) {
    const person = await connected().records.users.findByPk(job.askedBy ?? '', { raw: true });
    const actor = person && actorOf(person);
    const row = actor && (await findSchedule(actor, id));
    if (!actor || !row) throw new JobRefused({ code: 'schedule.missing' });
    const told = await toldPositions(id);
    const built = told.filter(({ build }) => build !== null);
    if (told.length === 0) throw new JobRefused({ code: 'schedule.empty' });
    if (built.length > mostSheets)
      throw new JobRefused({ code: 'schedule.tooManySheets', params: { most: mostSheets } });
    const of = told.length + 1;
    await job.progress({ done: 0, of });
    const sheets = dataSheets ? await dataSheetsOf(told) : [];
    const annexes = sheets.map(({ file, name }): Annex => ({ file, name, kind: 'pdf' }));
    const large = await tooLarge(annexes);
    if (large) throw new JobRefused(large);
    const { head, look, files } = await headGiven(row, language);
    const all: Whole = {
      row,
      told,
      sheets: oneAhead(parted(told), (some) => withSheets(actor, some, drawings)),
      head,
      look,
      marks: files,
      files: { ...files, ...(await bytesOf(sheets.map(({ file }) => file))) },
      annexes,
      language,
      far: (done) => job.progress({ done, of }),
    };
    const bytes = await (as === 'pdf' ? inOne(all) : zipped(all));
    await job.progress({ done: of, of });
    const what = translator(language)('paper.package');
    return {
      name: `${fileName(row.name) || 'site'}-${fileName(what).toLowerCase()}.${as}`,
      type: as === 'pdf' ? 'application/pdf' : 'application/zip',
      bytes,
      positions: told.length,
      sheets: built.length,
      stand: `schedule ${String(row.version)}`,
      customerId: row.customerId,
    };
  },
  async finish({ bytes, name, type, positions, sheets, stand, customerId }, { schedule }, { askedBy }) {
    const shelved = await shelve(
      { id: askedBy ?? '' } as Actor,
      {
        kind: 'package',
        quoteId: null,
        revisionId: null,
        buildId: null,
        customerId,
        scheduleId: schedule,
        stand,
      },
      { name, type, bytes },
    );
    if (askedBy !== null) await tell([askedBy], { kind: 'desk', quote: null });
    return { document: shelved.id, name, positions, sheets };
  },
};

interface Whole {
  row: ScheduleRow;
  told: readonly Told[];
  /** Positions with what stands on their sheets, some at once. */
  sheets: AsyncIterable<PaperPosition[]>;
  head: Awaited<ReturnType<typeof headGiven>>['head'];
  look: Awaited<ReturnType<typeof headGiven>>['look'];
  /** The mark of the house, and all data sheets. */
  files: GivenFiles;
  /** The mark alone, which is all that a sheet shows. */
  marks: GivenFiles;
  annexes: readonly Annex[];
  language: 'en' | 'de';
  /** Tells how many positions are done, and ends the work where it is to stop. */
  far: (done: number) => Promise<void>;
}

const parted = (told: readonly Told[]): Told[][] =>
  Array.from({ length: Math.ceil(told.length / atOnce) }, (_, nth) =>
    told.slice(nth * atOnce, (nth + 1) * atOnce),
  );

/** What is made of each part in turn; while one is used, the next is being made. */
async function* oneAhead<T, U>(parts: readonly T[], make: (part: T) => Promise<U>): AsyncGenerator<U> {
  const begin = (part: T | undefined): Promise<U> | null => {
    if (part === undefined) return null;
    const making = make(part);
    // Where the work ends before this is asked for, nobody hears of its failure.
    making.catch(() => undefined);
    return making;
  };
  let next = begin(parts[0]);
  for (let at = 1; next; at += 1) {
    const made = await next;
    next = begin(parts[at]);
    yield made;
  }
}

/** Cover, schedule, sheets and data sheets as one document with pages counted through. */
async function inOne({ sheets, head, look, files, annexes, language, far }: Whole): Promise<Uint8Array> {
  const positions: PaperPosition[] = [];
  for await (const some of sheets) {
    positions.push(...some);
    // Half of the way is what stands on the sheets, the other half is setting them.
    await far(Math.floor(positions.length / 2));
  }
  const document = composePackage({ ...head, positions }, look, paperWords(language, 0), annexes);
  return askLongPapers('composed', { document, files });
}

/** Sheets are set in both threads for files in turn; whoever wants a page meanwhile waits for one sheet at most. */
const setSheet = (nth: number, document: PaperDocument, files: GivenFiles): Promise<Uint8Array> =>
  (nth % 2 === 0 ? askLongPapers : askPapers)('composed', { document, files });

/** A folder of files: the schedule, a sheet of each position under its tag, each data sheet once. */
async function zipped(all: Whole): Promise<Uint8Array> {
  const { row, told, sheets, head, look, files, marks, annexes, language, far } = all;
  const words = paperWords(language, 0);
  const t = translator(language);
  const inside: Record<string, Uint8Array> = {};
  const title = fileTag(words.say('schedule'));
  inside[`${title}.pdf`] = await askLongPapers('composed', {
    document: composeSchedule({ ...head, positions: told.map(plainPosition) }, look, words),
    files: marks,
  });
  inside[`${title}.xlsx`] = await askLongPapers('sheet', {
    name: row.name,
    rows: sheetOf(told, language),
    format: 'xlsx',
  });
  const inFolder = t('schedule.folder.sheets');
  let done = 0;
  for await (const positions of sheets) {
    const documents = positions.flatMap((position) => {
      const document = composePosition(head, position, look, words);
      return document ? [{ tag: position.tag, document }] : [];
    });
    const made = await Promise.all(documents.map(({ document }, nth) => setSheet(nth, document, marks)));
    for (const [nth, { tag }] of documents.entries()) {
      const bytes = made[nth];
      if (bytes) inside[freeName(inside, `${inFolder}/${fileTag(tag)}`, 'pdf')] = bytes;
    }
    done += positions.length;
    await far(done);
  }
  for (const { file, name } of annexes) {
    const bytes = files[file]?.bytes;
    if (bytes) inside[freeName(inside, `${t('schedule.folder.dataSheets')}/${fileTag(name)}`, 'pdf')] = bytes;
  }
  return askLongPapers('archive', { folder: fileTag(row.name), files: inside, day: head.day });
}

/** Tags that differ only in what a file cannot be called get names that differ too. */
function freeName(taken: Readonly<Record<string, unknown>>, name: string, ending: string): string {
  const keys = new Set(Object.keys(taken).map((each) => each.toLowerCase()));
  for (let nth = 1; ; nth += 1) {
    const full = `${name}${nth === 1 ? '' : ` (${String(nth)})`}.${ending}`;
    if (!keys.has(full.toLowerCase())) return full;
  }
}

/** Begins to make a package. */
export const askForPackage = (actor: Actor, id: string, input: PackageInput): Promise<Result<AskedJob>> =>
  inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const row = await findSchedule(actor, id);
    if (!row) return fail('missing', { code: 'schedule.missing' });
    if ((await connected().records.schedulePositions.count({ where: { scheduleId: id } })) === 0)
      return fail('invalid', { code: 'schedule.empty' });
    const asked = { ...input, schedule: id };
    const { id: job, fresh } = await askForJob(packageJob, asked, {
      by: actor.id,
      once: `package ${actor.id} ${String(row.version)} ${JSON.stringify(asked)}`,
    });
    if (fresh) await record(actor, 'schedule.package', row.name, { as: input.as });
    return done({ job });
  });
