/** Every request: who it is, whether it may come from where it comes from, and the headers that keep pages safe. */
import { createHash } from 'node:crypto';
import { defineMiddleware } from 'astro:middleware';
import { whoIs } from './services/sessions';

export const sessionCookie = 'iunctura';
const safeMethods = new Set(['GET', 'HEAD', 'OPTIONS']);
/** Reached without signing in. */
const openPaths = new Set(['/sign-in', '/api/session', '/api/health']);

export const onRequest = defineMiddleware(async (context, next) => {
  const { request, cookies, url, locals } = context;
  if (!safeMethods.has(request.method) && !sameOrigin(request, url)) {
    return secured(new Response(JSON.stringify({ failures: [{ code: 'request.otherOrigin', message: 'The request came from another site.' }] }), { status: 403, headers: { 'content-type': 'application/json' } }));
  }
  const token = cookies.get(sessionCookie)?.value;
  locals.actor = token ? await whoIs(token) : null;
  const theme = cookies.get('theme')?.value;
  locals.theme = theme === 'light' || theme === 'dark' ? theme : 'auto';
  const page = !url.pathname.startsWith('/api/') && !url.pathname.startsWith('/_');
  if (page && !locals.actor && !openPaths.has(url.pathname)) return secured(context.redirect(`/sign-in?to=${encodeURIComponent(url.pathname)}`));
  return secured(await next());
});

/** Browsers send Origin with every unsafe request; a request without one comes from no page. */
function sameOrigin(request: Request, url: URL): boolean {
  const origin = request.headers.get('origin');
  if (!origin) return true;
  try {
    return new URL(origin).host === (request.headers.get('host') ?? url.host);
  } catch {
    return false;
  }
}

async function secured(response: Response): Promise<Response> {
  const headers = new Headers(response.headers);
  headers.set('x-content-type-options', 'nosniff');
  headers.set('x-frame-options', 'DENY');
  headers.set('referrer-policy', 'same-origin');
  headers.set('permissions-policy', 'camera=(), microphone=(), geolocation=()');
  if (!headers.get('content-type')?.startsWith('text/html')) {
    return new Response(response.body, { status: response.status, statusText: response.statusText, headers });
  }
  // The page's own inline scripts are allowed by their hashes, nothing else inline.
  const html = await response.text();
  const hashes = [...html.matchAll(/<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g)].map((match) => `'sha256-${createHash('sha256').update(match[1] ?? '').digest('base64')}'`);
  const policy = ["default-src 'self'", `script-src 'self' ${[...new Set(hashes)].join(' ')}`, "style-src 'self' 'unsafe-inline'", "img-src 'self' data:", "font-src 'self'", "object-src 'none'", "base-uri 'none'", "frame-ancestors 'none'", "form-action 'self'"];
  headers.set('content-security-policy', policy.join('; '));
  headers.set('cache-control', 'no-store');
  headers.delete('content-length');
  return new Response(html, { status: response.status, statusText: response.statusText, headers });
}
