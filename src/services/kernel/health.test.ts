import { describe, expect, it } from 'vitest';
import { OutOfBudget } from '../../core/engine';
import { isBusy } from './health';
import { NotDone, TaskFailure } from './threads/pool';

describe('what may work a moment later', () => {
  it('is a job that was cut short, whichever thread says so; a bug in one is not', () => {
    const { name } = new OutOfBudget();
    expect(isBusy(new TaskFailure(name, 'cut short'))).toBe(true);
    expect((['gone', 'late', 'memory', 'full'] as const).every((why) => isBusy(new NotDone(why)))).toBe(true);
    expect(isBusy(new TaskFailure('TypeError', 'a bug'))).toBe(false);
    expect(isBusy(new Error('a bug'))).toBe(false);
  });
});
