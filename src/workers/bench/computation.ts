/** The Bench's computation, as a worker does it: one build, its figures, and what the page was told of them. */
import { sceneKey, sceneOf, type Scene } from '../../core/drawing';
import {
  createEngine,
  differences,
  readNumber,
  usualLimits,
  withAsked,
  type Cause,
  type Decision,
  type Difference,
  type ReadBack,
  type State,
  type Target,
} from '../../core/engine';
import { compilePublished } from '../../core/model';
import { withoutSpecial, type Registered } from '../../core/numbering';
import { priceBuild } from '../../core/pricing';
import {
  fewestDecisions,
  effectOfOffer,
  offersOf,
  pictureOf,
  specialTariff,
  sureOf,
  withoutMaking,
  type BenchMeans,
  type BenchPicture,
} from '../../core/builds';
import { changesOf, type Changes } from '../changes';
import type { Made, Opening, Remark, Why } from './types';
import { whyOf } from './why';

const pause = () => new Promise((next) => setTimeout(next));

/** What takes long looks up this often, in milliseconds, to see whether it shall stop. */
const breath = 12;
function breathing(): () => Promise<void> {
  let last = performance.now();
  return async () => {
    if (performance.now() - last < breath) return;
    await pause();
    last = performance.now();
  };
}

/** So many effects are worked out at most: a build has a hundred offers, a very large model thousands. */
const mostEffects = 150;
/** So many pictures, or so many milliseconds, make the machine code that a first decision should find. */
const rehearsal = { pictures: 60, milliseconds: 1500 };

/** All that a page can ask about its build. */
export class BenchComputation {
  private means: BenchMeans | undefined;
  /** Whoever is at the page may know how things are made. */
  private seesMaking = true;
  /** The state asked for last; what takes long gives way to a newer one. */
  private latest: { decisions: string; state: State } | undefined;
  /** What the page has, each kept up by the changes that were sent. */
  private told: { picture?: BenchPicture; remarks?: Record<string, Remark> } = {};
  /** The picture worked out ahead last. */
  private foreseen: { made: string; picture: BenchPicture } | undefined;
  /** Goes up when what takes long shall stop. */
  private stops = 0;
  /** A picture was asked for. */
  private asked = false;

  /** Begins with what the page shows already. */
  open({
    document,
    context,
    asked: answered,
    tariff,
    terms,
    facts,
    registered,
    specialNumber,
    picture,
    may,
  }: Opening): void {
    this.seesMaking = may.making;
    this.told = { picture, remarks: {} };
    const compiled = compilePublished(document);
    if (!compiled.ok) throw new Error('the pinned model does not compile');
    const engine = withAsked(createEngine(compiled.model, context, usualLimits), answered);
    // What the context alone allows is worked out before the first decision needs it.
    engine.state({ decisions: [] });
    this.means = { engine, tariff, terms, facts, registered, specialNumber };
  }

  /**
   * Works out pictures that nobody sees, each with another option taken, until one is asked for: what has
   * never run is five times slower, and a first decision is waited for like any other.
   */
  async rehearse(): Promise<void> {
    const { engine } = this.ready();
    const decisions = offersOf(engine.model, engine.state({ decisions: [] })).map(({ decision }) => decision);
    const [first] = decisions;
    if (this.asked || !first) return;
    // What explains is made with the first question why.
    engine.reason({ decisions: [] }, first);
    await pause();
    const start = performance.now();
    for (
      let done = 0;
      done < rehearsal.pictures && performance.now() - start < rehearsal.milliseconds;
      done++
    ) {
      // What comes one after another in a model is alike; the next is taken from farther off.
      const decision = decisions[(done * 7) % decisions.length];
      if (this.isAsked() || !decision) return;
      changesOf(this.told.picture, this.pictured({ decisions: [decision], special: [] }));
      await pause();
    }
  }

  /** The registered numbers the server gave this build; none where the build became another. */
  register(numbers: { registered?: Registered | undefined; specialNumber?: number | undefined }): void {
    this.means = { ...this.ready(), registered: numbers.registered, specialNumber: numbers.specialNumber };
  }

  /**
   * What changes in the picture with what is made now. Every answer counts, in the order in which they come,
   * also one that is not shown.
   */
  picture(made: Made): Changes | null {
    this.asked = true;
    const picture = this.pictured(made);
    this.latest = { decisions: JSON.stringify(made.decisions), state: picture.state };
    const changes = changesOf(this.told.picture, picture);
    this.told.picture = picture;
    return changes;
  }

  /** What would change in the picture with what may be made next; the page goes on showing what it shows. */
  ahead(made: Made): Changes | null {
    const picture = this.pictured(made);
    this.foreseen = { made: JSON.stringify(made), picture };
    return changesOf(this.told.picture, picture);
  }

  /** The page shows what it was this.told ahead. */
  took(made: Made): void {
    this.asked = true;
    this.told.picture =
      this.foreseen?.made === JSON.stringify(made) ? this.foreseen.picture : this.pictured(made);
  }

