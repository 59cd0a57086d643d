/** A schedule as its paper is made of it. */
import { usualColour, type PaperPosition, type ScheduleGiven } from '../../core/paper';
import { Op } from 'sequelize';
import { connected, type BuildRow, type ScheduleRow } from '../../data';
import type { Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { askEngine } from '../kernel/engines';
import { buildsOnPaper, houseOf } from '../paper/given';
import { bytesOf } from '../paper/given-bytes';
import type { GivenFiles } from '../paper/files/given-files';
import { marketIn } from '../settings/house';
import { reference } from '../settings/reference-data';
import type { Told } from './told';

/** How the paper of a schedule looks. */
export interface ScheduleLook {
  language: 'en' | 'de';
  paper: 'A4' | 'letter';
  colour: string;
}

/** What is said above the positions, and who says it. */
export async function headGiven(
  { name, site, customerId, ownerId }: ScheduleRow,
  language: 'en' | 'de',
): Promise<{ head: Omit<ScheduleGiven, 'positions'>; look: ScheduleLook; files: GivenFiles }> {
  const { customers, users } = connected().records;
  const customer = customerId === null ? null : await customers.findByPk(customerId, { raw: true });
  const owner = await users.findByPk(ownerId, { attributes: ['dealerId'], raw: true });
  const dealer = owner?.dealerId == null ? null : await customers.findByPk(owner.dealerId, { raw: true });
  const house = await houseOf(dealer);
  return {
    head: { name, site, customer: customer?.name ?? '', day: today(), house },
    look: { language, paper: (await marketIn('')).paper, colour: usualColour },
    files: await bytesOf(house.mark === null ? [] : [house.mark]),
  };
}

/** Positions as they stand on paper, without sheets. */
export const plainPosition = ({ view }: Told): PaperPosition => ({
  tag: view.tag,
  area: view.area,
  quantity: view.quantity,
  remark: view.remark,
  name: view.name,
  number: view.number,
});

/** Some positions with what is on their sheets; of the same build it is worked out once. */
export async function withSheets(
  actor: Actor,
  told: readonly Told[],
  drawn: boolean,
): Promise<PaperPosition[]> {
  const builds = [
    ...new Map(told.flatMap(({ build }) => (build ? [[build.id, build] as const] : []))).values(),
  ];
  const made = await buildsOnPaper(builds, { units: actor.preferences.units ?? actor.units, drawn });
  const byId = new Map(builds.map(({ id }, at) => [id, made[at]]));
  return told.map((each) => {
    const build = each.build ? byId.get(each.build.id) : undefined;
    return { ...plainPosition(each), ...(build ? { build } : {}) };
  });
}

/** Data sheets of all that positions are made of, each once, by the names of their items. */
export async function dataSheetsOf(told: readonly Told[]): Promise<{ file: string; name: string }[]> {
  const builds = [
    ...new Map(told.flatMap(({ build }) => (build ? [[build.id, build] as const] : []))).values(),
  ];
  const made = await itemsIn(builds);
  const skus = new Set([
    ...told.flatMap(({ build, view }) => (build || view.number === '' ? [] : [view.number])),
    ...made,
  ]);
  const { items } = await reference();
  const wanted = [...skus].flatMap((sku) => {
    const file = items.get(sku)?.dataSheet ?? null;
    return file === null ? [] : [{ file, sku }];
  });
  if (wanted.length === 0) return [];
  const files = await connected().records.files.findAll({
    where: { id: { [Op.in]: wanted.map(({ file }) => file) } },
    raw: true,
  });
  const names = new Map(files.map(({ id, name }) => [id, name]));
  const seen = new Set<string>();
  return wanted.flatMap(({ file, sku }) => {
    if (seen.has(file) || !names.has(file)) return [];
    seen.add(file);
    return [{ file, name: sku }];
  });
}

async function itemsIn(builds: readonly BuildRow[]): Promise<string[]> {
  if (builds.length === 0) return [];
  const made = await askEngine(
    'making',
    builds.map(({ modelVersionId, outcome }) => ({ version: modelVersionId, values: outcome.values })),
  );
  return made.flatMap(({ materials }) => materials.map(({ item }) => item));
}
