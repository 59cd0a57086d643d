/**
 * The session of a build: what a person made of it and what follows, undo, what is worked out ahead, and saving
 * as it is made. It knows nothing of how it is drawn: whoever draws it subscribes, and sees one stand after
 * another.
 */
import type { Scene } from '../../../core/drawing';
import {
  differences,
  type Cause,
  type Decision,
  type Difference,
  type ReadBack,
  type Target,
} from '../../../core/engine';
import type { BenchPicture, BuildContent, SpecialPart } from '../../../core/builds';
import type { BenchView } from '../../../contract';
import type { BenchComputation } from '../../../workers/bench/computation';
import type { Made, Opening, Remark, Why } from '../../../workers/bench/types';
import { withChanges } from '../../../workers/changes';
import type { Refusal } from '../../api';
import { byRow, type ByRow } from './by-row';
import { History } from './history';
import { Prefetch } from './prefetch';
import { noRefusals, Saver, type BuildLine, type Saved } from './saver';

/** Whether what is made is stored. */
export type SaveState = 'saved' | 'saving' | 'offline' | 'refused';

/** What other decisions would come to, and what would move with them. */
export type Judged = Pick<BenchPicture, 'price' | 'calculated' | 'leadDays' | 'number'> & {
  moved: Difference[];
};

/** What is to be seen of a build: all of it belongs together. */
export interface BenchStand {
  content: BuildContent;
  picture: BenchPicture;
  /** What the last decision moved besides its own row. */
  moved: readonly Difference[];
  canUndo: boolean;
  canRedo: boolean;
  /** What an option would do to the list price, where that is sure. */
  differences: ByRow<string>;
  /** These are being worked out anew: nothing is shown that may become another figure. */
  waiting: boolean;
  scene: Scene | null;
  remarks: ByRow<Remark>;
  /**
   * Working days as the server worked them out, for those who are not told how it is made; undefined while it
   * is at it.
   */
  servedLead: number | null | undefined;
  save: SaveState;
  refusals: readonly Refusal[];
}

type Asked<F> = F extends (...args: infer Args) => infer Answer
  ? (...args: Args) => Promise<Awaited<Answer>>
  : never;
/** The computation of a build somewhere else: it answers one after another, and later. */
export type Remote = { [K in keyof BenchComputation]: Asked<BenchComputation[K]> };

/** What a session lives in. */
export interface Surroundings {
  line: BuildLine;
  /** Begins another computation, and ends it. */
  begin: () => { remote: Remote; end: () => void };
  /** Resolves once what is shown now has been painted. */
  painted: () => Promise<void>;
  /** Draws what changes while `change` runs before it returns. */
  atOnce: (change: () => void) => void;
}

/** What a picture becomes, and what moves with that. */
interface Step {
  from: BenchPicture;
  picture: BenchPicture;
  moved: readonly Difference[];
}

const stepTo = (from: BenchPicture, picture: BenchPicture): Step => ({
  from,
  picture,
  moved: differences(from.state, picture.state),
});

const madeOf = ({ decisions, special }: BuildContent): Made => ({ decisions, special });

/** What a computation is opened with, of all that the page was given. */
const openingOf = ({
  document,
  context,
  asked,
  tariff,
  terms,
  facts,
  registered,
  specialNumber,
  picture,
  may,
}: BenchView): Opening => ({
  document,
  context,
  asked,
  tariff,
  terms,
  facts,
  registered,
  specialNumber,
  picture,
  may,
});

/** The session of one build, from the page's opening to its end. */
export class BenchSession {
  private stand: BenchStand;
  private readonly listeners = new Set<() => void>();
  // What is decided is known at once, before it is worked out, so that quick decisions never lose one another.
  private readonly history: History;
  private readonly saver: Saver;
  private readonly prefetch: Prefetch<Step | undefined>;
  /** For what is waited for. */
  private worker: Remote | undefined;
  /** For what comes after it, so that this never waits for that. */
  private background: Remote | undefined;
  private opened: Promise<void> = Promise.resolve();
  private working: Promise<void> = Promise.resolve();
  /** Goes up with every decision; only what belongs to the last is shown. */
  private turn = 0;
  /** Decisions that are not shown yet. */
  private pending = 0;
  private drawn = '';
  /** The background worker is at what takes longest. */
  private remarking = false;
  private numbers: Pick<Saved, 'registered' | 'specialNumber'>;
  /** What the workers have told so far, whether it is shown or was overtaken. */
  private known: { picture: BenchPicture; remarks: Record<string, Remark> };

