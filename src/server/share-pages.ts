/**
 * Pages behind shares. Whoever has a link comes without signing in, and a hundred may come at once; those who
 * work here must not wait for them. So each address comes so often at most, pages are made in turns, and a
 * page that shows the same as before is not drawn again.
 */
import { Recent } from '../services/kernel/threads/recent';
import { Turns } from '../services/kernel/turns';
import type { Result } from '../services/kernel/failure';
import type { SharedView } from '../contract';
import { seeShared } from '../services/shares/shared';

interface Drawn {
  /** Never changes while it is the same object. */
  document: SharedView['document'];
  /** All else of the view, as text. */
  state: string;
  html: string;
}

const drawn = new Recent<Drawn>(40_000_000);
const turns = new Turns({ rest: 1.5, waiting: 1_000 });

/** The page of a share to whoever opens it: `draw` makes it of what it is to show. */
export const sharePage = (
  { token, look, signal }: { token: string; look: string; signal: AbortSignal },
  draw: (seen: Result<SharedView>) => Promise<Response>,
): Promise<Response> =>
  turns.take(async () => {
    const seen = await seeShared(token);
    if (!seen.ok) return whole(await draw(seen));
    const { document, ...rest } = seen.value;
    const state = JSON.stringify(rest);
    const key = `${token} ${look}`;
    const before = drawn.get(key);
    if (before?.document === document && before.state === state) return page(before.html);
    const response = await draw(seen);
    if (response.status !== 200) return whole(response);
    const html = await response.text();
    drawn.set(key, { document, state, html }, html.length + state.length);
    return page(html, response.headers);
  }, signal);

/** Drawn to its end within its turn. */
async function whole(response: Response): Promise<Response> {
  return new Response(await response.text(), { status: response.status, headers: response.headers });
}

const page = (html: string, headers?: Headers): Response => {
  const response = new Response(html, { headers: headers ?? { 'content-type': 'text/html; charset=utf-8' } });
  response.headers.set('x-robots-tag', 'noindex, nofollow');
  return response;
};
