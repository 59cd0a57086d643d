/**
 * A document while it is composed: each change is seen at once, its pages are set anew, and once nobody types it is
 * kept. It knows nothing of how it is drawn.
 */

import type { PaperTemplate, PaperView } from '../../../contract';
import { composedBy, type BlockChoice, type Composition } from '../../../core/paper';
import type { Answer, Refusal } from '../../api';

/** What a session lives in. */
export interface PaperSurroundings {
  keep: (version: number, composition: Composition) => Promise<Answer<PaperView>>;
  /** The pages of a document; given up where the signal says so. */
  pages: (composition: Composition, signal: AbortSignal) => Promise<Answer<Uint8Array>>;
  load: () => Promise<Answer<PaperView>>;
  /** Passes the time in which another key may come. */
  rest: () => Promise<void>;
  /** Passes some time before what could not be sent is sent again. */
  pause: () => Promise<void>;
}

/** Pages, and the document that they are of; what is changed meanwhile is not in them yet. */
export interface SetPages {
  bytes: Uint8Array;
  of: Composition;
}

/** What is to be seen of it. */
export interface PaperStand {
  view: PaperView;
  composition: Composition;
  /** The block that was changed or looked at last. */
  changed: string | null;
  saving: 'saved' | 'saving' | 'offline' | 'refused' | 'other';
  /** Whose choice stands in the way, where it is `other`. */
  other: PaperView | null;
  refusals: readonly Refusal[];
  /** As they are set by now; null before they were once. */
  pages: SetPages | null;
  /** They are being set anew. */
  setting: boolean;
  /** Why they could not be. */
  unset: readonly Refusal[];
  canUndo: boolean;
  canRedo: boolean;
}

/** Steps that can be taken back at most. */
const mostSteps = 200;

/** The session of one document. */
export class PaperSession {
  private stand: PaperStand;
  private readonly listeners = new Set<() => void>();
  private past: Composition[] = [];
  private future: Composition[] = [];
  /** The key of the run of changes that are one step. */
  private run: string | null = null;
  private kept: Composition;
  private keeping = false;
  private asked = 0;
  private under: AbortController | null = null;

