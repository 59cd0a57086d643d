/** Rows and tables of orders and work orders. */
import { DataTypes } from 'sequelize';
import type { Texts } from '../../core/model';
import type { MaterialNeed, OperationStep } from '../../core/production';
import { key, text, int, jsonb, day, ref, now, type Define } from './columns';

/** An order. */
export interface OrderRow {
  id: string;
  number: string;
  quoteId: string;
  revisionId: string;
  currency: string;
  net: string;
  promised: string;
  createdAt?: Date;
  createdBy: string;
}

/** What the plant makes for one line. */
export interface WorkOrderRow {
  id: string;
  number: string;
  orderId: string;
  lineId: string;
  title: Texts;
  partNumber: string;
  quantity: number;
  decisions: { name: Texts; value: Texts }[];
  /** `special`: what takes the place of the item, in words. */
  materials: (MaterialNeed & { special?: string })[];
  operations: OperationStep[];
  due: string;
}

/** Its tables. */
export const ordersRecords = (table: Define) => ({
  orders: table<OrderRow>('orders', {
    id: key(ref),
    number: text,
    quoteId: ref,
    revisionId: ref,
    currency: text,
    net: DataTypes.DECIMAL,
    promised: day,
    createdAt: now(),
    createdBy: ref,
  }),
  workOrders: table<WorkOrderRow>('work_orders', {
    id: key(ref),
    number: text,
    orderId: ref,
    lineId: ref,
    title: jsonb,
    partNumber: text,
    quantity: int,
    decisions: jsonb,
    materials: jsonb,
    operations: jsonb,
    due: day,
  }),
});
