/** What a decision would come to, worked out while the person is about to make it: whoever looks at an option often takes it next. */
import type { Changes } from '../../workers/changes';
import type { Made } from '../../workers/bench.worker';

export class Ahead {
  /** Goes up whenever what is shown changes. */
  private epoch = 0;
  private known: { of: string; changes: Changes | null } | undefined;
  private next: Made | undefined;
  private busy = false;

  /** The work tells the changes from what is shown by then; requests are answered in the order in which they are made. */
  constructor(private readonly work: (made: Made) => Promise<Changes | null>) {}

  /** Begins with what may come next. While one is at work only the last wish waits. */
  look(made: Made): void {
    this.next = made;
    if (!this.busy) void this.go();
  }

  /** The changes to what is shown, if they are known already. Whoever takes them shows them, and says `moved` first. */
  take(made: Made): { changes: Changes | null } | undefined {
    return this.known?.of === named(made) ? { changes: this.known.changes } : undefined;
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
      const changes = await this.work(made);
      if (epoch === this.epoch) this.known = { of: named(made), changes };
    }
    this.busy = false;
  }
}

const named = ({ decisions, special }: Made): string => JSON.stringify([decisions, special]);
