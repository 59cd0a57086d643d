import type { Migration } from './migration';

/**
 * Texts and templates of what is put on paper: never changed, but followed by another version, so that a revision that
 * was sent still says what it said. What was chosen for a revision, and what is usual for a customer.
 */
export const paper: Migration = {
  name: '0023-paper',
  up: `
create table paper_texts (
  code text not null,
  version int not null,
  content json not null,
  gone boolean not null default false,
  made_by uuid references users,
  made_at timestamptz not null default now(),
  primary key (code, version)
);
create table paper_templates (
  code text not null,
  version int not null,
  content json not null,
  gone boolean not null default false,
  made_by uuid references users,
  made_at timestamptz not null default now(),
  primary key (code, version)
);
create table paper_compositions (
  revision_id uuid primary key references quote_revisions on delete cascade,
  composition json not null,
  version int not null default 1,
  changed_by uuid not null references users,
  changed_at timestamptz not null default now()
);
create table paper_habits (
  customer_id uuid primary key references customers on delete cascade,
  composition json not null,
  changed_at timestamptz not null default now()
);
`,
};