  constructor(
    private readonly view: BenchView,
    private readonly around: Surroundings,
  ) {
    this.history = new History(view.build.id, view.build.version, view.content);
    this.saver = new Saver(around.line, this.history.base, (content) => this.history.has(content));
    this.numbers = { registered: view.registered, specialNumber: view.specialNumber };
    this.known = { picture: view.picture, remarks: {} };
    this.stand = {
      content: view.content,
      picture: view.picture,
      moved: [],
      canUndo: false,
      canRedo: false,
      differences: byRow(view.differences),
      waiting: false,
      scene: view.scene,
      remarks: new Map(),
      servedLead: view.leadDays,
      save: 'saved',
      refusals: noRefusals,
    };
    this.prefetch = new Prefetch(async (made) => {
      const changes = await this.worker?.ahead(made);
      return changes === undefined
        ? undefined
        : stepTo(this.known.picture, withChanges(this.known.picture, changes));
    });
  }

  /** What is to be seen now; the same object until something else is. */
  readonly seen = (): BenchStand => this.stand;

  /** Hears of every other stand until the answer is called. */
  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Begins, with what an earlier page left unsaved; ends when the answer is called. */
  open(): () => void {
    const opening = openingOf(this.view);
    const ends: (() => void)[] = [];
    const begin = (): Remote => {
      const { remote, end } = this.around.begin();
      ends.push(end);
      return remote;
    };
    let left = false;
    const worker = begin();
    this.worker = worker;
    // The second begins once the first is at work, and finds its script there already.
    this.opened = worker.open(opening).then(() => {
      if (left) return;
      void worker.rehearse();
      this.background = begin();
      void this.background.open(opening);
    });
    this.set({ canUndo: this.history.canUndo, canRedo: this.history.canRedo });
    // What an earlier page left unsaved; what is decided from now on shows and saves itself.
    if (this.history.unsaved) void this.go(this.history.now);
    else
      void this.opened.then(() => {
        // What was decided meanwhile fills for itself, once it is shown.
        if (this.turn === 0) void this.fill(this.history.now, 0);
      });
    return () => {
      left = true;
      this.keep();
      for (const end of ends) end();
    };
  }

  /** Puts away what is not sent yet, should the page go. */
  keep(): void {
    this.history.write();
  }

  /** Decides, in the place of what was decided on the same thing. */
  readonly decide = (decision: Decision): Promise<void> => this.step(this.deciding(decision), decision.on);

  /** Works out what a decision would come to, so that it shows at once when it is made. */
  readonly consider = (decision: Decision): void =>
    void this.opened.then(() =>
      this.prefetch.look(madeOf({ ...this.history.now, ...this.deciding(decision) })),
    );

  /** Takes a decision back. */
  readonly release = (on: string): Promise<void> => this.step({ decisions: this.without(on) }, on);

  /** Takes other decisions for all that were made, and other special parts where said so. */
  readonly take = (decisions: readonly Decision[], special?: readonly SpecialPart[]): Promise<void> =>
    this.step({ decisions, ...(special ? { special } : {}) });

  /** Passes a warning with a reason; without one, takes the passing back. */
  readonly pass = (rule: string, reason: string | null): Promise<void> => {
    const others = this.history.now.passed.filter((each) => each.rule !== rule);
    const passed = { rule, reason: reason ?? '', by: this.view.person, at: new Date().toISOString() };
    return this.step({ passed: reason === null ? others : [...others, passed] });
  };

