/** Rows and tables of site schedules. */
import { DataTypes } from 'sequelize';
import { int, key, money, now, ref, text, type Define } from './columns';

/** A site schedule; its version counts its changes. */
export interface ScheduleRow {
  id: string;
  number?: string;
  name: string;
  site: string;
  customerId: string | null;
  ownerId: string;
  version: number;
  madeAt: Date;
  updatedAt: Date;
  updatedBy: string;
}

/** A position; of a line of a quote, a build, an item, or of words alone. */
export interface SchedulePositionRow {
  id: string;
  scheduleId: string;
  position: number;
  tag: string;
  /** By which tags are told apart. */
  tagKey: string;
  area: string;
  quantity: string;
  remark: string;
  quoteId: string | null;
  lineOrigin: string | null;
  buildId: string | null;
  sku: string | null;
  words: string;
}

/** Its tables. */
export const schedulesRecords = (table: Define) => ({
  schedules: table<ScheduleRow>('schedules', {
    id: key(ref),
    number: DataTypes.BIGINT,
    name: text,
    site: text,
    customerId: ref,
    ownerId: ref,
    version: int,
    madeAt: now(),
    updatedAt: now(),
    updatedBy: ref,
  }),
  schedulePositions: table<SchedulePositionRow>('schedule_positions', {
    id: key(ref),
    scheduleId: ref,
    position: int,
    tag: text,
    tagKey: text,
    area: text,
    quantity: money,
    remark: text,
    quoteId: ref,
    lineOrigin: ref,
    buildId: ref,
    sku: text,
    words: text,
  }),
});
