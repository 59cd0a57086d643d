/**
 * Asking the threads of engines: one for what somebody waits for, and one behind it for what takes as long as
 * it takes.
 */
import { QueryTypes } from 'sequelize';
import { connected } from '../../data';
import { patiently } from './request';
import type { Supposed } from '../settings/supposed';
import { fullTariff, itemFacts, sinceWhen } from '../settings/tariffs';
import { Pool } from './threads/pool';
import type { EngineTasks } from './threads/tasks';
import type { Need } from './threads/message';
import { Recent } from './threads/recent';
import { reference } from '../settings/reference-data';

const quick = new Pool({ file: 'engines', deadline: 30_000, memory: 1_500 });
const patient = new Pool({ file: 'engines', deadline: 60_000, memory: 1_500, background: true, most: 50 });

/** Documents as they are kept, so that a thread that let go of a model need not wait for the database. */
const documents = new Recent<string>(60_000_000);

/** Names a draft of a model for the threads, as it is written by now. */
export const draftKey = (id: string, hash: string): string => `draft ${id} ${hash}`;

async function documentOf(version: string): Promise<string> {
  const known = documents.get(version);
  if (known !== undefined) return known;
  const [, draft, hash] = /^draft (\S+) (\S+)$/.exec(version) ?? [];
  const [row] = await connected().sequelize.query<{ document: string }>(
    draft === undefined
      ? 'select document::text as document from model_versions where id = $1'
      : 'select document::text as document from model_drafts where id = $1 and hash = $2',
    { bind: draft === undefined ? [version] : [draft, hash], type: QueryTypes.SELECT },
  );
  if (!row) throw new Error(`model version ${version} is gone`);
  documents.set(version, row.document, row.document.length);
  return row.document;
}

/** Names a price list on a day for the threads, as it is now: the same for all days on which it is the same. */
export async function tariffKey(list: string, day: string, supposed?: Supposed): Promise<string> {
  const known = await reference();
  const since = supposed ? day : sinceWhen(known, list, day);
  return JSON.stringify([known.stamp, list, since, ...(supposed ? [supposed] : [])]);
}

/** Names how long items take and what they weigh, as it is now. */
export const factsKey = async (): Promise<string> => (await reference()).stamp;

async function provide({ kind, key }: Need): Promise<unknown> {
  if (kind === 'model') return documentOf(key);
  if (kind === 'facts') return itemFacts();
  const [, list, day, supposed] = JSON.parse(key) as [string, string, string, Supposed?];
  return fullTariff(list, day, supposed);
}

type Input<K extends keyof EngineTasks> = Parameters<EngineTasks[K]>[0];
type Output<K extends keyof EngineTasks> = Awaited<ReturnType<EngineTasks[K]>>;

/** Has an engine do something that somebody waits for. */
export const askEngine = <K extends keyof EngineTasks>(
  task: K,
  input: Input<K>,
  progress?: (value: unknown) => void,
): Promise<Output<K>> => quick.run<Output<K>>(task, input, { provide, ...(progress ? { progress } : {}) });

/** Has an engine do something that may take long: it stands still while somebody waits for something else. */
export const askPatiently = <K extends keyof EngineTasks>(
  task: K,
  input: Input<K>,
  progress?: (value: unknown) => void,
): Promise<Output<K>> =>
  patiently(() => patient.run<Output<K>>(task, input, { provide, ...(progress ? { progress } : {}) }));