  /** Replaces an item by a special part; without one, takes the special part back. */
  readonly replace = (item: string, part: SpecialPart | null): Promise<void> => {
    const others = this.history.now.special.filter((each) => each.item !== item);
    return this.step({ special: part ? [...others, part] : others });
  };

  /** Takes a whole build with as few decisions as it takes to come to it. */
  readonly takeWhole = async (whole: readonly Decision[]): Promise<void> =>
    this.step({
      decisions: await this.ask((remote) => remote.fewest(this.history.now.decisions, whole), whole),
    });

  /** Sends again what the server did not take. */
  readonly again = (): Promise<void> => this.go(this.history.now);

  readonly undo = (): Promise<void> => this.back(this.history.undo());

  readonly redo = (): Promise<void> => this.back(this.history.redo());

  /** Why something is not free, or what clashes. */
  readonly why = (target?: Target): Promise<Why> =>
    this.ask((remote) => remote.why(madeOf(this.history.now), target), { causes: [], ways: [] });

  /** Another cause than the first. */
  readonly second = (target: Target): Promise<Cause[]> =>
    this.ask((remote) => remote.second(this.history.now.decisions, target), []);

  /** The drawing of some complete build that keeps what is decided. */
  readonly example = async (): Promise<Scene | null> => {
    await this.opened;
    return this.background ? this.background.example(this.history.now.decisions) : null;
  };

  /** What the person made so far, whether it is shown yet or not. */
  readonly now = (): BuildContent => this.history.now;

  /** Reads a part number of this model. */
  readonly read = (text: string): Promise<ReadBack> =>
    this.ask<ReadBack>((remote) => remote.read(text), { is: 'unreadable', at: 0, segment: 0, allowed: [] });

  /** What other decisions would come to, without taking them. */
  readonly judge = (decisions: readonly Decision[]): Promise<Judged | null> =>
    this.ask<Judged | null>((remote) => remote.judge({ ...madeOf(this.history.now), decisions }), null);

  /** Something decided is not shown yet. */
  readonly busy = (): boolean => this.pending > 0;

  /** Resolves when what was decided last is shown. */
  readonly shownAll = (): Promise<void> => this.working;

  /** Resolves when nothing is under way any more: whether everything made so far is on the server. */
  readonly settled = async (): Promise<boolean> => {
    await this.working;
    return this.saver.idle();
  };

  private set(change: Partial<BenchStand>): void {
    const keys = Object.keys(change) as (keyof BenchStand)[];
    if (keys.every((key) => Object.is(this.stand[key], change[key]))) return;
    this.stand = { ...this.stand, ...change };
    for (const listener of this.listeners) listener();
  }

  private without(on: string): Decision[] {
    return this.history.now.decisions.filter((each) => each.on !== on);
  }

  private deciding(decision: Decision): Pick<BuildContent, 'decisions'> {
    return { decisions: [...this.without(decision.on), decision] };
  }

  private step(change: Partial<BuildContent>, changed?: string): Promise<void> {
    return this.go(this.history.add({ ...this.history.now, ...change }), changed);
  }

  private async back(to: BuildContent | null): Promise<void> {
    if (to) await this.go(to);
  }

  /** Asks the worker, or gives what stands for an answer where there is none. */
  private async ask<T>(question: (remote: Remote) => Promise<T>, none: T): Promise<T> {
    await this.opened;
    return this.worker ? question(this.worker) : none;
  }

  /** Shows what is made next; whoever waits for it to be settled waits for this first. */
  private go(next: BuildContent, changed?: string): Promise<void> {
    this.pending += 1;
    this.working = this.show(next, changed).finally(() => {
      this.pending -= 1;
    });
    return this.working;
  }

