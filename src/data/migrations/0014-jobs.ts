import type { Migration } from './migration';

/**
 * Work that takes long, or comes later: jobs with their lease, and schedules that make them. Of what is not over
 * there is one job for one thing (`once`).
 */
export const jobs: Migration = {
  name: '0014-jobs',
  up: `
create table jobs (
  id uuid primary key,
  number bigint generated always as identity unique,
  kind text not null,
  subject text,
  once text,
  input jsonb not null,
  state text not null default 'waiting' check (state in ('waiting', 'running', 'done', 'failed', 'stopped')),
  asked_by uuid references users on delete set null,
  run_at timestamptz not null default now(),
  tries integer not null default 0,
  most_tries integer not null check (most_tries > 0),
  worker text,
  lease_until timestamptz,
  stop_asked boolean not null default false,
  progress jsonb,
  kept jsonb,
  outcome jsonb,
  problem jsonb,
  made_at timestamptz not null default now(),
  began_at timestamptz,
  ended_at timestamptz,
  constraint jobs_leased check ((state = 'running') = (worker is not null and lease_until is not null)),
  constraint jobs_ended check ((state in ('done', 'failed', 'stopped')) = (ended_at is not null))
);
create index jobs_due on jobs (run_at, number) where state in ('waiting', 'running');
create index jobs_subject on jobs (subject, number) where state in ('waiting', 'running') and subject is not null;
create unique index jobs_once on jobs (once) where state in ('waiting', 'running') and once is not null;
create index jobs_listed on jobs (state, number desc);
create table job_schedules (
  name text primary key,
  kind text not null,
  pattern text not null,
  zone text not null,
  next_at timestamptz not null
);
`,
};
