/** Drafts begun: from a version, a copy of one, nothing, items of the catalogue, or a document. */
import { randomUUID } from 'node:crypto';
import type { NewDraftInput } from '../../contract';
import { movedOn, withLibrary, type Feature, type ModelDocument } from '../../core/model';
import { bareDocument, numberedBy, ofBundle, outlineRows, type Edit } from '../../core/modelling';
import { connected, type ItemRow, type ModelVersionRow } from '../../data';
import type { Actor } from '../access/actor';
import { askPatiently } from '../kernel/engines';
import { done, fail, type Result } from '../kernel/failure';
import { inTransaction, record } from '../kernel/unit-of-work';
import { today } from '../kernel/clock';
import { inForceOn, reference, type Reference } from '../settings/reference-data';
import { hashOf } from './draft-row';
import { withFacts } from './item-facts';

/** What a draft begins as. */
interface Start {
  sku: string;
  baseId: string | null;
  document: ModelDocument;
}

/** Begins a draft. A model that is new has an id and an item that no other has. */
export async function beginDraft(
  actor: Actor,
  { name, from }: NewDraftInput,
): Promise<Result<{ id: string }>> {
  const read = await startOf(from);
  if (!read.ok) return read;
  const { sku, baseId } = read.value;
  const document = await completed(read.value.document);
  return inTransaction(async () => {
    const taken = baseId === null ? await refusalOf(document.id, sku) : null;
    if (taken) return taken;
    const id = randomUUID();
    await connected().records.modelDrafts.create({
      id,
      modelId: document.id,
      sku,
      name,
      baseId,
      document,
      hash: hashOf(document),
      version: 1,
      madeBy: actor.id,
      changedBy: actor.id,
      impactJob: null,
      impactHash: null,
      impactSeen: false,
      agreedBy: null,
      agreedHash: null,
      closedAt: null,
      publishedId: null,
    });
    await record(actor, 'draft.begun', document.id, { draft: id, name, from: from.is });
    return done({ id });
  });
}

/** Why a new model cannot be called so, or be sold as this item. */
async function refusalOf(modelId: string, sku: string): Promise<Result<never> | null> {
  const { models, items } = await reference();
  if (models.some(({ id }) => id === modelId))
    return fail('conflict', { code: 'draft.idTaken', params: { id: modelId }, field: 'id' });
  if (models.some((each) => each.sku === sku))
    return fail('conflict', { code: 'draft.skuTaken', params: { sku }, field: 'sku' });
  if (!items.has(sku)) return fail('missing', { code: 'draft.noItem', params: { sku }, field: 'sku' });
  const open = await connected().records.modelDrafts.findOne({
    where: { modelId, closedAt: null, baseId: null },
  });
  return open ? fail('conflict', { code: 'draft.idTaken', params: { id: modelId }, field: 'id' }) : null;
}

async function startOf(from: NewDraftInput['from']): Promise<Result<Start>> {
  switch (from.is) {
    case 'version': {
      const version = await versionRow(from.version);
      const sku = (await reference()).models.find(({ id }) => id === version?.modelId)?.sku;
      return version && sku !== undefined
        ? done({ sku, baseId: version.id, document: documentOf(version) })
        : fail('missing', { code: 'version.missing' });
    }
    case 'copy': {
      const version = await versionRow(from.version);
      if (!version) return fail('missing', { code: 'version.missing' });
      const document = { ...documentOf(version), id: from.id };
      return done({
        sku: from.sku,
        baseId: null,
        document: { ...document, name: titled(document, from.title) },
      });
    }
    case 'nothing':
      return done({ sku: from.sku, baseId: null, document: bareDocument(from.id, from.title) });
    case 'items':
      return ofItems(from);
    case 'rows':
      return ofRows(from);
    case 'bundle': {
      const version = await versionRow(from.version);
      return version
        ? done({ sku: from.sku, baseId: null, document: ofBundle(documentOf(version), from.id, from.title) })
        : fail('missing', { code: 'version.missing' });
    }
    case 'document':
      return ofDocument(from);
  }
}

const versionRow = async (id: string): Promise<ModelVersionRow | null> =>
  connected().records.modelVersions.findByPk(id, { raw: true });
const documentOf = ({ document }: ModelVersionRow): ModelDocument => movedOn(document) as ModelDocument;
const titled = ({ languages }: ModelDocument, title: string) =>
  Object.fromEntries(languages.map((language) => [language, title]));

const mostTold = 20;

/** Rows of a spreadsheet become the outline; what is wrong in one is told, and left out where that is wished. */
async function ofRows({
  id,
  sku,
  title,
  rows,
  leave,
}: Extract<NewDraftInput['from'], { is: 'rows' }>): Promise<Result<Start>> {
  const { items } = await reference();
  const bare = bareDocument(id, title);
  const read = outlineRows(bare, rows, { language: 'en', isItem: (each) => items.has(each) });
  const wrong = read.rows.flatMap(({ row, problems }) =>
    problems.map(({ code, params }) => ({
      code,
      params: { ...params, where: `${String(row + 1)}: ` },
      field: 'rows',
    })),
  );
  if (wrong.length > 0 && !leave) return fail('invalid', ...wrong.slice(0, mostTold));
  const document = begunWith(bare, read.edit);
  if (document.features.length + document.parameters.length === 0)
    return fail('invalid', { code: 'draft.noRows', field: 'rows' });
  const numbering = [...document.numbering, ...document.features.map(numberedBy)];
  return done({
    sku,
    baseId: null,
    document: { ...document, features: document.features.map(coded), numbering },
  });
}