  private async show(next: BuildContent, changed?: string): Promise<void> {
    const mine = ++this.turn;
    const made = madeOf(next);
    const foreseen = this.prefetch.take(made);
    if (!foreseen) await this.opened;
    const { worker } = this;
    if (!worker) return;
    const pictured = foreseen ? undefined : this.pictureOf(worker, made);
    // What is waited for gets the processor.
    if (this.remarking) void this.background?.stop();
    const picture = pictured ? await pictured : foreseen?.picture;
    // A later decision has overtaken this one; only the last is shown.
    if (!picture || mine !== this.turn) return;
    this.draw(next, picture, foreseen, changed);
    if (foreseen) {
      this.prefetch.moved();
      this.known.picture = picture;
      // Before it is asked anything else; the frame need not wait for it.
      void worker.took(made);
    }
    // Nothing comes between a decision and the sight of it, which may be a frame away; what is not sent yet is
    // kept should the page go.
    await this.around.painted();
    this.keep();
    await this.around.painted();
    if (mine !== this.turn) return;
    this.saver.send(next, (result) => {
      this.stored(next, mine, result);
    });
    void this.fill(next, mine);
  }

  /**
   * Shows what a decision comes to. In the task of the key, or the one that brought the answer: one of its own
   * would wait behind the frame that the key began.
   */
  private draw(
    content: BuildContent,
    picture: BenchPicture,
    foreseen: Step | undefined,
    changed: string | undefined,
  ): void {
    const before = this.stand.picture;
    const { moved } = foreseen?.from === before ? foreseen : stepTo(before, picture);
    const own = changed?.split('.')[0];
    this.around.atOnce(() => {
      this.set({
        content,
        picture,
        moved: moved.filter((each) => each.row !== own),
        canUndo: this.history.canUndo,
        canRedo: this.history.canRedo,
        waiting: true,
        save: 'saving',
        // It is the server's to say where the page is not told how things are made.
        ...(this.view.may.making ? {} : { servedLead: undefined }),
      });
    });
  }

  private async pictureOf(remote: Remote, made: Made): Promise<BenchPicture> {
    this.prefetch.moved();
    const changes = await remote.picture(made);
    this.known.picture = withChanges(this.known.picture, changes);
    return this.known.picture;
  }

  /** What became of storing what was made; that an earlier decision is saved says nothing of a later one. */
  private stored(content: BuildContent, mine: number, result: Saved): void {
    const isLast = mine === this.turn;
    if (isLast || result.state !== 'saved') this.set({ save: result.state, refusals: result.refusals });
    if (result.version !== undefined) this.history.saved(result.version, content);
    if (result.state !== 'saved' || !isLast) return;
    if (result.leadDays !== undefined) this.set({ servedLead: result.leadDays });
    void this.renumber(content, mine, result);
  }

  /** The part number with what the server registered for the build, where that is something else. */
  private async renumber(
    content: BuildContent,
    mine: number,
    { registered, specialNumber }: Saved,
  ): Promise<void> {
    const same =
      JSON.stringify(registered) === JSON.stringify(this.numbers.registered) &&
      specialNumber === this.numbers.specialNumber;
    if (same || !this.worker) return;
    this.numbers = { registered, specialNumber };
    await this.worker.register(this.numbers);
    const picture = await this.pictureOf(this.worker, madeOf(content));
    if (mine === this.turn) this.set({ picture });
  }

  /**
   * What takes longer, after what was decided is seen: drawing and remarks, and prices of options where they
   * may have changed.
   */
  private async fill(content: BuildContent, mine: number): Promise<void> {
    const { background } = this;
    if (!background) return;
    const { decisions, special } = madeOf(content);
    const fresh = await background.scene(decisions, this.drawn);
    if (mine !== this.turn) return;
    if (fresh) {
      this.drawn = fresh.key;
      this.set({ scene: fresh.scene });
    }
    this.remarking = true;
    let effects: Record<string, string> | null = null;
    while (!effects) {
      effects = await background.effects({ decisions, special });
      // What was stopped for a decision that came to nothing is begun again.
      if (mine !== this.turn) return;
    }
    this.set({ differences: byRow(effects, this.stand.differences), waiting: false });
    const changes = await background.remarks(decisions);
    this.known.remarks = withChanges(this.known.remarks, changes);
    if (mine !== this.turn) return;
    this.set({ remarks: byRow(this.known.remarks, this.stand.remarks) });
    this.remarking = false;
  }
}