  /** What is drawn, unless it is what is known by its key already. */
  scene(decisions: readonly Decision[], known: string): { key: string; scene: Scene } | null {
    const { model } = this.ready().engine;
    const { values } = this.stateOf(decisions);
    const key = sceneKey(model, values);
    return key === known ? null : { key, scene: sceneOf(model, values) };
  }

  /**
   * The drawing of some complete build that keeps what is decided, to show what is meant before it is chosen;
   * null where none is found soon.
   */
  example(decisions: readonly Decision[]): Scene | null {
    const { engine } = this.ready();
    const found = engine.best({ decisions }, { minimize: [] }, { budget: 20_000 });
    return found.is === 'found'
      ? sceneOf(engine.model, engine.state({ decisions: found.decisions }).values)
      : null;
  }

  /** Causes and ways out for a target, or for the clashes where there is none. */
  why(made: Made, target?: Target): Why {
    return whyOf(this.ready().engine, (each) => this.pictured(each), made, target);
  }

  /** What a build would come to, without showing it. */
  judge(
    made: Made,
  ): Pick<BenchPicture, 'price' | 'calculated' | 'leadDays' | 'number'> & { moved: Difference[] } {
    const { price, calculated, leadDays, number, state } = this.pictured(made);
    return {
      price,
      calculated,
      leadDays,
      number,
      moved: this.told.picture ? differences(this.told.picture.state, state) : [],
    };
  }

  /** Of the decisions of a whole build no more than it takes to come to it from what is made. */
  fewest(decisions: readonly Decision[], whole: readonly Decision[]): Decision[] {
    return fewestDecisions(this.ready().engine, decisions, whole);
  }

  /** Another cause, independent of the first as far as there is one. */
  second(decisions: readonly Decision[], target: Target): Cause[] {
    return this.ready().engine.secondReason({ decisions }, target);
  }

  /**
   * Reads a part number of this model back. Registered numbers stand with the server; one that needs them is
   * for it to read.
   */
  read(text: string): ReadBack {
    return readNumber(this.ready().engine, withoutSpecial(text.trim().toUpperCase()).text);
  }

  /** Ends what takes long: a decision is being worked out beside it, and will ask again. */
  stop(): void {
    this.stops += 1;
  }

  /**
   * What changes in the remarks on every option that is not free, by "feature.option" or parameter; null too
   * where it was stopped or overtaken.
   */
  async remarks(decisions: readonly Decision[]): Promise<Changes | null> {
    const { engine } = this.ready();
    const [key, begun] = [JSON.stringify(decisions), this.stops];
    const { rows } = this.stateOf(decisions);
    const found: Record<string, Remark> = {};
    const breathe = breathing();
    const remark = (on: string, value: string | boolean, key: string, barred: boolean): void => {
      const target = { on, value };
      if (barred) found[key] = { kind: 'barred', causes: engine.reason({ decisions }, target) };
      else found[key] = { kind: 'swap', changes: engine.changesNeeded({ decisions }, target) };
    };
    for (const entry of engine.model.entries) {
      if (entry.kind !== 'feature') continue;
      const { id, many } = entry;
      const row = rows[id];
      for (const option of row?.shown ? (row.options ?? []) : []) {
        if (option.standing === 'free' || option.taken) continue;
        await breathe();
        // A newer decision will ask again.
        if (this.stops !== begun || (this.latest && this.latest.decisions !== key)) return null;
        remark(
          many ? `${id}.${option.id}` : id,
          many ? true : option.id,
          `${id}.${option.id}`,
          option.standing === 'barred',
        );
      }
    }
    const changes = changesOf(this.told.remarks, found);
    this.told.remarks = found;
    return changes;
  }

  /**
   * What each offer would do to the list price, where that is sure; null where it was stopped or overtaken.
   */
  async effects({ decisions, special }: Made): Promise<Record<string, string> | null> {
    const { engine, tariff } = this.ready();
    const [key, begun] = [JSON.stringify(decisions), this.stops];
    const state = this.stateOf(decisions);
    const before = { state, price: priceBuild(engine.model, state.values, specialTariff(tariff, special)) };
    const found: Record<string, string | null> = {};
    const breathe = breathing();
    for (const offer of offersOf(engine.model, state).slice(0, mostEffects)) {
      await breathe();
      // A newer decision will ask again.
      if (this.stops !== begun || (this.latest && this.latest.decisions !== key)) return null;
      found[offer.key] = effectOfOffer(this.ready(), { decisions, special }, before, offer);
    }
    return sureOf(found);
  }

  private isAsked(): boolean {
    return this.asked;
  }

  private ready(): BenchMeans {
    if (!this.means) throw new Error('the Bench is not open');
    return this.means;
  }

  /** The state of decisions, worked out once for all that is asked of it. */
  private stateOf(decisions: readonly Decision[]): State {
    const key = JSON.stringify(decisions);
    if (this.latest?.decisions !== key)
      this.latest = { decisions: key, state: this.ready().engine.state({ decisions }) };
    return this.latest.state;
  }

  /** What the page is told of what is made: nothing of how that is done where it is not to know. */
  private pictured(made: Made): BenchPicture {
    const picture = pictureOf(this.ready(), made);
    return this.seesMaking ? picture : withoutMaking(picture);
  }
}
