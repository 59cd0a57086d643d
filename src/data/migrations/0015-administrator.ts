import type { Migration } from './migration';

/** A role that runs the house and has no say in prices or rules; it looks through what was done. */
export const administrator: Migration = {
  name: '0015-administrator',
  up: `
alter table users drop constraint users_role_check,
  add constraint users_role_check check (role in ('engineer', 'manager', 'director', 'modeller', 'administrator', 'dealer'));
create index audit_entries_at on audit_entries (at);
create index audit_entries_user on audit_entries (user_id, id);
create index audit_entries_subject on audit_entries (lower(subject) text_pattern_ops);
`,
};
