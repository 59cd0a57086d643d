import type { Migration } from './migration';

/**
 * Files: what is in them once by its hash, and each time that somebody brought one. What uses a file says so in
 * `about` and `about_id`; who sees that sees the file.
 */
export const files: Migration = {
  name: '0016-files',
  up: `
create table file_contents (
  hash text primary key check (hash ~ '^[0-9a-f]{64}$'),
  kind text not null,
  size integer not null check (size = octet_length(bytes)),
  width integer,
  height integer,
  bytes bytea not null,
  small bytea,
  small_kind text,
  made_at timestamptz not null default now()
);
create table files (
  id uuid primary key,
  hash text not null references file_contents,
  name text not null,
  owner uuid not null references users,
  about text,
  about_id text,
  made_at timestamptz not null default now(),
  constraint files_about check ((about is null) = (about_id is null))
);
create index files_hash on files (hash);
create index files_about on files (about, about_id) where about is not null;
create index files_loose on files (made_at) where about is null;
`,
};
