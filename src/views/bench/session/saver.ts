/** Stores what is made of a build, behind whatever the network does. */
import type { BenchView, SavedContent } from '../../../contract';
import type { BuildContent } from '../../../core/builds';
import type { Registered } from '../../../core/numbering';
import { ask, type Answer, type Refusal, type SentTo } from '../../api';

/** What became of storing a build. */
export interface Saved {
  state: 'saved' | 'offline' | 'refused';
  /** The server's version after it was saved. */
  version?: number;
  refusals: readonly Refusal[];
  registered?: Registered | undefined;
  specialNumber?: number | undefined;
  /** Working days, where the page cannot know them by itself. */
  leadDays?: number | null | undefined;
}

/** The server, for a build, and waiting. */
export interface BuildLine {
  put: (content: SentTo<'PUT /builds/{id}'>) => Promise<Answer<SavedContent>>;
  read: () => Promise<Answer<Pick<BenchView, 'build' | 'content'>>>;
  /** Waits until it is worth trying again. */
  pause: () => Promise<void>;
}

const retrySeconds = 3;
/** The line to the server by which a page stores a build. */
export const lineToBuild = (id: string): BuildLine => ({
  put: (content) => ask('PUT /builds/{id}', { at: { id }, input: content }),
  read: () => ask('GET /builds/{id}', { at: { id } }),
  pause: () => new Promise((done) => setTimeout(done, retrySeconds * 1000)),
});

/** The same list always, so that what shows refusals stands still while there are none. */
export const noRefusals: readonly Refusal[] = [];

/**
 * Sends what is made one after another; while one is under way, only the newest of the next waits. Retries
 * while the server is away, and goes on where the server has a step of this person's own that the page did
 * not hear of.
 */
export class Saver {
  private waiting: { content: BuildContent; tell: (saved: Saved) => void } | null = null;
  private running: Promise<void> | null = null;
  private refused = false;

  constructor(
    private readonly line: BuildLine,
    private version: number,
    /** Whether a content is one that this person made. */
    private readonly made: (content: BuildContent) => boolean,
  ) {}

  send(content: BuildContent, tell: (saved: Saved) => void): void {
    this.waiting = { content, tell };
    this.running ??= this.run();
  }

  /** Waits until nothing is under way; whether the server has what was sent last. */
  async idle(): Promise<boolean> {
    while (this.running) await this.running;
    return !this.refused;
  }

  private async run(): Promise<void> {
    while (this.waiting) {
      const { content, tell } = this.waiting;
      this.waiting = null;
      const { decisions, passed, special } = content;
      const body = {
        version: this.version,
        decisions,
        passed: passed.map(({ rule, reason }) => ({ rule, reason })),
        special,
      };
      const answer = await this.line.put(body);
      if (answer.ok) {
        this.version = answer.value.version;
        this.refused = false;
        tell({
          state: 'saved',
          refusals: noRefusals,
          version: this.version,
          registered: answer.value.registered,
          specialNumber: answer.value.specialNumber,
          leadDays: answer.value.leadDays,
        });
      } else if (answer.status === 0 || answer.status >= 500) {
        tell({ state: 'offline', refusals: noRefusals });
        this.waiting ??= { content, tell };
        await this.line.pause();
      } else if (answer.status === 409 && (await this.caughtUp())) {
        this.waiting ??= { content, tell };
      } else {
        this.refused = true;
        tell({ state: 'refused', refusals: answer.failures });
      }
    }
    // In the same breath as the last look at what waits, so that nothing sent now is left waiting.
    this.running = null;
  }

  /** Takes up the server's version, where that is another than was known and holds what this person made. */
  private async caughtUp(): Promise<boolean> {
    const now = await this.line.read();
    if (!now.ok || now.value.build.version === this.version || !this.made(now.value.content)) return false;
    this.version = now.value.build.version;
    return true;
  }
}