  constructor(
    view: PaperView,
    private readonly around: PaperSurroundings,
  ) {
    this.kept = view.composition;
    this.stand = {
      view,
      composition: view.composition,
      changed: null,
      saving: 'saved',
      other: null,
      refusals: [],
      pages: null,
      setting: false,
      unset: [],
      canUndo: false,
      canRedo: false,
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly seen = (): PaperStand => this.stand;

  /** Changes the document; changes of one `run`, such as letters typed in one text, are one step. */
  change(change: (now: Composition) => Composition, at: string | null, run: string | null = null): void {
    if (!this.stand.view.mayEdit) return;
    const { composition } = this.stand;
    const next = change(composition);
    if (next === composition) return;
    if (run === null || run !== this.run) this.past = [...this.past, composition].slice(-mostSteps);
    this.run = run;
    this.future = [];
    this.become(next, at);
  }

  /** Changes one block. */
  block(key: string, change: Partial<BlockChoice>, run: string | null = null): void {
    this.change(
      (now) => ({
        ...now,
        blocks: now.blocks.map((block) => (block.key === key ? { ...block, ...change } : block)),
      }),
      key,
      run,
    );
  }

  /** Puts a block to another place, counted from 0. */
  move(key: string, to: number): void {
    this.change((now) => {
      const block = now.blocks.find((each) => each.key === key);
      const from = now.blocks.findIndex((each) => each.key === key);
      const place = Math.max(0, Math.min(to, now.blocks.length - 1));
      if (!block || place === from) return now;
      const rest = now.blocks.filter((each) => each.key !== key);
      return { ...now, blocks: [...rest.slice(0, place), block, ...rest.slice(place)] };
    }, key);
  }

  /** Begins anew from a template; what goes along and in which language stays. */
  take(template: PaperTemplate): void {
    this.change(
      (now) => ({
        ...composedBy(template.code, template.content, this.stand.view.usual),
        annexes: now.annexes,
      }),
      null,
    );
  }

  undo(): void {
    const before = this.past.at(-1);
    if (!before) return;
    this.past = this.past.slice(0, -1);
    this.future = [...this.future, this.stand.composition];
    this.run = null;
    this.become(before, null);
  }

  redo(): void {
    const after = this.future.at(-1);
    if (!after) return;
    this.future = this.future.slice(0, -1);
    this.past = [...this.past, this.stand.composition];
    this.run = null;
    this.become(after, null);
  }

  /** Brings the page into view on which a block begins. */
  look(key: string): void {
    this.tell({ changed: key });
  }

  /** Sets the pages for the first time. */
  open(): void {
    void this.set();
  }

  /** What somebody else chose meanwhile stands from now on; one's own choice can be taken back to. */
  takeOther(): void {
    const { other } = this.stand;
    if (!other) return;
    this.past = [...this.past, this.stand.composition].slice(-mostSteps);
    this.kept = other.composition;
    this.tell({ view: other, other: null, saving: 'saved', ...this.steps() });
    this.become(other.composition, null);
  }

  /** One's own choice is put over that of the other. */
  keepOwn(): void {
    const { other } = this.stand;
    if (!other) return;
    this.kept = other.composition;
    this.tell({ view: other, other: null, saving: 'saved' });
    void this.keep();
  }

  private become(composition: Composition, changed: string | null): void {
    this.tell({ composition, changed, ...this.steps() });
    void this.set();
    void this.keep();
  }

  private steps(): Pick<PaperStand, 'canUndo' | 'canRedo'> {
    return { canUndo: this.past.length > 0, canRedo: this.future.length > 0 };
  }

  /** Sets the pages of the document as it is now; what is set for an earlier one is given up. */
  private async set(): Promise<void> {
    const number = ++this.asked;
    this.under?.abort();
    const under = new AbortController();
    this.under = under;
    this.tell({ setting: true });
    const of = this.stand.composition;
    const answer = await this.around.pages(of, under.signal);
    if (number !== this.asked) return;
    this.under = null;
    if (answer.ok) this.tell({ setting: false, pages: { bytes: answer.value, of }, unset: [] });
    else this.tell({ setting: false, unset: answer.failures });
  }

  /** Keeps the document once nobody types; one at a time, and again where it went on meanwhile. */
  private async keep(): Promise<void> {
    if (this.keeping || this.stand.other) return;
    this.keeping = true;
    this.tell({ saving: 'saving' });
    try {
      for (;;) {
        let { composition } = this.stand;
        do {
          composition = this.stand.composition;
          await this.around.rest();
        } while (composition !== this.stand.composition);
        if (composition === this.kept) break;
        if (!(await this.send(composition))) return;
        if (composition === this.stand.composition) break;
      }
      this.tell({ saving: 'saved', refusals: [] });
    } finally {
      this.keeping = false;
    }
  }

  /** Whether it was kept. */
  private async send(composition: Composition): Promise<boolean> {
    for (;;) {
      const answer = await this.around.keep(this.stand.view.version, composition);
      if (answer.ok) {
        this.kept = composition;
        this.tell({ view: answer.value });
        return true;
      }
      if (answer.status === 0) {
        this.tell({ saving: 'offline' });
        await this.around.pause();
        continue;
      }
      if (answer.status === 409) {
        const loaded = await this.around.load();
        if (loaded.ok && loaded.value.version !== this.stand.view.version) {
          this.tell({ saving: 'other', other: loaded.value });
          return false;
        }
      }
      this.tell({ saving: 'refused', refusals: answer.failures });
      return false;
    }
  }

  private tell(change: Partial<PaperStand>): void {
    this.stand = { ...this.stand, ...change };
    for (const listener of this.listeners) listener();
  }
}
