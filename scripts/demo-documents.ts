/** The demo's model documents as a compiler takes them: with the models that they name. */
import { readFileSync } from 'node:fs';
import { compileModel, withLibrary, type CompiledModel, type ModelDocument } from '../src/core/model';
import type { PriceEntry, Tariff } from '../src/core/pricing';

const read = (id: string): unknown => JSON.parse(readFileSync(new URL(`../demo/models/${id}.json`, import.meta.url), 'utf8'));

export const demoDocument = (id: string): ModelDocument => withLibrary(read(id), read) as ModelDocument;

export function demoModel(id: string): CompiledModel {
  const result = compileModel(demoDocument(id));
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.model;
}

/** Prices by the piece of the demo's list in a currency. */
export function demoTariff(currency: string): Tariff {
  const lists = JSON.parse(readFileSync(new URL('../demo/price-lists.json', import.meta.url), 'utf8')) as { code: string; currency: string; decimals: number; entries: Record<string, string | PriceEntry> }[];
  const list = lists.find((each) => each.currency === currency);
  if (!list) throw new Error(`the demo has no list in ${currency}`);
  const prices = Object.entries(list.entries).flatMap(([sku, entry]): [string, string][] => (typeof entry === 'string' ? [[sku, entry]] : entry.method === 'unit' ? [[sku, entry.price]] : []));
  return { list: list.code, currency, decimals: list.decimals, prices: Object.fromEntries(prices) };
}
