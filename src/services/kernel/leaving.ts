/**
 * What is to be brought to an end before the process goes. The server in front and the application are bundled
 * apart, so that they meet at the process.
 */
const event = 'iunctura:leaving';

/** Does something before the process goes, which waits for it. */
export const beforeLeaving = (work: () => Promise<unknown>): void => {
  process.on(event, (waits: Promise<unknown>[]) => waits.push(work()));
};

/** Brings everything to an end. */
export async function leaveAll(): Promise<void> {
  const waits: Promise<unknown>[] = [];
  process.emit(event as never, waits as never);
  await Promise.allSettled(waits);
}
