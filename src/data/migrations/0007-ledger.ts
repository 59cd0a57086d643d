import type { Migration } from './migration';

/**
 * Several people at a customer; what a piece costs whose price is typed on the line, where that is known
 * better than in general; and which lines are alternatives of one another.
 */
export const ledger: Migration = {
  name: '0007-ledger',
  up: `
alter table quote_lines add column typed_cost numeric(18,6) check (typed_cost >= 0), add column rivals uuid;
-- What a line is an alternative to is only named here, on settled quotes too; whether it counts stays as it was.
alter table quote_lines disable trigger quote_lines_frozen;
update quote_lines line set rivals = md5(line.revision_id::text || own.talk_id::text)::uuid from builds own
  where own.id = line.build_id and exists (select 1 from quote_lines other join builds its on its.id = other.build_id where other.revision_id = line.revision_id and its.talk_id = own.talk_id and other.alternative);
update quote_lines set rivals = gen_random_uuid() where alternative and rivals is null;
alter table quote_lines enable trigger quote_lines_frozen;
alter table quote_lines add check (rivals is not null or not alternative);
-- Steps keep whole lines, and would bring back such as know nothing of the above.
delete from quote_steps;
create table contacts (id uuid primary key, customer_id uuid not null references customers on delete cascade, name text not null, email text not null, task text not null default '', position int not null);
create index contacts_customer on contacts (customer_id);
insert into contacts select gen_random_uuid(), id, contact_name, contact_email, '', 0 from customers;
alter table customers drop column contact_name, drop column contact_email;
`,
};
