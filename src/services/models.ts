/** Published model versions, compiled once per server. */
import { createHash, randomUUID } from 'node:crypto';
import { createEngine, usualLimits, type Context, type Engine } from '../core/engine';
import { compileModel, type CompiledModel, type ModelDocument, type ModelProblem } from '../core/model';
import { connected, type ModelVersionRow } from '../data';

const compiled = new Map<string, CompiledModel>();
const engines = new Map<string, Engine>();
const mostEngines = 40;

export async function newestVersion(modelId: string): Promise<ModelVersionRow | null> {
  return connected().records.modelVersions.findOne({ where: { modelId }, order: [['number', 'DESC']] });
}

export async function versionById(id: string): Promise<ModelVersionRow> {
  const version = await connected().records.modelVersions.findByPk(id, );
  if (!version) throw new Error(`model version ${id} is gone`);
  return version;
}

/** A version compiled; versions never change, so it is kept for good. */
export function compiledVersion(version: ModelVersionRow): CompiledModel {
  const known = compiled.get(version.id);
  if (known) return known;
  const result = compileModel(version.document);
  if (!result.ok) throw new Error(`published model does not compile: ${JSON.stringify(result.problems)}`);
  compiled.set(version.id, result.model);
  return result.model;
}

/** The engine of a version in a context; engines in use stay warm. */
export function engineOf(version: ModelVersionRow, context: Context): Engine {
  const key = `${version.id} ${JSON.stringify(context)}`;
  const engine = engines.get(key) ?? createEngine(compiledVersion(version), context, usualLimits);
  engines.delete(key);
  engines.set(key, engine);
  if (engines.size > mostEngines) engines.delete(engines.keys().next().value as string);
  return engine;
}

/** Publishes a document as the next version of its model; a document that does not compile is refused with its problems. */
export async function publish(document: ModelDocument, sku: string, by: string | null): Promise<{ problems: ModelProblem[] }> {
  const result = compileModel(document);
  if (!result.ok) return { problems: result.problems };
  const { models, modelVersions } = connected().records;
  await models.findOrCreate({ where: { id: document.id }, defaults: { id: document.id, sku } });
  const last = await newestVersion(document.id);
  const hash = createHash('sha256').update(JSON.stringify(document)).digest('hex');
  if (last?.hash === hash) return { problems: [] };
  await modelVersions.create({ id: randomUUID(), modelId: document.id, number: (last?.number ?? 0) + 1, document, hash, publishedBy: by });
  return { problems: [] };
}

/** Models that can be configured, in the order of the catalogue's families. */
export async function publishedModels(): Promise<{ id: string; name: Record<string, string> }[]> {
  const { models, items, families } = connected().records;
  const [rows, heads, order] = [await models.findAll({ order: [['id', 'ASC']], raw: true }), await items.findAll({ where: { kind: 'model' }, raw: true }), await families.findAll({ raw: true })];
  const position = (sku: string): number => order.find((family) => family.code === heads.find((item) => item.sku === sku)?.family)?.position ?? order.length;
  rows.sort((a, b) => position(a.sku) - position(b.sku));
  const versions = await Promise.all(rows.map((row) => newestVersion(row.id)));
  return versions.flatMap((version) => (version ? [{ id: version.modelId, name: version.document.name }] : []));
}
