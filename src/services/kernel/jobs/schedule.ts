/** Jobs that are made at certain times, by one instance of many, in the time of a place. */
import { Cron } from 'croner';
import { Op } from 'sequelize';
import { connected } from '../../../data';
import type { AnyJobKind } from './kind';
import { askForJob } from './queue';

/** A kind of job that is made at certain times. */
export interface Schedule {
  name: string;
  kind: AnyJobKind;
  /** As cron writes it: minute, hour, day of the month, month, day of the week. */
  pattern: string;
  /** The time zone that the pattern is read in, as in the IANA database. */
  zone: string;
}

/**
 * The first moment of a pattern after another. Where the clocks jump over a time it is the same time after the
 * jump, and where they show one twice it is the first: there is one a day whatever the clocks do.
 */
export const nextOf = (pattern: string, zone: string, after: Date): Date => {
  const next = new Cron(pattern, { timezone: zone }).nextRun(after);
  if (!next) throw new Error(`${pattern} never comes`);
  return next;
};

/** Writes down which schedules there are; one that is as it was keeps its next moment. */
export async function keepSchedules(schedules: readonly Schedule[], now = new Date()): Promise<void> {
  await connected().transaction(async () => {
    const { jobSchedules } = connected().records;
    await jobSchedules.destroy({ where: { name: { [Op.notIn]: schedules.map(({ name }) => name) } } });
    for (const { name, kind, pattern, zone } of schedules) {
      const present = await jobSchedules.findByPk(name);
      if (present?.pattern === pattern && present.zone === zone && present.kind === kind.kind) continue;
      await jobSchedules.upsert({
        name,
        kind: kind.kind,
        pattern,
        zone,
        nextAt: nextOf(pattern, zone, now),
      });
    }
  });
}

/** Reads all patterns in another zone from now on. */
export async function moveSchedules(zone: string, now = new Date()): Promise<void> {
  const { jobSchedules } = connected().records;
  for (const { name, pattern } of await jobSchedules.findAll({ lock: true }))
    await jobSchedules.update({ zone, nextAt: nextOf(pattern, zone, now) }, { where: { name } });
}

/** Makes the jobs whose moment has come; what was missed meanwhile is made once. */
export async function makeDue(now = new Date()): Promise<void> {
  const { jobSchedules } = connected().records;
  if ((await jobSchedules.count({ where: { nextAt: { [Op.lte]: now } } })) === 0) return;
  await connected().transaction(async () => {
    const due = await jobSchedules.findAll({
      where: { nextAt: { [Op.lte]: now } },
      lock: true,
      skipLocked: true,
    });
    for (const { name, kind, pattern, zone } of due) {
      await askForJob({ kind, tries: 5 }, null, { once: `schedule ${name}` });
      await jobSchedules.update({ nextAt: nextOf(pattern, zone, now) }, { where: { name } });
    }
  });
}
