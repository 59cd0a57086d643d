/** Storage: the database, its migrations and its typed records. */
export { isUnavailable, knownMigrations, migrate, openDatabase, type Database } from './connection';
export { connected } from './connected';
export { writeMany } from './bulk';
export { listen, tellAll } from './listening';
export type * from './records';
