/** Orders and what the plant makes of them. */
import { object } from 'yup';
import type { Texts } from '../core/model';
import type { Address } from './customers';
import { endpoint, json } from './endpoint';
import { find, page, type Page, type Sent } from './schema';

/** Which orders are asked for. */
export const orderListInput = object({ find, page });
/** What passes `orderListInput`. */
export type OrderListQuery = Sent<typeof orderListInput>;

/** An order as a list shows it; `promised` is a day. */
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
/** A page of orders. */
export type OrderPage = Page<OrderRow>;

/** What the plant makes for one line: material and operations, quantities as decimals. */
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

/** An order, all of it. */
export interface OrderView extends OrderRow {
  quoteId: string;
  revision: number;
  createdBy: string;
  address: Address;
  contact: string;
  lines: { position: number; name: Texts; partNumber: string; quantity: number; net: string }[];
  workOrderList: WorkOrderView[];
}

/** Endpoints of orders. */
export const orders = {
  'GET /orders': endpoint({
    says: 'A page of the orders that the person may see, the newest first.',
    who: 'person',
    query: orderListInput,
    answers: json<OrderPage>('OrderPage'),
  }),
};
