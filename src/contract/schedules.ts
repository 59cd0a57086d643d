/** Site schedules: what stands where on a site, with its package. */
import { array, lazy, object, string } from 'yup';
import type { Texts } from '../core/model';
import { longest, mostPositions, type Position, type PositionOf } from '../core/schedule';
import { endpoint, file, json } from './endpoint';
import type { AskedJob } from './prices';
import type { ShelvedView } from './shelf';
import { exactly, find, flag, id, named, oneOf, optionalId, page, said, version, type Sent } from './schema';

const name = said(120, 'schedule.noName');
const site = string().trim().max(200, 'input.tooLong').default('');

/** A new schedule; with the lines of a quote where one is named. */
export const newScheduleInput = exactly({
  name,
  site,
  customer: optionalId.nullable().optional(),
  quote: optionalId.nullable().optional(),
});
/** What passes `newScheduleInput`. */
export type NewScheduleInput = Sent<typeof newScheduleInput>;

/** What is said of the whole of it. */
export const scheduleHeadInput = exactly({ version, name, site, customer: optionalId.nullable().optional() });
/** What passes `scheduleHeadInput`. */
export type ScheduleHeadInput = Sent<typeof scheduleHeadInput>;

const of = lazy((given: unknown) => {
  switch ((given as { is?: unknown } | null)?.is) {
    case 'line':
      return exactly({
        is: oneOf(['line'], 'input.badKind').required('input.required'),
        quote: id,
        line: id,
      });
    case 'build':
      return exactly({ is: oneOf(['build'], 'input.badKind').required('input.required'), build: id });
    case 'item':
      return exactly({ is: oneOf(['item'], 'input.badKind').required('input.required'), sku: named(40) });
    default:
      return exactly({
        is: oneOf(['words'], 'input.badKind').required('input.required'),
        text: string().strict().max(longest.words, 'input.tooLong').defined('input.required'),
      });
  }
});
const positionRow = exactly({
  tag: named(longest.tag),
  area: string().strict().max(longest.area, 'input.tooLong').defined('input.required'),
  quantity: string()
    .strict()
    .matches(/^\d{1,9}(\.\d{1,3})?$/, 'schedule.noQuantity')
    .required('schedule.noQuantity'),
  remark: string().strict().max(longest.remark, 'input.tooLong').defined('input.required'),
  of,
});
/** All positions in their order, all or none. */
export const positionsInput = exactly({
  version,
  rows: array().strict().of(positionRow).max(mostPositions, 'input.tooMany').required('input.required'),
});
/** What passes `positionsInput`: a position is of one of four things. */
export interface PositionsInput {
  version: number;
  rows: (Position & { of: PositionOf })[];
}

/** Lines of a quote that become positions: all that are none yet. */
export const scheduleLinesInput = exactly({ version, quote: id });
/** What passes `scheduleLinesInput`. */
export type ScheduleLinesInput = Sent<typeof scheduleLinesInput>;

/** How a package is wanted. */
export const packageInput = exactly({
  as: oneOf(['zip', 'pdf'], 'input.badKind').required('input.required'),
  language: oneOf(['en', 'de'], 'input.badKind').required('input.required'),
  drawings: flag.required('input.required'),
  dataSheets: flag.required('input.required'),
});
/** What passes `packageInput`. */
export type PackageInput = Sent<typeof packageInput>;

/** Which schedules are asked for. */
export const schedulesQuery = object({ find, page });
/** A schedule in a list. */
export interface ScheduleRowView {
  id: string;
  name: string;
  site: string;
  customer: string;
  owner: string;
  positions: number;
  /** A moment in ISO form. */
  updatedAt: string;
}

/** Schedules, the last changed first. */
export interface SchedulePage {
  rows: ScheduleRowView[];
  page: number;
  size: number;
  count: number;
}

/** A position with what it is of, as that stands by now. */
export interface PositionView extends Position {
  id: string;
  of: PositionOf;
  name: Texts;
  /** Part number of a build, number of an item; empty for words. */
  number: string;
  /** The build that it is by now, to look at. */
  build: string | null;
  /** Number of the quote that it is on. */
  quote: string | null;
  /** Its line, build or item is no more. */
  gone: boolean;
  /** Its build is not decided to its end. */
  unfinished: boolean;
}

/** A schedule. */
export interface ScheduleView {
  id: string;
  version: number;
  name: string;
  site: string;
  customer: { id: string; name: string } | null;
  owner: string;
  positions: PositionView[];
  /** Quotes of the customer, whose lines can be taken. */
  quotes: { id: string; number: string; title: string }[];
  /** Packages that were made of it, the newest first. */
  packages: ShelvedView[];
  may: { edit: boolean };
}

const schedule = json<ScheduleView>('ScheduleView');

/** Endpoints of schedules. */
export const schedules = {
  'GET /schedules': endpoint({
    says: 'Site schedules, the last changed first.',
    who: 'person',
    query: schedulesQuery,
    answers: json<SchedulePage>('SchedulePage'),
  }),
  'POST /schedules': endpoint({
    says: 'Begins a site schedule, with the lines of a quote where one is named.',
    who: 'quotes',
    input: newScheduleInput,
    answers: schedule,
  }),
  'GET /schedules/{id}': endpoint({
    says: 'A site schedule with its positions as they stand by now.',
    who: 'person',
    answers: schedule,
  }),
  'PUT /schedules/{id}': endpoint({
    says: 'Changes the name, site or customer of a schedule.',
    who: 'quotes',
    input: scheduleHeadInput,
    answers: schedule,
  }),
  'PUT /schedules/{id}/positions': endpoint({
    says: 'Keeps all positions in their order, all or none.',
    who: 'quotes',
    input: positionsInput,
    most: 4 * 1024 * 1024,
    answers: schedule,
  }),
  'POST /schedules/{id}/lines': endpoint({
    says: 'Takes lines of a quote that are no positions yet.',
    who: 'quotes',
    input: scheduleLinesInput,
    answers: schedule,
  }),
  'DELETE /schedules/{id}': endpoint({
    says: 'Takes a schedule away; packages that were made of it go with it.',
    who: 'quotes',
    answers: json<null>('null'),
  }),
  'GET /schedules/{id}/file.{format}': endpoint({
    says: 'The schedule as a document (pdf), or its rows for spreadsheets (xlsx, csv), as they are taken in again.',
    who: 'person',
    answers: file,
  }),
  'POST /schedules/{id}/package': endpoint({
    says: 'Makes the specification package in the background: cover, schedule, a sheet of each position, data sheets.',
    who: 'quotes',
    input: packageInput,
    answers: json<AskedJob>('AskedJob'),
  }),
};
