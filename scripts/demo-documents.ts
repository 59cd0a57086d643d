/** The demo's model documents as a compiler takes them: with the models that they name. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { compileModel, withLibrary, type CompiledModel, type ModelDocument } from '../src/core/model';
import { tariffFrom, type Tariff } from '../src/core/pricing';
import { entryOfFile, type EntryFile } from '../src/services/demo/demo-entries';

const read = (id: string): unknown =>
  JSON.parse(readFileSync(join(import.meta.dirname, `../demo/models/${id}.json`), 'utf8'));

export const demoDocument = (id: string): ModelDocument => withLibrary(read(id), read) as ModelDocument;

export function demoModel(id: string): CompiledModel {
  const result = compileModel(demoDocument(id));
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.model;
}

/** The demo's list in a currency, without costs. */
export function demoTariff(currency: string): Tariff {
  const file = <T>(name: string): T =>
    JSON.parse(readFileSync(new URL(`../demo/${name}.json`, import.meta.url), 'utf8')) as T;
  const list = file<
    {
      code: string;
      currency: string;
      decimals: number;
      entries: Record<string, string | EntryFile>;
      inside?: Record<string, Record<string, string>>;
    }[]
  >('price-lists').find((each) => each.currency === currency);
  if (!list) throw new Error(`the demo has no list in ${currency}`);
  const items = file<{ sku: string; family: string; kind: string }[]>('items').map(
    ({ sku, family, kind }) => ({ sku, family, kind }),
  );
  const heads: Readonly<Record<string, string>> = {
    'QUARRY-GATE': 'quarryGate',
    'FARM-DRIVE': 'farmDriveOver',
  };
  const inside = Object.entries(list.inside ?? {}).flatMap(([head, own]) =>
    Object.entries(own).map(([sku, price]) => ({ sku, ...entryOfFile(price), inside: heads[head] ?? head })),
  );
  return tariffFrom(
    { list: list.code, currency, decimals: list.decimals },
    [...Object.entries(list.entries).map(([sku, entry]) => ({ sku, ...entryOfFile(entry) })), ...inside],
    items,
  );
}
