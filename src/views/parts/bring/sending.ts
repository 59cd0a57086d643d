/** Sending a file with what is known of how far it is. */
import type { FileView } from '../../../contract';
import { addressOf, type Answer, type Refusal } from '../../api';

/** A file on its way. */
export interface Sending {
  answer: Promise<Answer<FileView>>;
  stop: () => void;
}

/**
 * Sends a file; `far` is told how much of it is there, from 0 to 1. Status 0 where the server was not reached or
 * it was stopped.
 */
export function sendFile(file: File, far: (part: number) => void): Sending {
  const request = new XMLHttpRequest();
  const answer = new Promise<Answer<FileView>>((done) => {
    const lost = (): void => done({ ok: false, status: 0, failures: [] });
    request.open('POST', addressOf('POST /files', { query: { name: file.name } }));
    request.setRequestHeader('content-type', 'application/octet-stream');
    request.upload.addEventListener('progress', ({ loaded, total }) => far(total > 0 ? loaded / total : 0));
    request.addEventListener('load', () => done(answerIn(request)));
    for (const end of ['error', 'abort', 'timeout']) request.addEventListener(end, lost);
    request.send(file);
  });
  return { answer, stop: () => request.abort() };
}

function answerIn({ status, responseText }: XMLHttpRequest): Answer<FileView> {
  let given: unknown = null;
  try {
    given = JSON.parse(responseText);
  } catch {
    // What is no answer of ours has no sentence either.
  }
  if (status >= 200 && status < 300) return { ok: true, value: given as FileView };
  return { ok: false, status, failures: (given as { failures?: Refusal[] } | null)?.failures ?? [] };
}
