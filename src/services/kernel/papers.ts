/**
 * Asking the thread that writes and reads files: whatever a file contains, it costs that thread's memory and
 * time, and nobody else's.
 */
import { fail, type Result } from './failure';
import type { PaperTasks } from './threads/paper-tasks';
import { NotDone, Pool } from './threads/pool';

const papers = new Pool({ file: 'papers', deadline: 30_000, memory: 512 });
/** For what takes long, so that nobody who wants a few pages waits for somebody who wants hundreds. */
const longPapers = new Pool({ file: 'papers', deadline: 90_000, memory: 1_024 });

/** The same in a thread of its own, for what may take long. */
export const askLongPapers = <K extends keyof PaperTasks>(
  task: K,
  input: Parameters<PaperTasks[K]>[0],
): Promise<Awaited<ReturnType<PaperTasks[K]>>> => longPapers.run(task, input);

/** Has a file made or read in the thread for files. */
export const askPapers = <K extends keyof PaperTasks>(
  task: K,
  input: Parameters<PaperTasks[K]>[0],
): Promise<Awaited<ReturnType<PaperTasks[K]>>> => papers.run(task, input);

/**
 * A file from outside that took more memory or time than there is for one is refused like any other that
 * cannot be read.
 */
export async function readingFile<T>(work: () => Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await work();
  } catch (thrown) {
    if (thrown instanceof NotDone && (thrown.why === 'memory' || thrown.why === 'late'))
      return fail('invalid', { code: 'file.tooMuch' });
    throw thrown;
  }
}
