import { openDatabase, type Database } from './connection';

let open: Database | undefined;

/** The database of this server, opened at first use from DATABASE_URL. */
export function connected(): Database {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set');
  return (open ??= openDatabase(url));
}
