/** Storage: the database, its migrations and its typed records. */
export { isUnavailable, migrate, openDatabase, type Database } from './connection';
export { connected } from './connected';
export type * from './records';
