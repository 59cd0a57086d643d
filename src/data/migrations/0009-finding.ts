import type { Migration } from './migration';

/** Words that are like others are found by the pieces that they share. */
export const finding: Migration = {
  name: '0009-finding',
  up: 'create extension if not exists pg_trgm with schema public;',
};
