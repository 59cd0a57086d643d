import type { BuildContent } from '../../../core/builds';

const mostSteps = 50;

interface Kept {
  past: BuildContent[];
  now: BuildContent;
  future: BuildContent[];
  /** The server's version that `now` was made from; `unsaved` until the server has it. */
  base: number;
  unsaved: boolean;
}

/** Where the steps of a build are kept over a reload; no harm is done where the browser keeps nothing. */
const keyOf = (build: string): string => `bench.${build}`;

/**
 * What a person made of a build, step by step, forwards and back. It is kept in the browser, so that it
 * outlives a reload.
 */
export class History {
  private kept: Kept;
  private unwritten = false;

  constructor(
    private readonly build: string,
    version: number,
    content: BuildContent,
  ) {
    const found = read(build);
    const fresh: Kept = { past: [], now: content, future: [], base: version, unsaved: false };
    // The page was closed before the server had it all, and what the server has is a step of this person's
    // own: it goes on from the last.
    const own =
      found?.unsaved &&
      (found.base === version || [...found.past, found.now].some((step) => same(step, content)));
    // The page was made while the server was still saving: it is older than what the server told this browser
    // it has.
    const older = found !== null && found.base > version;
    if (found && (own || older)) this.kept = { ...found, base: Math.max(found.base, version), unsaved: true };
    // Steps that lead to another build than the server has are of no use.
    else
      this.kept =
        found && same(found.now, content) ? { ...found, now: content, base: version, unsaved: false } : fresh;
  }

  /** The newest version of the server's that is known. */
  get base(): number {
    return this.kept.base;
  }

  /** Whether a content is one of these steps. */
  has(content: BuildContent): boolean {
    return [...this.kept.past, this.kept.now, ...this.kept.future].some((step) => same(step, content));
  }

  /** Something the server has not got yet, or that the page does not show yet. */
  get unsaved(): boolean {
    return this.kept.unsaved;
  }

  /** The server has what was sent; it made this version of it. */
  saved(version: number, sent: BuildContent): void {
    this.keep({ ...this.kept, base: version, unsaved: this.kept.now !== sent });
    this.write();
  }

  get now(): BuildContent {
    return this.kept.now;
  }

  get canUndo(): boolean {
    return this.kept.past.length > 0;
  }

  get canRedo(): boolean {
    return this.kept.future.length > 0;
  }

  add(next: BuildContent): BuildContent {
    const { past, now } = this.kept;
    return this.keep({
      past: [...past.slice(1 - mostSteps), now],
      now: next,
      future: [],
      base: this.kept.base,
      unsaved: true,
    });
  }

  undo(): BuildContent | null {
    const { past, now, future } = this.kept;
    const last = past[past.length - 1];
    return last
      ? this.keep({
          past: past.slice(0, -1),
          now: last,
          future: [now, ...future],
          base: this.kept.base,
          unsaved: true,
        })
      : null;
  }

  redo(): BuildContent | null {
    const { past, now, future } = this.kept;
    const [next] = future;
    return next
      ? this.keep({
          past: [...past, now],
          now: next,
          future: future.slice(1),
          base: this.kept.base,
          unsaved: true,
        })
      : null;
  }

  /**
   * Puts away the steps, where they are not yet. Called once what was decided is seen, and when the page
   * goes.
   */
  write(): void {
    if (!this.unwritten) return;
    this.unwritten = false;
    try {
      localStorage.setItem(keyOf(this.build), JSON.stringify(this.kept));
    } catch {
      // A full or closed store costs the steps after a reload, nothing else.
    }
  }

  private keep(kept: Kept): BuildContent {
    this.kept = kept;
    this.unwritten = true;
    return kept.now;
  }
}

const same = (a: BuildContent, b: BuildContent): boolean => written(a) === written(b);

/**
 * A text that is the same for the same content: who passed a warning and when is the server's to say, and the
 * order of fields is nobody's.
 */
const written = ({ decisions, passed, special }: BuildContent): string =>
  JSON.stringify([
    decisions.map(({ on, value }) => [on, value]),
    special.map(({ item, text, cost, price, days }) => [item, text, cost, price, days]),
    passed.map(({ rule, reason }) => [rule, reason]),
  ]);

function read(build: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(build)) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}
