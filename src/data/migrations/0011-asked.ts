import type { Migration } from './migration';

/** The figures that a sign-off was asked for stay beside those that were signed. */
export const asked: Migration = {
  name: '0011-asked',
  up: `
alter table sign_offs add column asked jsonb;
update sign_offs set asked = figures;
alter table sign_offs alter column asked set not null;
`,
};
