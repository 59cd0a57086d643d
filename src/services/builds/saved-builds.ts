/** Builds kept under a name, to start others from: a person's own, and what colleagues share. */
import { randomUUID } from 'node:crypto';
import { literal, Op } from 'sequelize';
import type { ChangeSavedInput, SaveBuildInput, SavedBuild } from '../../contract';
import { connected, type SavedBuildRow, type Stored } from '../../data';
import { refusal, type Actor } from '../access/actor';
import { findBuild } from './find-build';
import { subjectAt } from './home';
import { done, fail, type Result } from '../kernel/failure';
import { versionInForce, versionById } from '../catalogue/models';
import { inTransaction, record } from '../kernel/unit-of-work';
import { isReference } from '../kernel/reference';

/** What dealers share stays among dealers of the same house; the others' is for everyone inside. */
function visible(actor: Actor): Record<symbol, unknown> {
  const colleagues = literal(
    `(select id from users where dealer_id is not distinct from ${actor.dealerId === null ? 'null' : connected().sequelize.escape(actor.dealerId)})`,
  );
  return { [Op.or]: [{ ownerId: actor.id }, { shared: true, ownerId: { [Op.in]: colleagues } }] };
}

/** A kept build that the person may begin from; null where there is none. */
export async function findSaved(actor: Actor, id: string): Promise<Stored<SavedBuildRow> | null> {
  return !isReference(id)
    ? null
    : connected().records.savedBuilds.findOne({ where: { [Op.and]: [{ id }, visible(actor)] } });
}

/** Starred first, then the newest. */
export async function listSaved(actor: Actor): Promise<SavedBuild[]> {
  const { savedBuilds, stars, users } = connected().records;
  const [rows, starred, people] = [
    await savedBuilds.findAll({ where: visible(actor), order: [['savedAt', 'DESC']], limit: 500 }),
    new Set((await stars.findAll({ where: { userId: actor.id }, raw: true })).map((star) => star.savedId)),
    new Map(
      (await users.findAll({ attributes: ['id', 'name'], raw: true })).map((user) => [user.id, user.name]),
    ),
  ];
  const names = new Map(
    await Promise.all(
      [...new Set(rows.map((row) => row.modelId))].map(
        async (id) => [id, (await versionInForce(id))?.name ?? {}] as const,
      ),
    ),
  );
  const list = rows.map((row): SavedBuild => ({
    id: row.id,
    name: row.name,
    owner: people.get(row.ownerId) ?? '',
    mine: row.ownerId === actor.id,
    shared: row.shared,
    starred: starred.has(row.id),
    modelId: row.modelId,
    model: names.get(row.modelId) ?? {},
    partNumber: row.partNumber,
    savedAt: (row.savedAt ?? new Date()).toISOString(),
  }));
  return [...list.filter((each) => each.starred), ...list.filter((each) => !each.starred)];
}

/** A name as people tell names apart: not by case, spaces or how a letter is written. */
const told = (name: string): string => name.normalize('NFKC').trim().replace(/\s+/g, ' ').toLowerCase();

/**
 * Why a name cannot be had: another build that the person sees has it, or one that differs only in case. Held
 * until the unit of work ends, so that two cannot take one name.
 */
async function takenBy(actor: Actor, name: string, except?: string): Promise<Result<never> | undefined> {
  await connected().sequelize.query('select pg_advisory_xact_lock(7420619)');
  const rows = await connected().records.savedBuilds.findAll({
    where: visible(actor),
    attributes: ['id', 'name', 'ownerId'],
    raw: true,
  });
  const other = rows.find((row) => row.id !== except && told(row.name) === told(name));
  if (!other) return undefined;
  const owner = await connected().records.users.findByPk(other.ownerId, { attributes: ['name'], raw: true });
  return fail('conflict', {
    code: other.ownerId === actor.id ? 'saved.nameTaken' : 'saved.nameTakenBy',
    params: { name: other.name, who: owner?.name ?? '' },
    field: 'name',
  });
}

/** Keeps a build under a name, as it is now. */
export async function saveBuild(
  actor: Actor,
  { buildId, name, shared }: SaveBuildInput,
): Promise<Result<{ id: string }>> {
  return inTransaction(async () => {
    const refused = refusal(actor, 'quotes');
    if (refused) return refused;
    const found = await findBuild(actor, buildId);
    if (!found.ok) return found;
    const { build, home } = found.value;
    const taken = await takenBy(actor, name);
    if (taken) return taken;
    const { modelId } = await versionById(build.modelVersionId);
    const saved = await connected().records.savedBuilds.create({
      id: randomUUID(),
      ownerId: actor.id,
      name,
      shared,
      modelId,
      partNumber: build.outcome.partNumber,
      asked: build.asked,
      decisions: build.decisions,
    });
    await record(actor, 'build.kept', subjectAt(home), { saved: saved.id, name });
    return done({ id: saved.id });
  });
}

/** Name and sharing are the owner's to change; a star is everyone's own. */
export async function changeSaved(
  actor: Actor,
  id: string,
  { name, shared, starred }: ChangeSavedInput,
): Promise<Result<null>> {
  return inTransaction(async () => {
    const saved = await findSaved(actor, id);
    if (!saved) return fail('missing', { code: 'saved.missing' });
    const { stars } = connected().records;
    if (name !== undefined || shared !== undefined) {
      if (saved.ownerId !== actor.id) return fail('forbidden', { code: 'saved.notYours' });
      const taken = name === undefined ? undefined : await takenBy(actor, name, id);
      if (taken) return taken;
      await saved.update({
        ...(name === undefined ? {} : { name }),
        ...(shared === undefined ? {} : { shared }),
      });
    }
    if (starred === true)
      await stars.findOrCreate({
        where: { userId: actor.id, savedId: id },
        defaults: { userId: actor.id, savedId: id },
      });
    if (starred === false) await stars.destroy({ where: { userId: actor.id, savedId: id } });
    return done(null);
  });
}

/** Keeps a build of the person's own no longer. */
export async function removeSaved(actor: Actor, id: string): Promise<Result<null>> {
  return inTransaction(async () => {
    const saved = await findSaved(actor, id);
    if (!saved) return fail('missing', { code: 'saved.missing' });
    if (saved.ownerId !== actor.id) return fail('forbidden', { code: 'saved.notYours' });
    await saved.destroy();
    return done(null);
  });
}