/** A model that has nothing yet, with all that an edit adds to it at once: one part after another takes seconds. */
function begunWith(bare: ModelDocument, edit: Edit): ModelDocument {
  const edits = edit.do === 'several' ? edit.edits : [edit];
  const added = (list: string): unknown[] =>
    edits.flatMap((each) => (each.do === 'add' && each.to.join('/') === list ? [each.part] : []));
  const rows = edits
    .flatMap((each) => (each.do === 'set' && each.name === 'rows' ? [each.value] : []))
    .at(-1);
  return {
    ...bare,
    features: added('features') as Feature[],
    parameters: added('parameters') as ModelDocument['parameters'],
    sections: bare.sections.map((section) => ({ ...section, rows: (rows ?? []) as string[] })),
  };
}

/** Options that have no letters for the number get free ones. */
function coded(feature: Feature): Feature {
  const taken = new Set(feature.options.flatMap(({ code }) => code ?? []));
  let next = 0;
  const free = (): string => {
    while (taken.has(letterAt(next))) next++;
    const code = letterAt(next);
    taken.add(code);
    return code;
  };
  return {
    ...feature,
    options: feature.options.map((each) => (each.code === undefined ? { ...each, code: free() } : each)),
  };
}

/** Items become features by family, each an option with its number as a code, priced by itself. */
async function ofItems({
  id,
  sku,
  title,
  skus,
}: Extract<NewDraftInput['from'], { is: 'items' }>): Promise<Result<Start>> {
  const known = await reference();
  const missing = skus.find((each) => !known.items.has(each));
  if (missing !== undefined)
    return fail('missing', { code: 'draft.noItem', params: { sku: missing }, field: 'skus' });
  const items = [...new Set(skus)].flatMap((each) => known.items.get(each) ?? []);
  const bare = bareDocument(id, title);
  const features = featuresOf(known, items);
  return done({
    sku,
    baseId: null,
    document: withFacts(known, {
      ...bare,
      features,
      sections: bare.sections.map((section) => ({ ...section, rows: features.map((each) => each.id) })),
      numbering: [...bare.numbering, ...features.map(numberedBy)],
    }),
  });
}

function featuresOf({ families }: Reference, items: readonly ItemRow[]): Feature[] {
  const ids = new Set<string>();
  return families.flatMap(({ code, name }) => {
    const own = items.filter(({ family }) => family === code);
    if (own.length === 0) return [];
    const options = new Set<string>();
    return [
      {
        id: freeId(code, ids),
        name,
        least: 1,
        most: 1,
        options: own.map((item, index) => ({
          id: freeId(item.sku, options),
          code: letterAt(index),
          name: item.name,
          item: item.sku,
        })),
      },
    ];
  });
}

/** An id made of a code: small letters and digits, beginning with a letter, that none before it has. */
function freeId(code: string, taken: Set<string>): string {
  const words = code
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter(Boolean);
  const joined = words
    .map((word, index) => (index === 0 ? word : word.charAt(0).toUpperCase() + word.slice(1)))
    .join('');
  const base = /^[a-z]/.test(joined) ? joined.slice(0, 34) : `a${joined}`.slice(0, 34);
  let id = base;
  for (let count = 2; taken.has(id); count++) id = base + String(count);
  taken.add(id);
  return id;
}

const letterAt = (index: number): string =>
  index < 26 ? String.fromCharCode(65 + index) : letterAt(Math.floor(index / 26) - 1) + letterAt(index % 26);

/** A document from outside: one of a model that is there continues it, another is a new model. */
async function ofDocument({
  sku,
  document: given,
}: Extract<NewDraftInput['from'], { is: 'document' }>): Promise<Result<Start>> {
  const problems = await askPatiently('compile', { document: given as ModelDocument });
  const [shape] = problems.filter(({ code }) => code === 'model.shape');
  if (shape || typeof given !== 'object' || given === null)
    return fail('invalid', {
      code: 'draft.badDocument',
      params: { path: shape?.path ?? '', what: String(shape?.params['what'] ?? '') },
      field: 'document',
    });
  const document = movedOn(given) as ModelDocument;
  const known = await reference();
  const own = known.models.find(({ id }) => id === document.id);
  if (own) {
    const base = inForceOn(known, document.id, today());
    return done({ sku: own.sku, baseId: base?.id ?? null, document });
  }
  return sku === undefined
    ? fail('invalid', { code: 'draft.noSku', field: 'sku' })
    : done({ sku, baseId: null, document });
}

/** The document with every model that its options bring, as it is in force today. */
export async function completed(document: ModelDocument): Promise<ModelDocument> {
  const known = await reference();
  const inside = new Set(
    document.features.flatMap(({ options }) => options.flatMap(({ model }) => model ?? [])),
  );
  const there = new Set((document.library?.models ?? []).map(({ id }) => id));
  const missing = [...inside].filter((id) => !there.has(id) && id !== document.id);
  const found = new Map<string, ModelDocument>();
  for (const id of missing) {
    const version = inForceOn(known, id, today());
    const row = version && (await versionRow(version.id));
    if (row) found.set(id, documentOf(row));
  }
  if (found.size === 0) return document;
  const inner = new Map(
    [...found.values()].flatMap((each) => (each.library?.models ?? []).map((model) => [model.id, model])),
  );
  return withLibrary(document, (id) => found.get(id) ?? inner.get(id)) as ModelDocument;
}
