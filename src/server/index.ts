/**
 * The server: files from disk, everything else to the application, within limits of size and time. `npm run
 * build` bundles it to
 * dist/serve.mjs; `bin/start` runs that and starts it again where it dies.
 *   PORT, HOST           where it listens, on loopback unless said otherwise
 *   TRUSTED_PROXIES      addresses or networks whose X-Forwarded headers are taken
 *   IUNCTURA_FIGURES=1   writes to the log, every ten seconds, how late the event loop is and how much memory
 * is held
 */
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { Socket } from 'node:net';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import sirv from 'sirv';
import { clientReader, type Client } from './client';
import { writeFigures } from './figures';
import { plainHeaders } from './headers';
import { leaveAll } from '../services/kernel/leaving';

type Handler = (
  request: IncomingMessage,
  response: ServerResponse,
  next: () => void,
  locals: { client: Client },
) => Promise<void>;

const log = pino({ base: null });
const folder = fileURLToPath(new URL('.', import.meta.url));
const application = `${folder}server/entry.mjs`;
const { handler } = (await import(application)) as { handler: Handler };

const methods: ReadonlySet<string> = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE']);
/** No endpoint takes more; what an endpoint takes is its own to say. */
const mostBytes = 20 * 1024 * 1024;

const files = sirv(`${folder}client`, {
  etag: true,
  setHeaders: (response, path) => {
    for (const [name, value] of Object.entries(plainHeaders)) response.setHeader(name, value);
    // What was built has a digest in its name, and never changes under it.
    response.setHeader(
      'cache-control',
      path.startsWith('/_astro/')
        ? 'public, max-age=31536000, immutable'
        : 'public, max-age=0, must-revalidate',
    );
  },
});

const clientOf = clientReader(process.env.TRUSTED_PROXIES);

/** Answers without the application. */
function refuse(response: ServerResponse, status: number, headers: Record<string, string> = {}): void {
  response.writeHead(status, { ...plainHeaders, 'content-length': '0', ...headers });
  response.end();
}

/**
 * Of what is still being sent when the answer is out, so many bytes and milliseconds go by unread, so that
 * the answer is seen; then the connection ends.
 */
const goingBy = { bytes: 4 * 1024 * 1024, milliseconds: 3_000 };

function letGoBy(request: IncomingMessage, socket: Socket): void {
  if (request.complete || socket.destroyed) return;
  let left = goingBy.bytes;
  const end = () => {
    socket.destroy();
  };
  const timer = setTimeout(end, goingBy.milliseconds);
  request.on('data', (piece: Buffer) => {
    left -= piece.length;
    if (left < 0) end();
  });
  request.once('end', () => clearTimeout(timer));
  request.once('close', () => clearTimeout(timer));
  request.resume();
}

const isAddress = (url: string): boolean => {
  try {
    decodeURI(url);
    return url.startsWith('/') && !url.startsWith('//');
  } catch {
    return false;
  }
};

const server = createServer(
  { maxHeaderSize: 16 * 1024, headersTimeout: 15_000, requestTimeout: 60_000, keepAliveTimeout: 20_000 },
  (request, response) => {
    const { method = '', url = '', socket } = request;
    response.once('finish', () => letGoBy(request, socket));
    if (!methods.has(method))
      return refuse(response, 405, { allow: [...methods].join(', '), connection: 'close' });
    if (!isAddress(url)) return refuse(response, 400);
    if (url.startsWith('/_image')) return refuse(response, 404);
    if (Number(request.headers['content-length'] ?? 0) > mostBytes)
      return refuse(response, 413, { connection: 'close' });
    files(request, response, () => {
      void handler(request, response, () => refuse(response, 404), { client: clientOf(request) }).catch(
        (bug: unknown) => {
          log.error({
            bug: bug instanceof Error ? { message: bug.message, stack: bug.stack } : bug,
            path: url,
          });
          if (!response.headersSent) refuse(response, 500);
          else response.destroy();
        },
      );
    });
  },
);

server.listen(Number(process.env.PORT ?? 4600), process.env.HOST ?? '127.0.0.1', () => {
  const at = server.address();
  log.info({ serving: at });
  // The application begins with its first request, and its jobs with it: nobody else has to come for that.
  if (at !== null && typeof at !== 'string') {
    const host = at.address === '0.0.0.0' || at.address === '::' ? '127.0.0.1' : at.address;
    const named = at.family === 'IPv6' && host.includes(':') ? `[${host}]` : host;
    void fetch(`http://${named}:${String(at.port)}/api/alive`).catch((bug: unknown) => log.warn({ bug }));
  }
});
writeFigures(log);

/** Takes no more, finishes what is under way, and ends; what takes longer than that is ended with it. */
let leaving = false;
function leave(): void {
  if (leaving) return;
  leaving = true;
  setTimeout(() => process.exit(0), 25_000).unref();
  const brought = leaveAll();
  server.close(() => void brought.then(() => process.exit(0)));
  server.closeIdleConnections();
  // A connection that is kept open goes as soon as its answer is out.
  server.on('request', (_request, response) => {
    response.setHeader('connection', 'close');
  });
  setInterval(() => server.closeIdleConnections(), 200).unref();
}
process.on('SIGTERM', leave);
process.on('SIGINT', leave);

// What nobody caught may have left anything half done: the one who starts us again begins afresh.
process.on('uncaughtException', (bug) => {
  log.fatal({ bug: { message: bug.message, stack: bug.stack } });
  process.exit(1);
});
