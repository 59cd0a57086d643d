import type { Migration } from './migration';

/**
 * What is kept of prices and materials says how it is counted with its line, as models do. Names of a field are
 * followed by a colon, which a text within would have behind an escaped quote.
 */
const moved = (column: string): string =>
  `replace(replace(${column}::text, '"grows": "once"', '"counts": "line"'), '"grows": "own"', '"counts": "typed"')::jsonb`;

/** Kept prices and materials count as models do. */
export const counting: Migration = {
  name: '0020-counting',
  up: `
alter table quote_lines disable trigger user;
update quote_lines set frozen = ${moved('frozen')} where frozen::text like '%"grows": "%';
alter table quote_lines enable trigger user;
alter table work_orders disable trigger user;
update work_orders set materials = ${moved('materials')} where materials::text like '%"grows": "%';
alter table work_orders enable trigger user;
`,
};
