/** Who a client is taken for, from where requests may come, and what a page may run. */
import { createHash } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { describe, expect, it } from 'vitest';
import { clientReader } from './client';
import { answerPolicy, pagePolicy } from './headers';
import { mayCome } from './origin';

const request = (remoteAddress: string, headers: Record<string, string> = {}): IncomingMessage =>
  ({
    socket: { remoteAddress },
    connection: { remoteAddress },
    headers: { host: 'inside:4600', ...headers },
  }) as unknown as IncomingMessage;
const forwarded = {
  'x-forwarded-for': '203.0.113.9, 198.51.100.7',
  'x-forwarded-proto': 'https',
  'x-forwarded-host': 'iunctura.harrowmoor.example',
};

describe('the client', () => {
  it('is who is at the other end, whatever the headers say, where no proxy is trusted', () => {
    expect(clientReader(undefined)(request('198.51.100.7', forwarded))).toEqual({
      address: '198.51.100.7',
      secure: false,
      host: 'inside:4600',
    });
    expect(clientReader(' , ')(request('127.0.0.1', forwarded))).toEqual({
      address: '127.0.0.1',
      secure: false,
      host: 'inside:4600',
    });
  });

  it('is the nearest one that is no trusted proxy, with the scheme and host that the proxy says', () => {
    const read = clientReader('loopback, 198.51.100.0/24');
    expect(read(request('127.0.0.1', forwarded))).toEqual({
      address: '203.0.113.9',
      secure: true,
      host: 'iunctura.harrowmoor.example',
    });
    // What somebody in front of the proxy made up stands further left, and is not believed.
    expect(clientReader('127.0.0.1')(request('127.0.0.1', forwarded)).address).toBe('198.51.100.7');
    expect(read(request('192.0.2.1', forwarded))).toEqual({
      address: '192.0.2.1',
      secure: false,
      host: 'inside:4600',
    });
  });

  it('that says http first and the proxy https last, is secure by the last', () => {
    expect(
      clientReader('127.0.0.1')(request('127.0.0.1', { 'x-forwarded-proto': 'http, https' })).secure,
    ).toBe(true);
    expect(
      clientReader('127.0.0.1')(request('127.0.0.1', { 'x-forwarded-proto': 'https, http' })).secure,
    ).toBe(false);
  });
});

describe('a request', () => {
  const come = (method: string, headers: Record<string, string>, secure = true) =>
    mayCome(new Request('http://x/', { method, headers }), { secure, host: 'iunctura.example' });

  it('that reads may come from anywhere', () => {
    expect(come('GET', { origin: 'https://elsewhere.example' })).toBe(true);
  });

  it('that changes something comes from our own pages, scheme and port included, or from a program', () => {
    expect(come('POST', { origin: 'https://iunctura.example' })).toBe(true);
    expect(come('POST', {})).toBe(true);
    expect(come('DELETE', { 'sec-fetch-site': 'none' })).toBe(true);
    for (const origin of [
      'http://iunctura.example',
      'https://iunctura.example:8443',
      'https://sub.iunctura.example',
      'null',
      'nonsense',
    ])
      expect([origin, come('POST', { origin })]).toEqual([origin, false]);
    for (const site of ['cross-site', 'same-site'])
      expect([site, come('PATCH', { 'sec-fetch-site': site })]).toEqual([site, false]);
    expect(come('POST', { origin: 'https://iunctura.example' }, false)).toBe(false);
  });
});

describe('the policy', () => {
  it('lets the given scripts and styles run by their digests, and nothing else inline', () => {
    const policy = pagePolicy(['let a = 1'], ['b{}']);
    expect(policy).toContain(
      `script-src 'self' 'sha256-${createHash('sha256').update('let a = 1').digest('base64')}';`,
    );
    expect(/script-src[^;]*unsafe/.test(policy)).toBe(false);
    expect(/style-src [^;]*unsafe/.test(policy)).toBe(false);
    expect(policy).toContain("frame-ancestors 'none'");
    expect(answerPolicy).toContain("default-src 'none'");
  });
});
