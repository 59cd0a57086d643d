import { describe, expect, it } from 'vitest';
import type { JobView } from '../../../contract';
import { translator } from '../../../i18n';
import { cameOf, farOf, whatOf } from './job-words';

const job: JobView = {
  id: 'a',
  kind: 'house.facts',
  subject: null,
  state: 'done',
  stopping: false,
  by: null,
  madeAt: '2026-03-01T10:00:00.000Z',
  runAt: '2026-03-01T10:00:00.000Z',
  beganAt: null,
  endedAt: null,
  tries: 1,
  mostTries: 3,
  progress: null,
  problem: null,
  outcome: { wrong: 0, quotes: '' },
};
const t = translator('en');

describe('a job in words', () => {
  it('is its work, and what it is about', () => {
    expect(whatOf(job, t)).toBe('Check lists against prices');
    expect(whatOf({ kind: 'some.newer', subject: 'Q-26-0001' }, t)).toBe('some.newer: Q-26-0001');
  });

  it('is as far as it says', () => {
    expect(farOf(job, t)).toBe('');
    expect(farOf({ ...job, progress: { done: 3, of: 20 } }, t)).toBe('3 of 20');
    expect(farOf({ ...job, progress: { done: 3, of: 20, at: 'Q-26-0004' } }, t)).toBe('3 of 20, Q-26-0004');
  });

  it('tells what came of it', () => {
    expect(cameOf(job, t, 'en')).toBe('All as pricing says');
    const outcome = { wrong: 2, quotes: 'Q-26-0004, Q-26-0007' };
    expect(cameOf({ ...job, outcome }, t, 'en')).toBe('2 put right: Q-26-0004, Q-26-0007');
    expect(cameOf({ ...job, state: 'running', outcome: null }, t, 'en')).toBe('');
  });

  it('tells what went wrong, and when it is tried again', () => {
    const problem = { code: 'job.bug', bug: 'the disk is full' };
    expect(cameOf({ ...job, state: 'failed', problem }, t, 'en')).toBe('It went wrong: the disk is full');
    expect(cameOf({ ...job, state: 'waiting', problem }, t, 'en')).toMatch(
      /^It went wrong: the disk is full · Tried again 01 Mar/,
    );
    expect(cameOf({ ...job, state: 'failed', problem: { code: 'job.lost' } }, t, 'en')).toMatch(/went away/);
  });
});
