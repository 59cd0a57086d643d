/** Steps of a price change that is made ready: taken back and done again, the rows as they were. */
import { QueryTypes } from 'sequelize';
import type { ChangeSteps } from '../../contract';
import { connected } from '../../data';
import { nameOf, reference } from '../settings/reference-data';

/** What a step did. */
export type StepKind = 'rows' | 'formula' | 'sheet' | 'edited';
/** Which rows a step touches: those at some places, or none where it changes the name, note and day. */
export type Touched = readonly string[] | 'head';

/** Steps of a change that are kept, and rows in all of them together: the newest stay. */
const [mostKept, mostRows] = [50, 200_000];

const headSql = `(select json_build_object('name', name, 'note', note, 'in_force', in_force)
  from price_changes where id = $1)`;
const rowsSql = `(select coalesce(json_agg(r), '[]'::json) from price_change_rows r
  where r.change_id = $1 and r.place in (select jsonb_array_elements_text($2::jsonb)))`;

/** What stands there now, as it is kept of a step. */
async function shot(id: string, touched: Touched): Promise<unknown> {
  const [row] = await connected().sequelize.query<{ is: unknown }>(
    `select ${touched === 'head' ? headSql : rowsSql} as is`,
    { bind: touched === 'head' ? [id] : [id, JSON.stringify(touched)], type: QueryTypes.SELECT },
  );
  return row?.is;
}

/** Does something to a change and keeps the step; part of the transaction. What was taken back before is over. */
export async function remembered(
  by: string | null,
  id: string,
  what: StepKind,
  touched: Touched,
  work: () => Promise<void>,
): Promise<void> {
  const before = await shot(id, touched);
  await work();
  const after = await shot(id, touched);
  const { sequelize } = connected();
  await sequelize.query('delete from price_change_steps where change_id = $1 and undone', { bind: [id] });
  await sequelize.query(
    `insert into price_change_steps (change_id, number, user_id, what, places, before, after)
     select $1, coalesce(max(number), 0) + 1, $2, $3, $4, $5, $6 from price_change_steps where change_id = $1`,
    {
      bind: [
        id,
        by,
        what,
        touched === 'head' ? null : JSON.stringify(touched),
        JSON.stringify(before),
        JSON.stringify(after),
      ],
    },
  );
  await sequelize.query(
    `delete from price_change_steps s using (
       select number, row_number() over newest as place, sum(coalesce(json_array_length(places), 1)) over newest as many
       from price_change_steps where change_id = $1 window newest as (order by number desc)) k
     where s.change_id = $1 and s.number = k.number and k.place > 1
       and (k.place > ${String(mostKept)} or k.many > ${String(mostRows)})`,
    { bind: [id] },
  );
}

interface Step {
  number: number;
  what: StepKind;
  by: string | null;
  head: boolean;
}

/** The step that would be taken back, or done again. */
async function nextStep(id: string, way: 'undo' | 'redo'): Promise<Step | undefined> {
  const [step] = await connected().sequelize.query<Step>(
    `select number, what, user_id as by, places is null as head from price_change_steps
     where change_id = $1 and undone = $2 order by number ${way === 'undo' ? 'desc' : 'asc'} limit 1`,
    { bind: [id, way === 'redo'], type: QueryTypes.SELECT },
  );
  return step;
}

/** Forgets the steps of a change that is settled. */
export const forgetSteps = (id: string): Promise<unknown> =>
  connected().sequelize.query('delete from price_change_steps where change_id = $1', { bind: [id] });

/** What can be taken back and done again, and whose it was. */
export async function stepsOf(id: string): Promise<ChangeSteps> {
  const known = await reference();
  const told = async (way: 'undo' | 'redo'): Promise<ChangeSteps['undo']> => {
    const step = await nextStep(id, way);
    return step ? { what: step.what, by: nameOf(known, step.by) } : null;
  };
  return { undo: await told('undo'), redo: await told('redo') };
}

/** Takes the last step back, or does the one that was taken back again; what it did, or nothing where there is none. */
export async function takeStep(id: string, way: 'undo' | 'redo'): Promise<StepKind | null> {
  const step = await nextStep(id, way);
  if (!step) return null;
  const { sequelize } = connected();
  const side = way === 'undo' ? 'before' : 'after';
  const bind = [id, step.number];
  if (step.head)
    await sequelize.query(
      `update price_changes c set name = s.${side} ->> 'name', note = s.${side} ->> 'note', in_force = (s.${side} ->> 'in_force')::date
       from price_change_steps s where s.change_id = c.id and c.id = $1 and s.number = $2`,
      { bind },
    );
  else {
    await sequelize.query(
      `delete from price_change_rows r using price_change_steps s where s.change_id = $1 and s.number = $2
         and r.change_id = $1 and r.place in (select json_array_elements_text(s.places))`,
      { bind },
    );
    await sequelize.query(
      `insert into price_change_rows select r.* from price_change_steps s, json_populate_recordset(null::price_change_rows, s.${side}) r
       where s.change_id = $1 and s.number = $2`,
      { bind },
    );
  }
  await sequelize.query('update price_change_steps set undone = $3 where change_id = $1 and number = $2', {
    bind: [...bind, way === 'undo'],
  });
  return step.what;
}
