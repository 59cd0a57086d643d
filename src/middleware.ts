/**
 * Every request: who it is, whether it may come from where it comes from, and the headers that keep pages
 * safe.
 */
import islandScript from 'astro/runtime/server/astro-island.prebuilt.js';
import islandScriptDev from 'astro/runtime/server/astro-island.prebuilt-dev.js';
import loadScript from 'astro/runtime/client/load.prebuilt.js';
import { ISLAND_STYLES } from 'astro/runtime/server/astro-island-styles.js';
import type { APIContext } from 'astro';
import { defineMiddleware } from 'astro:middleware';
import { sentence } from './i18n/sentence';
import { browserLanguage, refused } from './server/api/answer';
import { isText } from './server/api/body';
import { sessionCookie } from './server/cookies';
import { answerPolicy, pagePolicy, plainHeaders } from './server/headers';
import { mayCome } from './server/origin';
import { sharePage } from './server/share-pages';
import { spend } from './server/visitors';
import type { Failure } from './services/kernel/failure';
import { isBusy } from './services/kernel/health';
import { startJobs } from './services/jobs/running';
import { log } from './services/kernel/log';
import { duringRequest, type RequestContext } from './services/kernel/request';
import { whoIs } from './services/access/sessions';

/** Pages reached without signing in; endpoints say it in the contract. */
const openPaths = new Set(['/sign-in', '/password']);
/** Whoever has the link of a share is in; what it shows is kept nowhere. */
const isShare = ({ pathname }: URL): boolean => pathname.startsWith('/s/');
const dev = import.meta.env.DEV;
const policy = pagePolicy([loadScript, dev ? islandScriptDev : islandScript], [ISLAND_STYLES]);

export const onRequest = defineMiddleware(async (context, next) => {
  const { request, cookies, url, locals } = context;
  startJobs();
  // Outside of our own server nobody has said who asks.
  locals.client = (locals as Partial<App.Locals>).client ?? {
    address: '127.0.0.1',
    secure: url.protocol === 'https:',
    host: request.headers.get('host') ?? url.host,
  };
  const carried: RequestContext = { signal: request.signal };
  return duringRequest(carried, async () => {
    try {
      if (!mayCome(request, locals.client))
        return secured(context, failed(context, 403, { code: 'request.otherOrigin' }));
      if (!isReadable(url))
        return secured(
          context,
          failed(context, 400, { code: isPage(url) ? 'request.unknown' : 'request.badText' }),
        );
      const token = cookies.get(sessionCookie)?.value;
      locals.actor = token ? await whoIs(token) : null;
      const theme = cookies.get('theme')?.value;
      locals.theme = theme === 'light' || theme === 'dark' ? theme : 'auto';
      if (isPage(url) && !locals.actor && !openPaths.has(url.pathname) && !isShare(url))
        return secured(context, context.redirect(`/sign-in?to=${encodeURIComponent(url.pathname)}`, 303));
      const response = isShare(url) ? await visited(context, next) : await next();
      const unknown =
        response.status === 404 &&
        !isPage(url) &&
        response.headers.get('content-type')?.startsWith('application/json') !== true;
      return secured(context, unknown ? failed(context, 404, { code: 'request.unknown' }) : response);
    } catch (thrown) {
      if (isBusy(thrown)) {
        log.warn({ busy: url.pathname, why: (thrown as Error).message });
        return secured(context, failed(context, 503, { code: 'request.busy', retryAfter: 2 }));
      }
      // A bug is written to the log whole; the person gets a sentence that tells nothing of the inside.
      log.error({ bug: thrown, actor: locals.actor?.id, path: url.pathname });
      return secured(context, failed(context, 500, { code: 'request.failed' }));
    }
  });
});

/** A page for whoever has its link. */
async function visited(context: APIContext, next: () => Promise<Response>): Promise<Response> {
  const { request, params, url, locals } = context;
  const wait = await spend(locals.client.address);
  if (wait > 0) return failed(context, 429, { code: 'shared.tooOften', retryAfter: wait });
  if (request.method !== 'GET') return next();
  // Nothing else of the address changes the page, so nothing else makes it be drawn anew.
  const said = url.searchParams.get('said') ?? '';
  const look = `${locals.theme} ${said === 'order' || said === 'received' ? said : ''}`;
  return sharePage({ token: params.token ?? '', look, signal: request.signal }, (seen) => {
    locals.shared = seen;
    return next();
  });
}

const isPage = ({ pathname }: URL): boolean => !pathname.startsWith('/api/') && !pathname.startsWith('/_');

/** An address whose parts can be kept as text. */
function isReadable({ pathname, searchParams }: URL): boolean {
  try {
    return (
      isText(decodeURIComponent(pathname)) &&
      [...searchParams].every(([name, value]) => isText(name) && isText(value))
    );
  } catch {
    return false;
  }
}

/** Says what went wrong, as JSON to programs and as a page to people. */
function failed({ url, request, locals }: APIContext, status: number, failure: Failure): Response {
  const language = locals.actor?.language ?? browserLanguage(request);
  if (!isPage(url)) return refused(status, [failure], language);
  const text = sentence(language, failure.code, failure.params);
  return new Response(
    `<!doctype html><html lang="${language}"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Iunctura</title><link rel="stylesheet" href="/plain.css"><main><h1>${text}</h1><p><a href="/">Iunctura</a></p></main></html>`,
    {
      status,
      headers: {
        'content-type': 'text/html; charset=utf-8',
        ...(failure.retryAfter === undefined ? {} : { 'retry-after': String(failure.retryAfter) }),
      },
    },
  );
}

function secured({ locals, request, url }: APIContext, response: Response): Response {
  const headers = new Headers(response.headers);
  for (const [name, value] of Object.entries(plainHeaders)) headers.set(name, value);
  const page = headers.get('content-type')?.startsWith('text/html') === true;
  if (page) {
    if (!dev) headers.set('content-security-policy', policy);
    // What a person sees is kept nowhere; a page for everybody may be kept, and is asked for again.
    headers.set(
      'cache-control',
      locals.actor || request.method !== 'GET' || response.status !== 200 || isShare(url)
        ? 'no-store'
        : 'public, max-age=0, must-revalidate',
    );
  } else if (!headers.has('content-security-policy')) headers.set('content-security-policy', answerPolicy);
  if (locals.client.secure) headers.set('strict-transport-security', 'max-age=31536000');
  return new Response(response.body, { status: response.status, statusText: response.statusText, headers });
}
