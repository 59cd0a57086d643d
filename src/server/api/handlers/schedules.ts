import type { schedules } from '../../../contract/all';
import { done } from '../../../services/kernel/failure';
import { scheduleFile } from '../../../services/schedules/files';
import { listSchedules } from '../../../services/schedules/find';
import { askForPackage } from '../../../services/schedules/package';
import {
  beginSchedule,
  changeSchedule,
  dropSchedule,
  keepPositions,
  scheduleLines,
  seeSchedule,
} from '../../../services/schedules/schedules';
import type { Handlers } from './handler';

/** What answers the endpoints of this room. */
export const schedulesHandlers: Handlers<typeof schedules> = {
  'GET /schedules': async ({ actor, query }) => done(await listSchedules(actor, query)),
  'POST /schedules': ({ actor, input }) => beginSchedule(actor, input),
  'GET /schedules/{id}': ({ actor, at }) => seeSchedule(actor, at.id),
  'PUT /schedules/{id}': ({ actor, at, input }) => changeSchedule(actor, at.id, input),
  'PUT /schedules/{id}/positions': ({ actor, at, input }) => keepPositions(actor, at.id, input),
  'POST /schedules/{id}/lines': ({ actor, at, input }) => scheduleLines(actor, at.id, input),
  'DELETE /schedules/{id}': ({ actor, at }) => dropSchedule(actor, at.id),
  'GET /schedules/{id}/file.{format}': ({ actor, at }) => scheduleFile(actor, at.id, at.format),
  'POST /schedules/{id}/package': ({ actor, at, input }) => askForPackage(actor, at.id, input),
};
