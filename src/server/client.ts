/** Who is at the other end of a connection, also behind proxies that are trusted. */
import type { IncomingMessage } from 'node:http';
import proxyAddress from 'proxy-addr';

/** Who is at the other end. */
export interface Client {
  address: string;
  /** It came by TLS, here or at the proxy before us. */
  secure: boolean;
  /** The host it asked for. */
  host: string;
}

/**
 * Addresses or networks (`10.0.0.0/8`, `loopback`) whose word on the client is taken, separated by commas.
 */
export function clientReader(trusted: string | undefined): (request: IncomingMessage) => Client {
  const networks = (trusted ?? '')
    .split(',')
    .map((each) => each.trim())
    .filter(Boolean);
  const trusts = proxyAddress.compile(networks);
  return (request) => {
    const near = request.socket.remoteAddress ?? '';
    const direct: Client = {
      address: near,
      secure: 'encrypted' in request.socket,
      host: request.headers.host ?? '',
    };
    if (networks.length === 0 || !trusts(near, 0)) return direct;
    const last = (name: string): string | undefined =>
      request.headers[name]?.toString().split(',').pop()?.trim();
    return {
      address: proxyAddress(request, trusts),
      secure: last('x-forwarded-proto') === 'https',
      host: last('x-forwarded-host') ?? direct.host,
    };
  };
}
