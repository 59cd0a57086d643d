/** Rows and tables of jobs and what makes them. */
import { DataTypes } from 'sequelize';
import { bool, instant, int, jsonb, key, now, ref, text, type Define } from './columns';

/** Where a job is: it waits for its time or turn, somebody works on it, or it is over. */
export type JobState = 'waiting' | 'running' | 'done' | 'failed' | 'stopped';

/** How far a job is: so many of so many, and what it is at. */
export interface JobProgress {
  done: number;
  of: number;
  at?: string;
}

/** Why a job failed: a code with the details of its sentence, or the message of a bug. */
export interface JobProblem {
  code: string;
  params?: Record<string, string | number>;
  bug?: string;
}

/** Work that is done apart from whoever asked for it. */
export interface JobRow {
  id: string;
  number?: string;
  kind: string;
  /** Jobs of one subject are done one after another, in the order in which they were asked for. */
  subject: string | null;
  /** While one is not over, there is no other of the same. */
  once: string | null;
  input: unknown;
  state: JobState;
  askedBy: string | null;
  /** Not before. */
  runAt: Date;
  tries: number;
  mostTries: number;
  /** Who works on it, until when they have it if they do not say that they still do. */
  worker: string | null;
  leaseUntil: Date | null;
  stopAsked: boolean;
  progress: JobProgress | null;
  /** What it has kept for going on after it was cut off. */
  kept: unknown;
  outcome: unknown;
  problem: JobProblem | null;
  madeAt: Date;
  beganAt: Date | null;
  endedAt: Date | null;
}

/** What makes jobs of a kind at certain times; the pattern is read in the zone. */
export interface JobScheduleRow {
  name: string;
  kind: string;
  pattern: string;
  zone: string;
  nextAt: Date;
}

/** Its tables. */
export const jobRecords = (table: Define) => ({
  jobs: table<JobRow>('jobs', {
    id: key(ref),
    number: DataTypes.BIGINT,
    kind: text,
    subject: text,
    once: text,
    input: jsonb,
    state: text,
    askedBy: ref,
    runAt: now(),
    tries: int,
    mostTries: int,
    worker: text,
    leaseUntil: instant,
    stopAsked: bool,
    progress: jsonb,
    kept: jsonb,
    outcome: jsonb,
    problem: jsonb,
    madeAt: now(),
    beganAt: instant,
    endedAt: instant,
  }),
  jobSchedules: table<JobScheduleRow>('job_schedules', {
    name: key(text),
    kind: text,
    pattern: text,
    zone: text,
    nextAt: instant,
  }),
});
