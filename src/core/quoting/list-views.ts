/** What lists show: quotes, orders, the catalogue, the Desk. */
import type { Texts } from '../model';
import type { Address, AskedSignOff } from './quote-views';
import type { ShownState } from './revisions';

export interface QuoteRow {
  id: string;
  number: string;
  title: string;
  customer: string;
  owner: string;
  /** Of the person who reads. */
  mine: boolean;
  state: ShownState;
  revision: number;
  net: string;
  currency: string;
  decimals: number;
  lines: number;
  /** Lines that cannot be sold as they stand. */
  problems: number;
  /** Somebody must sign it, or has been asked to. */
  signing?: 'needed' | 'asked';
  updatedAt: string;
  validUntil: string;
}

/** A page of a list, and how many rows there are in all. */
export interface Page<T> {
  rows: T[];
  /** From 0. */
  page: number;
  size: number;
  count: number;
}

export type QuotePage = Page<QuoteRow>;
export type OrderPage = Page<OrderRow>;

export interface OrderRow {
  id: string;
  number: string;
  quoteNumber: string;
  customer: string;
  net: string;
  currency: string;
  decimals: number;
  promised: string;
  createdAt: string;
  workOrders: number;
}

export interface WorkOrderView {
  id: string;
  number: string;
  title: Texts;
  partNumber: string;
  quantity: number;
  due: string;
  decisions: { name: Texts; value: Texts }[];
  materials: {
    item: string;
    name: Texts;
    unit: string;
    quantity: string;
    cut?: string;
    pieces?: string;
    special?: string;
  }[];
  /** The build that it makes, for its drawing. */
  buildId?: string;
  /** Warnings that were passed, by whom and why. */
  warnings: { text: Texts; by: string; reason: string }[];
  operations: { name: Texts; centre: string; centreName: Texts; setUp: string; run: string; text: Texts }[];
}

export interface OrderView extends OrderRow {
  quoteId: string;
  revision: number;
  createdBy: string;
  address: Address;
  contact: string;
  lines: { position: number; name: Texts; partNumber: string; quantity: number; net: string }[];
  workOrderList: WorkOrderView[];
}

export interface CatalogueItem {
  sku: string;
  family: string;
  name: Texts;
  kind: 'part' | 'model' | 'software' | 'service';
  unit: string;
  price?: string;
  leadDays: number;
  mass?: string;
  /** Only for those who may see costs. */
  cost?: string;
  /** Of a model: its id. */
  model?: string;
}

export interface CatalogueView {
  families: { code: string; name: Texts }[];
  items: CatalogueItem[];
  priceList: { code: string; name: Texts; currency: string; decimals: number };
}

export interface DeskView {
  /** Whose quotes these are: the person's own, or those of all whose quotes the person may see. */
  whose: 'mine' | 'team';
  /** The first of those that may still be won. */
  quotes: QuoteRow[];
  /** How many there are in all. */
  count: number;
  orders: OrderRow[];
  /** Sign-offs asked of the person. */
  asked: AskedSignOff[];
  /** In EUR. `weight` is the share of open quotes that is counted. */
  quota?: { target: string; won: string; open: string; weight: string };
}

/** An item as a field for its number proposes it. */
export interface ItemFound {
  sku: string;
  name: Texts;
  /** The model by which it is configured. */
  model?: string;
}
