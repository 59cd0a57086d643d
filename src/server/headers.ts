/** The headers that keep pages safe, on everything that leaves the server. */
import { createHash } from 'node:crypto';

/** On files and answers alike. */
export const plainHeaders: Readonly<Record<string, string>> = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'permissions-policy': 'camera=(), microphone=(), geolocation=()',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
};

const hashOf = (text: string): string => `'sha256-${createHash('sha256').update(text).digest('base64')}'`;

/**
 * What a page may load and run: what was built, and of inline scripts and styles just the given ones, by
 * their hashes. What a page happens to contain never widens it. Attributes of style are allowed, since the
 * components place things with them.
 */
export function pagePolicy(scripts: readonly string[], styles: readonly string[]): string {
  return [
    "default-src 'self'",
    `script-src 'self' ${scripts.map(hashOf).join(' ')}`,
    `style-src 'self' ${styles.map(hashOf).join(' ')}`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
    "form-action 'self'",
  ].join('; ');
}

/** Of answers that are no pages: nothing in them is ever run. */
export const answerPolicy = "default-src 'none'; frame-ancestors 'none'";
