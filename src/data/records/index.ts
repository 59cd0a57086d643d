/**
 * The tables as Sequelize models with typed rows, by room. Numeric columns arrive as decimal text, never as
 * binary floats.
 */
import type { ModelAttributes, Sequelize } from 'sequelize';
import { accessRecords } from './access';
import { customersRecords } from './customers';
import { catalogueRecords } from './catalogue';
import { settingsRecords } from './settings';
import { modelsRecords } from './models';
import { buildsRecords } from './builds';
import { quotesRecords } from './quotes';
import { signOffsRecords } from './sign-offs';
import { ordersRecords } from './orders';
import { auditRecords } from './audit';
import { jobRecords } from './jobs';
import { fileRecords } from './files';
import { paperRecords } from './paper';
import { sendingRecords } from './sending';
import { colleaguesRecords } from './colleagues';
import { schedulesRecords } from './schedules';
import type { Table } from './columns';

export type * from './access';
export type * from './customers';
export type * from './catalogue';
export type * from './settings';
export type * from './models';
export type * from './builds';
export type * from './quotes';
export type * from './sign-offs';
export type * from './orders';
export type * from './audit';
export type * from './jobs';
export type * from './files';
export type * from './paper';
export type * from './sending';
export type * from './colleagues';
export type * from './schedules';
export type { Stored, Table } from './columns';

/** All tables, bound to a database. */
export function defineRecords(sequelize: Sequelize) {
  const table = <T extends object>(tableName: string, columns: ModelAttributes): Table<T> =>
    sequelize.define(tableName, columns, { tableName, timestamps: false }) as unknown as Table<T>;
  return {
    ...accessRecords(table),
    ...customersRecords(table),
    ...catalogueRecords(table),
    ...settingsRecords(table),
    ...modelsRecords(table),
    ...buildsRecords(table),
    ...quotesRecords(table),
    ...signOffsRecords(table),
    ...ordersRecords(table),
    ...auditRecords(table),
    ...jobRecords(table),
    ...fileRecords(table),
    ...paperRecords(table),
    ...sendingRecords(table),
    ...colleaguesRecords(table),
    ...schedulesRecords(table),
  };
}

/** All tables. */
export type Records = ReturnType<typeof defineRecords>;
