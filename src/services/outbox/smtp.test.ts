/** Mails handed to a real server by SMTP, on loopback. */
import type { AddressInfo } from 'node:net';
import { SMTPServer, type SMTPServerOptions } from 'smtp-server';
import { afterEach, describe, expect, it } from 'vitest';
import type { Message } from './port';
import { smtpServer } from './smtp';

const running: SMTPServer[] = [];
afterEach(async () => {
  for (const server of running.splice(0)) await new Promise<void>((resolve) => server.close(() => resolve()));
});

interface Got {
  from: string;
  to: string[];
  raw: Buffer;
}

/** A server that keeps what it gets; gives where it listens. */
async function serverThat(options: SMTPServerOptions = {}): Promise<{ url: string; got: Got[] }> {
  const got: Got[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onData(stream, session, done) {
      const pieces: Buffer[] = [];
      stream.on('data', (piece: Buffer) => pieces.push(piece));
      stream.on('end', () => {
        const { mailFrom, rcptTo } = session.envelope;
        got.push({
          from: mailFrom === false ? '' : mailFrom.address,
          to: rcptTo.map(({ address }) => address),
          raw: Buffer.concat(pieces),
        });
        done();
      });
    },
    ...options,
  });
  server.on('error', () => undefined);
  running.push(server);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { url: `smtp://127.0.0.1:${String((server.server.address() as AddressInfo).port)}`, got };
}

const refusing =
  (code: number, of = 'gone@tarn.example'): NonNullable<SMTPServerOptions['onRcptTo']> =>
  ({ address }, _session, done) =>
    done(address === of ? Object.assign(new Error('no'), { responseCode: code }) : null);

/** Ends the lines of the server that was begun last, without a word. */
function cutOff(): void {
  const lines = running.at(-1)?.connections as unknown as Iterable<{ _socket: { destroy: () => void } }>;
  for (const { _socket: socket } of lines) socket.destroy();
}

const message = (to: string[] = ['ana@tarn.example']): Message => ({
  messageId: '1@harrowmoor.example',
  from: 'mara@harrowmoor.example',
  to,
  raw: Buffer.from(
    'Message-ID: <1@harrowmoor.example>\r\nSubject: =?UTF-8?Q?gr=C3=BC=C3=9Fe?=\r\n\r\n.a line that begins with a dot\r\n..and two\r\nend\r\n',
  ),
});

describe('a real server', () => {
  it('gets the message byte for byte, for each recipient', async () => {
    const { url, got } = await serverThat();
    const sent = message(['ana@tarn.example', 'ben@tarn.example']);
    expect(await smtpServer(url).hand(sent)).toEqual({ is: 'taken', refused: [] });
    expect(got).toEqual([{ from: sent.from, to: sent.to, raw: sent.raw }]);
  });

  it('that does not know one of the addresses takes it for the others, and says so', async () => {
    const { url, got } = await serverThat({ onRcptTo: refusing(550) });
    const handed = await smtpServer(url).hand(message(['ana@tarn.example', 'gone@tarn.example']));
    expect(handed).toMatchObject({ is: 'taken', refused: [{ address: 'gone@tarn.example' }] });
    expect(got.map(({ to }) => to)).toEqual([['ana@tarn.example']]);
  });

  it.each([
    [550, 'refused'],
    [451, 'later'],
  ])('that answers %i has nothing, and the mail is %s', async (code, is) => {
    const { url, got } = await serverThat({ onRcptTo: refusing(code) });
    expect(await smtpServer(url).hand(message(['gone@tarn.example']))).toMatchObject({ is });
    expect(got).toEqual([]);
  });

  it('that goes away before the data has nothing; after it nobody can tell', async () => {
    const before = await serverThat({
      onRcptTo: () => cutOff(),
    });
    expect(await smtpServer(before.url).hand(message())).toMatchObject({ is: 'later' });
    const after = await serverThat({
      onData(stream) {
        stream.resume();
        stream.on('end', cutOff);
      },
    });
    expect(await smtpServer(after.url).hand(message())).toMatchObject({ is: 'lost' });
  });

  it('that is not there has nothing', async () => {
    expect(await smtpServer('smtp://127.0.0.1:9').hand(message())).toMatchObject({ is: 'later' });
  });
});
