/** Published model versions. What is compiled of them lives in threads. */
import { createHash, randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import type { ModelDocument, ModelProblem } from '../../core/model';
import { connected, type ModelReleaseRow } from '../../data';
import { askEngine } from '../kernel/engines';
import { today } from '../kernel/clock';
import { inForceOn, reference, type VersionHead } from '../settings/reference-data';
import { Recent } from '../kernel/threads/recent';

export type { VersionHead } from '../settings/reference-data';

const heads = new Recent<VersionHead>(500);

/** The version of a model that is in force on a day; null where none is. */
export async function versionInForce(modelId: string, day = today()): Promise<VersionHead | null> {
  return inForceOn(await reference(), modelId, day) ?? null;
}

/** A version without its document; versions never change. */
export async function versionById(id: string): Promise<VersionHead> {
  const known = heads.get(id);
  if (known) return known;
  const [head] = await connected().sequelize.query<VersionHead>(
    `select id, model_id as "modelId", number, document -> 'name' as name, document -> 'languages' as languages from model_versions where id = $1`,
    { bind: [id], type: QueryTypes.SELECT },
  );
  if (!head) throw new Error(`model version ${id} is gone`);
  heads.set(id, head, 1);
  return head;
}

/**
 * Publishes a document as the next version of its model; a document that does not compile is refused with its
 * problems. It is in force from today where nothing else is said.
 */
export async function publish(
  document: ModelDocument,
  sku: string,
  by: string | null,
  release: Partial<Pick<ModelReleaseRow, 'inForce' | 'note' | 'baseId' | 'agreedBy'>> = {},
): Promise<{ problems: ModelProblem[]; version?: string }> {
  const problems = await askEngine('compile', { document });
  if (problems.length > 0) return { problems };
  const { models, modelVersions, modelReleases } = connected().records;
  await models.findOrCreate({ where: { id: document.id }, defaults: { id: document.id, sku } });
  const last = await modelVersions.findOne({
    where: { modelId: document.id },
    attributes: ['number', 'hash'],
    order: [['number', 'DESC']],
    raw: true,
  });
  const hash = createHash('sha256').update(JSON.stringify(document)).digest('hex');
  if (last?.hash === hash) return { problems: [] };
  const version = randomUUID();
  await modelVersions.create({
    id: version,
    modelId: document.id,
    number: (last?.number ?? 0) + 1,
    document,
    hash,
    publishedBy: by,
  });
  await modelReleases.create({
    versionId: version,
    // The first of a model holds for all days.
    inForce: last ? today() : '2000-01-01',
    note: '',
    baseId: null,
    agreedBy: null,
    ...release,
    withdrawnAt: null,
    withdrawnBy: null,
    withdrawnNote: null,
  });
  return { problems: [], version };
}

/** Models that can be configured, in the order of the catalogue's families. */
export async function publishedModels(): Promise<{ id: string; name: Record<string, string> }[]> {
  const known = await reference();
  const { models, items, families } = known;
  const position = (sku: string): number =>
    families.find((family) => family.code === items.get(sku)?.family)?.position ?? families.length;
  return [...models]
    .sort((a, b) => position(a.sku) - position(b.sku))
    .flatMap(({ id }) => {
      const version = inForceOn(known, id, today());
      return version ? [{ id, name: version.name }] : [];
    });
}
