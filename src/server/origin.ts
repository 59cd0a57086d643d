import type { Client } from './client';

const safeMethods: ReadonlySet<string> = new Set(['GET', 'HEAD']);

/**
 * Whether a request may come from where it comes from. Browsers send Origin or Sec-Fetch-Site with every
 * unsafe request; one without either comes from a program, which has no cookies that it was not given.
 */
export function mayCome(request: Request, { secure, host }: Pick<Client, 'secure' | 'host'>): boolean {
  if (safeMethods.has(request.method)) return true;
  const origin = request.headers.get('origin');
  if (origin !== null) return origin === `${secure ? 'https' : 'http'}://${host}`;
  const site = request.headers.get('sec-fetch-site');
  return site === null || site === 'same-origin' || site === 'none';
}
