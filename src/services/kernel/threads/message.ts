/** What travels between the server and its threads. */

/**
 * Something that a thread keeps between jobs and may have let go of: by its key, such as a version of a
 * model.
 */
export interface Need {
  kind: string;
  key: string;
}

/** A job on its way to a thread. */
export interface JobMessage {
  id: number;
  task: string;
  input: unknown;
  /** What the thread said it wants for this job. */
  provided?: { need: Need; value: unknown }[];
}

/** What a thread says of a job. */
export type ReplyMessage =
  | { id: number; is: 'done'; value: unknown }
  | { id: number; is: 'failed'; name: string; message: string; stack?: string | undefined }
  /** Cannot be done before these are there. */
  | { id: number; is: 'wants'; needs: Need[] }
  | { id: number; is: 'progress'; value: unknown };

/** Places in the shared memory of a thread. */
export const flag = { stop: 0 } as const;

/** What a thread is started with. */
export interface ThreadData {
  /** Its own flags. */
  flags: SharedArrayBuffer;
  /**
   * How many things somebody waits for: requests under way, and jobs in threads. Background threads stand
   * still while there are any.
   */
  urgent: SharedArrayBuffer;
  /** Whether this is such a background thread. */
  background: boolean;
}
