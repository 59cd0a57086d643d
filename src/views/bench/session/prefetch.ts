/**
 * What a decision would come to, worked out while the person is about to make it: whoever looks at an option
 * often takes it next.
 */
import type { Made } from '../../../workers/bench/types';

/** Works out ahead what is probably asked next, and forgets it when what is shown changes. */
export class Prefetch<T> {
  /** Goes up whenever what is shown changes. */
  private epoch = 0;
  private known: { of: string; came: T } | undefined;
  private next: Made | undefined;
  private busy = false;

  /**
   * The work tells what comes of it from what is shown by then; requests are answered in the order in which
   * they are made.
   */
  constructor(private readonly work: (made: Made) => Promise<T>) {}

  /** Begins with what may come next. While one is at work only the last wish waits. */
  look(made: Made): void {
    this.next = made;
    if (!this.busy) void this.go();
  }

  /** What comes of it, if that is known already. Whoever takes it shows it, and says `moved` first. */
  take(made: Made): T | undefined {
    return this.known?.of === named(made) ? this.known.came : undefined;
  }

  /** What is shown changes now: what was worked out from it counts no more. */
  moved(): void {
    this.epoch += 1;
    this.known = undefined;
    this.next = undefined;
  }

  private async go(): Promise<void> {
    this.busy = true;
    while (this.next) {
      const [made, epoch] = [this.next, this.epoch];
      this.next = undefined;
      try {
        const came = await this.work(made);
        if (epoch === this.epoch) this.known = { of: named(made), came };
      } catch (problem) {
        // Nobody waits for it; once it is decided it is asked for, and then its failure is told.
        console.error(problem);
      }
    }
    this.busy = false;
  }
}

const named = ({ decisions, special }: Made): string => JSON.stringify([decisions, special]);
