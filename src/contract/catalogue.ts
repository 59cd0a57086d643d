/** The catalogue: what is sold, and what a field for an item's number proposes. */
import type { ItemProperty, PropertyValue } from '../core/items';
import type { Texts } from '../core/model';
import { endpoint, json } from './endpoint';
import { findQuery } from './schema';

/** An item as the catalogue shows it. */
export interface CatalogueItem {
  sku: string;
  family: string;
  name: Texts;
  kind: 'part' | 'model' | 'software' | 'service';
  unit: string;
  price?: string;
  leadDays: number;
  /** How many are meant where nobody says it. */
  usual: number;
  mass?: string;
  /** Only for those who may see costs. */
  cost?: string;
  /** Of a model: its id. */
  model?: string;
  /** What it says of the properties of its family. */
  properties: Readonly<Record<string, PropertyValue>>;
}

/** The catalogue at the prices of one list. */
export interface CatalogueView {
  /** With the properties by which their items can be found. */
  families: { code: string; name: Texts; properties: ItemProperty[] }[];
  items: CatalogueItem[];
  priceList: { code: string; name: Texts; currency: string; decimals: number };
}

/** An item as a field for its number proposes it. */
export interface ItemFound {
  sku: string;
  name: Texts;
  /** The model by which it is configured. */
  model?: string;
}

/** Endpoints of the catalogue. */
export const catalogue = {
  'GET /items': endpoint({
    says: 'Items that are sold by themselves, by any part of their number or name, or what was probably meant.',
    who: 'person',
    query: findQuery,
    answers: json<ItemFound[]>('ItemFound[]'),
  }),
};
