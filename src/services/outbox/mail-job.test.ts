/** A mail is lost by no fall, and goes twice by none: random kills, two instances, servers of all kinds. */
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Handed } from '../../core/sending';
import { connected } from '../../data';
import type { Actor } from '../access/actor';
import { openDemo, personOf } from '../kernel/testing';
import { handOver } from './job';
import { keepAsked } from './keep';
import type { MailServer } from './port';
import { keepMessage, mailOf, stepMail } from './way';

let mara: Actor;
beforeAll(async () => {
  await openDemo('mail_job');
  mara = await personOf('mara@harrowmoor.example');
});
afterAll(() => connected().close());

/** A mail that is whole. */
async function mail(): Promise<string> {
  const id = await keepAsked({
    quoteId: null,
    revisionId: null,
    buildId: null,
    customerId: null,
    shareId: null,
    sender: { name: 'Mara', address: mara.email },
    recipients: [{ as: 'to', name: '', address: 'ana@tarn.example' }],
    subject: 'A mail',
    words: 'Words',
    link: null,
    language: 'en',
    wanted: [],
    madeBy: mara.id,
  });
  await keepMessage(id, Buffer.from('raw'), 'a'.repeat(64));
  return id;
}

class Killed extends Error {}

/** What happens to one try: where the instance dies, or what the server says. */
type Fate = 'before' | 'inside' | 'after' | 'taken' | 'later' | 'slow';

/** A server that does what it is told; `remembers`: it can be asked, and takes a message once. */
class Server implements MailServer {
  readonly name = 'test';
  readonly delivered: string[] = [];
  fates: Fate[] = [];
  /** Tries of instances that are cut off but go on for a while. */
  readonly late: (() => void)[] = [];

  constructor(private readonly remembers: boolean) {}

  async hand({ messageId }: { messageId: string }): Promise<Handed> {
    const fate = this.fates.shift() ?? 'taken';
    if (fate === 'before') throw new Killed();
    if (fate === 'later') return { is: 'later', words: '421' };
    if (fate === 'slow') {
      // The lease is lost meanwhile; the old instance goes on, and finds the line still open.
      await new Promise<void>((resolve) => this.late.push(resolve));
      this.take(messageId);
      return { is: 'taken', refused: [] };
    }
    this.take(messageId);
    if (fate === 'inside' || fate === 'after') throw new Killed();
    return { is: 'taken', refused: [] };
  }

  private take(messageId: string): void {
    if (!this.remembers || !this.delivered.includes(messageId)) this.delivered.push(messageId);
  }

  has = (messageId: string): Promise<boolean | null> =>
    Promise.resolve(this.remembers ? this.delivered.includes(messageId) : null);
}

const fate = fc.constantFrom<Fate>('before', 'inside', 'after', 'taken', 'later', 'slow');

/** One instance has its turn; a kill or a pause is no more than the end of its turn. */
const turn = (id: string, server: Server): Promise<void> =>
  handOver(id, server, () => undefined).catch(() => undefined);

describe('a mail under kills and two instances', () => {
  it.each([true, false])(
    'is lost by none and goes twice by none (server can be asked: %s)',
    async (remembers) => {
      await fc.assert(
        fc.asyncProperty(
          fc.array(fate, { maxLength: 6 }),
          fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
          async (fates, both) => {
            const server = new Server(remembers);
            server.fates = [...fates];
            const id = await mail();
            const open: Promise<void>[] = [];
            for (const two of both) {
              const turns = [turn(id, server), ...(two ? [turn(id, server)] : [])];
              open.push(...turns);
              // Whoever is slow is not waited for: somebody else has the job by now.
              await Promise.race([Promise.all(turns), new Promise((resolve) => setTimeout(resolve, 25))]);
              if (both.indexOf(two) % 2 === 1) server.late.shift()?.();
            }
            for (let at = 0; at < 20 && server.late.length > 0; at++) {
              server.late.shift()?.();
              await new Promise((resolve) => setTimeout(resolve, 5));
            }
            await Promise.all(open);
            await turn(id, server);
            const { state } = (await mailOf(id)) ?? {};
            expect(server.delivered.length).toBeLessThanOrEqual(1);
            if (remembers) {
              expect(state).toBe('sent');
              expect(server.delivered).toHaveLength(1);
            } else {
              // Where nobody can tell, a person is asked; a mail that counts as sent was taken.
              expect(['sent', 'unsure']).toContain(state);
              if (state === 'sent') expect(server.delivered).toHaveLength(1);
            }
          },
        ),
        { numRuns: 40 },
      );
    },
  );

  it('goes again where a person says so, and not where somebody else said that it arrived', async () => {
    const server = new Server(false);
    server.fates = ['before'];
    const id = await mail();
    await turn(id, server);
    await turn(id, server);
    expect((await mailOf(id))?.state).toBe('unsure');
    expect(await stepMail(id, 'again')).not.toBeNull();
    expect(await stepMail(id, 'taken')).not.toBeNull();
    await turn(id, server);
    expect(server.delivered).toEqual([]);
    expect((await mailOf(id))?.state).toBe('sent');
  });
});
