/**
 * Backup and restore: one file, which says what schema it is of and carries a checksum. The file begins with
 * a line of JSON; what follows is an archive of pg_dump.
 */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, readdirSync } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { QueryTypes } from 'sequelize';
import { knownMigrations, migrate, openDatabase } from '../../data';

interface Header {
  iunctura: 'backup';
  format: 1;
  made: string;
  /** Steps of the schema that the database had gone. */
  schema: string[];
  bytes: number;
  sha256: string;
}

/** Why there is no restoring from a file, or to a database; each has its sentence. */
export type RestoreProblem = 'notABackup' | 'damaged' | 'newer' | 'notEmpty';

/** Why a backup cannot be put back. */
export class CannotRestore extends Error {
  constructor(readonly problem: RestoreProblem) {
    super(
      {
        notABackup: 'This file is no backup of Iunctura.',
        damaged: 'This backup is damaged: its checksum is not that of its content. Take another one.',
        newer:
          'This backup was made by a newer version, whose schema this one does not know. Restore it with that version.',
        notEmpty: 'The database is not empty. Restore into a new one.',
      }[problem],
    );
  }
}

const tool = (name: string): string => {
  const versions = readdirSync('/usr/lib/postgresql')
    .filter((each) => /^\d+$/.test(each))
    .sort((a, b) => Number(b) - Number(a));
  return `/usr/lib/postgresql/${versions[0] ?? ''}/bin/${name}`;
};

/** Runs a tool of PostgreSQL to its end; what it complains of is the error. */
async function run(name: string, args: string[], input?: NodeJS.ReadableStream): Promise<void> {
  const child = spawn(tool(name), args, { stdio: [input ? 'pipe' : 'ignore', 'ignore', 'pipe'] });
  let said = '';
  child.stderr?.on('data', (text: Buffer) => {
    said += text.toString();
  });
  const ended = new Promise<void>((done, fail) => {
    child.on('error', fail);
    child.on('close', (code) => {
      if (code === 0) done();
      else fail(new Error(`${name}: ${said.trim()}`));
    });
  });
  if (input && child.stdin) await pipeline(input, child.stdin).catch(() => undefined);
  await ended;
}

async function digestOf(file: string, from = 0): Promise<{ sha256: string; bytes: number }> {
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const piece of createReadStream(file, { start: from }) as AsyncIterable<Buffer>) {
    hash.update(piece);
    bytes += piece.length;
  }
  return { sha256: hash.digest('hex'), bytes };
}

/** Writes all that a database holds into one file, as it is at one moment; people go on working meanwhile. */
export async function backUp(url: string, file: string): Promise<Header> {
  const dump = `${file}.part`;
  try {
    await run('pg_dump', ['--format=custom', '--no-owner', '--no-privileges', `--file=${dump}`, url]);
    const database = openDatabase(url, { pool: 1 });
    const rows = await database.sequelize.query<{ name: string }>(
      'select name from migrations order by name',
      { type: QueryTypes.SELECT },
    );
    await database.close();
    const header: Header = {
      iunctura: 'backup',
      format: 1,
      made: new Date().toISOString(),
      schema: rows.map(({ name }) => name),
      ...(await digestOf(dump)),
    };
    const whole = `${file}.whole`;
    const out = createWriteStream(whole);
    out.write(`${JSON.stringify(header)}\n`);
    await pipeline(createReadStream(dump), out);
    // It has its name only once it is whole.
    await rename(whole, file);
    return header;
  } finally {
    await rm(dump, { force: true });
  }
}

async function headerOf(file: string): Promise<{ header: Header; length: number }> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(64 * 1024), 0, 64 * 1024, 0);
    const end = buffer.subarray(0, bytesRead).indexOf(10);
    if (end < 0) throw new CannotRestore('notABackup');
    let header: { iunctura?: unknown; format?: unknown };
    try {
      header = JSON.parse(buffer.subarray(0, end).toString('utf8')) as typeof header;
    } catch {
      throw new CannotRestore('notABackup');
    }
    if (header.iunctura !== 'backup' || header.format !== 1)
      throw new CannotRestore(header.iunctura === 'backup' ? 'newer' : 'notABackup');
    return { header: header as Header, length: end + 1 };
  } finally {
    await handle.close();
  }
}

/** Puts a backup into an empty database, all of it or nothing, and brings it to the newest schema. */
export async function restore(file: string, url: string): Promise<Header> {
  const { header, length } = await headerOf(file);
  if (header.schema.some((name) => !knownMigrations.includes(name))) throw new CannotRestore('newer');
  const { sha256, bytes } = await digestOf(file, length);
  if (sha256 !== header.sha256 || bytes !== header.bytes) throw new CannotRestore('damaged');
  const database = openDatabase(url, { pool: 1 });
  try {
    const [row] = await database.sequelize.query<{ count: string }>(
      "select count(*) from information_schema.tables where table_schema = 'public'",
      { type: QueryTypes.SELECT },
    );
    if (row?.count !== '0') throw new CannotRestore('notEmpty');
    await run(
      'pg_restore',
      ['--single-transaction', '--exit-on-error', '--no-owner', '--no-privileges', `--dbname=${url}`],
      createReadStream(file, { start: length }),
    );
    await migrate(database);
  } finally {
    await database.close();
  }
  return header;
}
