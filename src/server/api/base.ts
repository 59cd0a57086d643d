/** Where the application is reached from outside, for links that leave it. */
import type { APIContext } from 'astro';

/** PUBLIC_URL where it is set, such as https://scales.example; else where this request came to. */
export function baseOf({ locals: { client } }: Pick<APIContext, 'locals'>): string {
  const set = process.env.PUBLIC_URL;
  if (set && URL.canParse(set)) return new URL(set).origin;
  return `${client.secure ? 'https' : 'http'}://${client.host}`;
}
