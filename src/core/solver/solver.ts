/**
 * Conflict-driven search with two manners of choosing what to settle next: by repair, starting from a witness, or by activity.
 *
 * Invariants: `trail` holds the settled literals in order, `marks[i]` its length when level i + 1 began; a literal's reason is a
 * clause or cardinality all of whose other literals were false before it; watched literals of a clause come first in it.
 */
import { Heap } from './heap';
import { always, not, variableOf, type Lit } from './literal';
import { Numbers } from './numbers';
import type { Clauses, Overlay, Theory } from './theory';
import { Witness } from './witness';

export interface Question {
  assume: readonly Lit[];
  /** A witness to start from; the nearer it is to the assumptions, the faster the answer. */
  base?: Witness | null;
  /** How many of the first assumptions the base is known to meet. */
  met?: number;
  /** Literals to have where that costs no conflict, in this order. */
  wishes?: readonly Lit[];
  /** Conflicts after which the question is given up. */
  budget?: number;
}

export type Answer =
  /** `changed`: the literals in which the witness differs from the base; without a base, all. */
  | { is: 'yes'; changed: Lit[]; witness: () => Witness }
  /** `core`: assumptions that cannot stand together. */
  | { is: 'no'; core: Lit[] }
  /** The budget ran out, or the caller said stop. */
  | { is: 'stopped' };

interface Cardinality {
  lits: Int32Array;
  most: number;
  guard: Lit;
}

/** Conflicts of one repair after which all variables are settled by activity. */
const repairPatience = 400;
const restartUnit = 128;
const decay = 1 / 0.95;
/** No conflict; clause places begin at 1, cardinalities count down from -1. */
const fine = 0;

export class Solver {
  readonly numbers: Numbers;
  /** Conflicts met so far. */
  conflicts = 0;
  /** Asked now and then during a search; true gives the question up. */
  stop: (() => boolean) | undefined;

  private count = 0;
  private val = new Int8Array(1024);
  private level = new Int32Array(512);
  private reason = new Int32Array(512);
  private place = new Int32Array(512);
  private seen = new Uint8Array(512);
  private phase = new Uint8Array(512);
  private activity = new Float64Array(512);
  private raise = 1;
  private heap = new Heap(this.activity);
  private trail = new Int32Array(512);
  private settled = 0;
  private head = 0;
  private marks: number[] = [];
  /** The assumptions that the first levels stand for. */
  private assumed: Lit[] = [];
  private possible = true;

  /** Clauses one after another: length, glue (0 of a given clause), literals. */
  private memory = new Int32Array(1 << 14);
  private used = 1;
  private readonly watches: number[][] = [];
  /** Given clauses by literal, for checking a repair. */
  private readonly given: number[][] = [];
  private learned: number[] = [];
  private mostLearned = 6_000;
  private readonly cards: Cardinality[] = [];
  private readonly cardsOf: number[][] = [];
  private readonly guardsOf: number[][] = [];
  private readonly theories: Theory[] = [];
  private readonly theoriesOf: number[][] = [];
  private readonly theoriesOfNumber: number[][] = [];
  private readonly woken: number[] = [];
  private readonly isWoken: boolean[] = [];
  private readonly buffer: Lit[] = [];
  private theoryConflict = fine;

  constructor() {
    this.numbers = new Numbers({
      addVariable: () => this.addVariable(),
      addOrder: (a, b) => this.addOrder(a, b),
      value: (lit) => this.val[lit]!,
    });
    this.addVariable();
    this.enqueue(always, fine);
  }

  // ---- building -------------------------------------------------------------------------------------------------------

  get variables(): number {
    return this.count;
  }

  addVariable(): number {
    const variable = this.count++;
    if (this.count > this.level.length) this.grow();
    this.watches.push([], []);
    this.given.push([], []);
    this.cardsOf.push([], []);
    this.guardsOf.push([], []);
    this.theoriesOf.push([]);
    this.heap.add(variable);
    return variable;
  }

  /** A new variable's literal. */
  add(): Lit {
    return 2 * this.addVariable();
  }

  /** A number with the values 0..count-1. */
  addNumber(count: number): number {
    this.theoriesOfNumber.push([]);
    return this.numbers.add(count);
  }

  /** The literal "at most k" of a number. */
  atMost(number: number, k: number): Lit {
    if (!this.numbers.known(number, k)) this.back(0);
    return this.numbers.atMost(number, k);
  }

  addClause(lits: readonly Lit[]): void {
    this.back(0);
    const open = new Set<Lit>();
    for (const lit of lits) {
      if (this.val[lit]! > 0 || open.has(not(lit))) return;
      if (this.val[lit]! === 0) open.add(lit);
    }
    const left = [...open];
    if (left.length === 0) this.possible = false;
    else if (left.length === 1) this.enqueue(left[0]!, fine);
    else this.store(left, 0);
  }

  /** At most so many of the literals hold, while the guard holds. */
  addAtMost(lits: readonly Lit[], most: number, guard: Lit = always): void {
    this.back(0);
    const index = this.cards.length;
    this.cards.push({ lits: Int32Array.from(lits), most, guard });
    for (const lit of lits) this.cardsOf[lit]!.push(index);
    if (guard !== always) this.guardsOf[guard]!.push(index);
    // What holds at the root already has left the queue.
    this.head = 0;
  }

  addTheory(theory: Theory): void {
    this.back(0);
    const index = this.theories.length;
    this.theories.push(theory);
    this.isWoken.push(false);
    for (const variable of new Set(theory.lits.map(variableOf))) this.theoriesOf[variable]!.push(index);
    for (const number of theory.numbers) this.theoriesOfNumber[number]!.push(index);
    this.wake(index);
  }

  /** A theory has become stricter: it is asked again from the root. */
  renew(theory: Theory): void {
    this.back(0);
    this.wake(this.theories.indexOf(theory));
  }

  // ---- asking ---------------------------------------------------------------------------------------------------------

  /** Whether everything given can hold together with the assumptions. */
  ask({ assume, base = null, met = 0, wishes = [], budget = Infinity }: Question): Answer {
    if (this.learned.length > this.mostLearned) this.forget();
    this.keepCommon(assume);
    const scanAt: number[] = [];
    const wishAt: number[] = [];
    let scan = -1;
    let wish = 0;
    let met0 = Math.min(met, assume.length);
    let byRepair = base !== null;
    let spent = 0;
    let untilRestart = restartUnit;
    if (!base) met0 = 0;
    for (;;) {
      if (!this.possible) return { is: 'no', core: [] };
      const conflict = this.propagate();
      if (conflict !== fine) {
        this.conflicts++;
        spent++;
        if (!this.learnFrom(conflict)) {
          this.possible = false;
          return { is: 'no', core: [] };
        }
        const depth = this.marks.length;
        scan = depth >= assume.length ? scanAt[depth + 1]! : -1;
        wish = depth >= assume.length ? wishAt[depth + 1]! : 0;
        if (spent >= budget || ((spent & 63) === 0 && this.stop?.())) return { is: 'stopped' };
        if (spent > repairPatience) byRepair = false;
        if (!byRepair && --untilRestart <= 0) {
          untilRestart = restartUnit * luby(Math.floor(spent / restartUnit) + 1);
          this.back(Math.min(this.marks.length, assume.length));
          scan = -1;
          wish = 0;
        }
        continue;
      }
      const depth = this.marks.length;
      if (depth < assume.length) {
        const next = assume[depth]!;
        if (this.val[next]! < 0) return { is: 'no', core: this.coreOf(next) };
        this.assume(next);
        continue;
      }
      let next = -1;
      while (wish < wishes.length && next < 0) {
        const lit = wishes[wish++]!;
        if (this.val[lit]! === 0) next = lit;
      }
      if (next < 0 && base && byRepair) {
        if (scan < 0) scan = met0 < this.marks.length ? this.marks[met0]! : this.settled;
        for (; scan < this.settled; scan++) {
          const lit = this.trail[scan]!;
          if (base.holds(lit)) continue;
          next = this.mend(lit, base);
          if (next >= 0) break;
        }
      } else if (next < 0) {
        next = this.mostActive(base);
        if (next < 0) next = this.objection(base);
      }
      if (next < 0) return this.found(base, met0);
      this.marks.push(this.settled);
      scanAt[this.marks.length] = scan;
      wishAt[this.marks.length] = wish;
      this.enqueue(next, fine);
    }
  }

  /**
   * Whether a witness with some literals changed still meets everything given. Looks only at what the changed literals touch.
   * `changed` must be consistent with the numbers' codes of the witness.
   */
  stands(base: Witness, changed: readonly Lit[]): boolean {
    for (const lit of changed) {
      // What is settled at the root has no clause any more.
      if (this.val[lit]! < 0 && this.level[variableOf(lit)]! === 0) return false;
      if (this.theories.length > 0 && this.touchesTheory(lit)) return false;
    }
    const flipped = this.seen;
    for (const lit of changed) flipped[variableOf(lit)] = 1;
    const holds = (lit: Lit) => (flipped[variableOf(lit)]! === 1) !== base.holds(lit);
    let fits = true;
    for (let each = 0; fits && each < changed.length; each++) {
      const lit = changed[each]!;
      const clauses = this.given[not(lit)]!;
      for (let at = 0; fits && at < clauses.length; at++) {
        const place = clauses[at]!;
        const end = place + 2 + this.memory[place]!;
        let one = place + 2;
        while (one < end && !holds(this.memory[one]!)) one++;
        if (one === end) fits = false;
      }
      for (const list of [this.cardsOf[lit]!, this.guardsOf[lit]!]) {
        for (const index of list) {
          const { lits, most, guard } = this.cards[index]!;
          if (!holds(guard)) continue;
          let sum = 0;
          for (const other of lits) if (holds(other)) sum++;
          if (sum > most) fits = false;
        }
      }
    }
    for (const lit of changed) flipped[variableOf(lit)] = 0;
    return fits;
  }

  /** Calls for every variable that shares a given clause, cardinality or theory with one of the literals. */
  neighbours(changed: readonly Lit[], tell: (variable: number) => void): void {
    for (const lit of changed) {
      tell(variableOf(lit));
      for (const side of [lit, not(lit)]) {
        for (const place of this.given[side]!) {
          const end = place + 2 + this.memory[place]!;
          for (let at = place + 2; at < end; at++) tell(variableOf(this.memory[at]!));
        }
        for (const list of [this.cardsOf[side]!, this.guardsOf[side]!]) {
          for (const index of list) {
            const { lits, guard, most } = this.cards[index]!;
            tell(variableOf(guard));
            // Of a one-of-many a change concerns only those that hold.
            if (most !== 1) for (const other of lits) tell(variableOf(other));
          }
        }
      }
    }
  }

  private touchesTheory(lit: Lit): boolean {
    const number = this.numbers.ofVariable(variableOf(lit));
    return this.theoriesOf[variableOf(lit)]!.length > 0 || (number >= 0 && this.theoriesOfNumber[number]!.length > 0);
  }

  /** Lets one read what follows from assumptions by propagation alone; null where they are refused at once. */
  consider<T>(assume: readonly Lit[], read: (settled: Clauses) => T): T | null {
    this.keepCommon(assume);
    while (this.possible) {
      const conflict = this.propagate();
      const depth = this.marks.length;
      if (conflict !== fine) {
        if (!this.learnFrom(conflict)) this.possible = false;
      } else if (depth === assume.length) return read(this.voice);
      else if (this.val[assume[depth]!]! < 0) return null;
      else this.assume(assume[depth]!);
    }
    return null;
  }

  private assume(lit: Lit): void {
    this.assumed.push(lit);
    this.marks.push(this.settled);
    if (this.val[lit]! === 0) this.enqueue(lit, fine);
  }

  /** Everything given: clauses (what is settled for good as clauses of one literal) and cardinalities. Theories are not among it. */
  constraints(): { clauses: Lit[][]; cardinalities: { lits: readonly Lit[]; most: number; guard: Lit }[] } {
    this.back(0);
    const clauses = [...this.trail.subarray(0, this.settled)].map((lit) => [lit]);
    if (!this.possible) clauses.push([]);
    for (let place = 1; place < this.used; place += this.memory[place]! + 2) {
      if (this.memory[place + 1]! === 0) clauses.push([...this.memory.subarray(place + 2, place + 2 + this.memory[place]!)]);
    }
    return { clauses, cardinalities: this.cards.map(({ lits, most, guard }) => ({ lits: [...lits], most, guard })) };
  }

  // ---- choosing -------------------------------------------------------------------------------------------------------

  /** A literal to settle because a changed one breaks something of the base; -1 where all it touches stands. */
  private mend(lit: Lit, base: Witness): Lit {
    const { val, memory } = this;
    const clauses = this.given[not(lit)]!;
    for (let each = 0; each < clauses.length; each++) {
      const place = clauses[each]!;
      const end = place + 2 + memory[place]!;
      let open = -1;
      let stands = false;
      for (let at = place + 2; at < end; at++) {
        const other = memory[at]!;
        const value = val[other]!;
        if (value > 0 || (value === 0 && base.holds(other))) {
          stands = true;
          break;
        }
        if (value === 0 && open < 0) open = other;
      }
      if (!stands) return open;
    }
    for (const list of [this.cardsOf[lit]!, this.guardsOf[lit]!]) {
      for (const index of list) {
        const { lits, most, guard } = this.cards[index]!;
        if (val[guard]! < 0 || (val[guard]! === 0 && !base.holds(guard))) continue;
        let sum = 0;
        let open = -1;
        for (const other of lits) {
          const value = val[other]!;
          if (value > 0) sum++;
          else if (value === 0 && base.holds(other)) {
            sum++;
            open = other;
          }
        }
        if (sum > most) return open >= 0 ? not(open) : not(guard);
      }
    }
    if (this.theories.length > 0) {
      const variable = variableOf(lit);
      for (const index of this.theoriesOf[variable]!) {
        const next = this.theories[index]!.check(this.overlay(base));
        if (next >= 0) return next;
      }
      const number = this.numbers.ofVariable(variable);
      if (number >= 0) {
        for (const index of this.theoriesOfNumber[number]!) {
          const next = this.theories[index]!.check(this.overlay(base));
          if (next >= 0) return next;
        }
      }
    }
    return -1;
  }

  private mostActive(base: Witness | null): Lit {
    for (;;) {
      const variable = this.heap.take();
      if (variable < 0) return -1;
      if (this.val[2 * variable]! !== 0) continue;
      const up = base ? base.holds(2 * variable) : this.phase[variable]! === 1;
      return 2 * variable + (up ? 0 : 1);
    }
  }

  private objection(base: Witness | null): Lit {
    const overlay = this.overlay(base);
    for (const theory of this.theories) {
      const next = theory.check(overlay);
      if (next >= 0) return next;
    }
    return -1;
  }

  private overlay(base: Witness | null): Overlay {
    return {
      value: (lit) => this.val[lit]!,
      holds: (lit) => this.val[lit]! > 0 || (this.val[lit]! === 0 && base !== null && base.holds(lit)),
      code: (number) => {
        const { low, high } = this.numbers.bounds(number);
        return Math.min(high, Math.max(low, base ? base.codes[number]! : low));
      },
      cut: (number, k) => this.numbers.atMost(number, k),
      bounds: (number) => this.numbers.bounds(number),
    };
  }

  /** The answer of a finished search. The witness is written out only when it is asked for; most are not. */
  private found(base: Witness | null, met: number): Answer {
    const { numbers, count } = this;
    const changed: Lit[] = [];
    for (let at = base && met > 0 && met < this.marks.length ? this.marks[met]! : 0; at < this.settled; at++) {
      const lit = this.trail[at]!;
      if (base?.holds(lit)) continue;
      changed.push(lit);
      this.phase[variableOf(lit)] = lit & 1 ? 0 : 1;
    }
    const overlay = this.overlay(base);
    const codes = new Map<number, number>();
    if (base) {
      for (const lit of changed) {
        const number = numbers.ofVariable(variableOf(lit));
        if (number >= 0) codes.set(number, overlay.code(number));
      }
    } else for (let number = 0; number < numbers.size; number++) codes.set(number, overlay.code(number));
    return { is: 'yes', changed, witness: () => Witness.from(base, changed, codes, count, numbers) };
  }

  // ---- propagation ----------------------------------------------------------------------------------------------------

  private enqueue(lit: Lit, reason: number): void {
    const variable = variableOf(lit);
    this.val[lit] = 1;
    this.val[lit ^ 1] = -1;
    this.level[variable] = this.marks.length;
    this.reason[variable] = reason;
    this.place[variable] = this.settled;
    this.trail[this.settled++] = lit;
  }

  private propagate(): number {
    for (;;) {
      while (this.head < this.settled) {
        const lit = this.trail[this.head++]!;
        const conflict = this.clauses(lit) || this.cardinalities(lit);
        if (conflict !== fine) {
          this.head = this.settled;
          return conflict;
        }
        if (this.theories.length > 0) {
          const variable = variableOf(lit);
          for (const index of this.theoriesOf[variable]!) this.wake(index);
          const number = this.numbers.ofVariable(variable);
          if (number >= 0) for (const index of this.theoriesOfNumber[number]!) this.wake(index);
        }
      }
      const index = this.woken.pop();
      if (index === undefined) return fine;
      this.isWoken[index] = false;
      this.theoryConflict = fine;
      this.theories[index]!.propagate(this.voice);
      if (this.theoryConflict !== fine) return this.theoryConflict;
    }
  }

  private wake(index: number): void {
    if (this.isWoken[index]) return;
    this.isWoken[index] = true;
    this.woken.push(index);
  }

  private readonly voice: Clauses = {
    value: (lit) => this.val[lit]!,
    bounds: (number) => this.numbers.bounds(number),
    imply: (clause) => this.imply(clause),
  };

  private imply(clause: readonly Lit[]): boolean {
    const [first] = clause as [Lit];
    if (this.val[first]! > 0) return true;
    // The literal settled last among the false ones is watched beside the first.
    const lits = [...clause];
    let latest = 1;
    for (let at = 2; at < lits.length; at++) if (this.place[variableOf(lits[at]!)]! > this.place[variableOf(lits[latest]!)]!) latest = at;
    if (lits.length > 1) [lits[1], lits[latest]] = [lits[latest]!, lits[1]!];
    if (this.val[first]! < 0) {
      if (lits.length > 1 && this.place[variableOf(lits[1]!)]! > this.place[variableOf(first)]!) [lits[0], lits[1]] = [lits[1]!, lits[0]!];
      this.theoryConflict = this.store(lits, 2);
      return false;
    }
    const place = this.store(lits, 2);
    this.enqueue(first, place);
    return true;
  }

  private clauses(lit: Lit): number {
    const { val, memory } = this;
    const falsified = lit ^ 1;
    const list = this.watches[falsified]!;
    let kept = 0;
    let at = 0;
    const { length } = list;
    while (at < length) {
      const place = list[at]!;
      const blocker = list[at + 1]!;
      at += 2;
      if (val[blocker]! > 0) {
        list[kept++] = place;
        list[kept++] = blocker;
        continue;
      }
      let first = memory[place + 2]!;
      if (first === falsified) {
        first = memory[place + 3]!;
        memory[place + 2] = first;
        memory[place + 3] = falsified;
      }
      if (val[first]! > 0) {
        list[kept++] = place;
        list[kept++] = first;
        continue;
      }
      const end = place + 2 + memory[place]!;
      let moved = false;
      for (let other = place + 4; other < end; other++) {
        const candidate = memory[other]!;
        if (val[candidate]! >= 0) {
          memory[place + 3] = candidate;
          memory[other] = falsified;
          this.watches[candidate]!.push(place, first);
          moved = true;
          break;
        }
      }
      if (moved) continue;
      list[kept++] = place;
      list[kept++] = first;
      if (val[first]! < 0) {
        while (at < length) list[kept++] = list[at++]!;
        list.length = kept;
        return place;
      }
      this.enqueue(first, place);
    }
    list.length = kept;
    return fine;
  }

  private cardinalities(lit: Lit): number {
    const { val } = this;
    const own = this.cardsOf[lit]!;
    for (let each = 0; each < own.length; each++) {
      const conflict = this.count1(own[each]!, val);
      if (conflict !== fine) return conflict;
    }
    const guarded = this.guardsOf[lit]!;
    for (let each = 0; each < guarded.length; each++) {
      const conflict = this.count1(guarded[each]!, val);
      if (conflict !== fine) return conflict;
    }
    return fine;
  }

  private count1(index: number, val: Int8Array): number {
    const { lits, most, guard } = this.cards[index]!;
    if (val[guard]! < 0) return fine;
    let sum = 0;
    for (let at = 0; at < lits.length; at++) if (val[lits[at]!]! > 0) sum++;
    if (sum > most) {
      if (val[guard]! > 0) return -1 - index;
      this.enqueue(not(guard), -1 - index);
    } else if (sum === most && val[guard]! > 0) {
      for (let at = 0; at < lits.length; at++) {
        const other = lits[at]!;
        if (val[other]! === 0) this.enqueue(not(other), -1 - index);
      }
    }
    return fine;
  }

  // ---- learning -------------------------------------------------------------------------------------------------------

  /** The other literals of a reason or conflict, all false; `forced` is the literal it forced, or -1. */
  private because(reason: number, forced: Lit): readonly Lit[] {
    const { buffer, memory } = this;
    buffer.length = 0;
    if (reason > 0) {
      const end = reason + 2 + memory[reason]!;
      for (let at = reason + 2; at < end; at++) if (memory[at]! !== forced) buffer.push(memory[at]!);
      return buffer;
    }
    const { lits, most, guard } = this.cards[-1 - reason]!;
    const before = forced < 0 ? Infinity : this.place[variableOf(forced)]!;
    const ofGuard = forced >= 0 && forced === not(guard);
    let wanted = forced < 0 || ofGuard ? most + 1 : most;
    if (!ofGuard && guard !== always) buffer.push(not(guard));
    for (let at = 0; at < lits.length && wanted > 0; at++) {
      const lit = lits[at]!;
      if (this.val[lit]! > 0 && this.place[variableOf(lit)]! < before) {
        buffer.push(not(lit));
        wanted--;
      }
    }
    return buffer;
  }

  /** Learns from a conflict and goes back to where the learned clause forces something. False where nothing is left to go back to. */
  private learnFrom(conflict: number): boolean {
    let from = conflict;
    // A theory or a late clause may be broken by older levels alone.
    let deepest = 0;
    for (const lit of this.because(from, -1)) deepest = Math.max(deepest, this.level[variableOf(lit)]!);
    if (deepest === 0) return false;
    this.back(deepest);
    const { seen, level, trail } = this;
    const learned: Lit[] = [-1];
    const marked: number[] = [];
    let open = 0;
    let at = this.settled - 1;
    let lit = -1;
    do {
      for (const other of this.because(from, lit)) {
        const variable = variableOf(other);
        if (seen[variable]! !== 0 || level[variable]! === 0) continue;
        seen[variable] = 1;
        marked.push(variable);
        this.bump(variable);
        if (level[variable]! === deepest) open++;
        else learned.push(other);
      }
      while (seen[variableOf(trail[at]!)]! === 0) at--;
      lit = trail[at--]!;
      seen[variableOf(lit)] = 0;
      from = this.reason[variableOf(lit)]!;
      open--;
    } while (open > 0);
    learned[0] = not(lit);
    // A literal whose reason is all in the clause already adds nothing.
    const needed = learned.filter((other, index) => {
      const reason = this.reason[variableOf(other)]!;
      if (index === 0 || reason === fine) return true;
      return this.because(reason, not(other)).some((each) => seen[variableOf(each)]! === 0 && level[variableOf(each)]! > 0);
    });
    for (const variable of marked) seen[variable] = 0;
    this.raise *= decay;
    let target = 0;
    for (let index = 1; index < needed.length; index++) {
      const depth = level[variableOf(needed[index]!)]!;
      if (depth > target) {
        target = depth;
        [needed[1], needed[index]] = [needed[index]!, needed[1]!];
      }
    }
    const glue = new Set(needed.map((each) => level[variableOf(each)]!)).size;
    this.back(target);
    if (needed.length === 1) this.enqueue(needed[0]!, fine);
    else this.enqueue(needed[0]!, this.store(needed, glue + 1));
    return true;
  }

  /** The assumptions that force a refused assumption's opposite, itself included. */
  private coreOf(refused: Lit): Lit[] {
    const core = [refused];
    if (this.level[variableOf(refused)]! === 0) return core;
    const { seen } = this;
    const marked = [variableOf(refused)];
    seen[variableOf(refused)] = 1;
    for (let at = this.place[variableOf(refused)]!; at >= (this.marks[0] ?? 0); at--) {
      const lit = this.trail[at]!;
      const variable = variableOf(lit);
      if (seen[variable]! === 0) continue;
      const reason = this.reason[variable]!;
      if (reason === fine) {
        core.push(lit);
        continue;
      }
      for (const other of this.because(reason, lit)) {
        const next = variableOf(other);
        if (seen[next]! !== 0 || this.level[next]! === 0) continue;
        seen[next] = 1;
        marked.push(next);
      }
    }
    for (const variable of marked) seen[variable] = 0;
    return core;
  }

  private bump(variable: number): void {
    this.activity[variable]! += this.raise;
    if (this.activity[variable]! > 1e100) {
      for (let each = 0; each < this.count; each++) this.activity[each]! *= 1e-100;
      this.raise *= 1e-100;
    }
    this.heap.raised(variable);
  }

  /** Goes back so that only so many levels stand. */
  private back(depth: number): void {
    if (this.marks.length <= depth) return;
    const from = this.marks[depth]!;
    for (let at = this.settled - 1; at >= from; at--) {
      const lit = this.trail[at]!;
      this.val[lit] = 0;
      this.val[lit ^ 1] = 0;
      this.heap.add(variableOf(lit));
    }
    this.settled = from;
    this.head = Math.min(this.head, from);
    this.marks.length = depth;
    if (this.assumed.length > depth) this.assumed.length = depth;
  }

  /** Keeps the levels whose assumptions are the same as those asked now. */
  private keepCommon(assume: readonly Lit[]): void {
    let common = 0;
    while (common < this.assumed.length && common < assume.length && this.assumed[common] === assume[common]) common++;
    this.back(common);
  }

  // ---- storage --------------------------------------------------------------------------------------------------------

  private store(lits: readonly Lit[], glue: number): number {
    const place = this.used;
    const size = lits.length + 2;
    if (place + size > this.memory.length) {
      const larger = new Int32Array(Math.max(2 * this.memory.length, place + size));
      larger.set(this.memory);
      this.memory = larger;
    }
    this.memory[place] = lits.length;
    this.memory[place + 1] = glue;
    for (let at = 0; at < lits.length; at++) this.memory[place + 2 + at] = lits[at]!;
    this.used = place + size;
    if (lits.length > 1) {
      this.watches[lits[0]!]!.push(place, lits[1]!);
      this.watches[lits[1]!]!.push(place, lits[0]!);
    }
    if (glue === 0) for (const lit of lits) this.given[lit]!.push(place);
    else this.learned.push(place);
    return place;
  }

  private addOrder(a: Lit, b: Lit): void {
    // Of a cut made inside the bounds at most one side is settled, and then it holds.
    if (this.marks.length > 0) this.store([a, b], 0);
    else this.addClause([a, b]);
  }

  /** Drops the learned clauses least likely to serve again, and closes the gaps. */
  private forget(): void {
    this.back(0);
    const glue = (place: number) => this.memory[place + 1]!;
    const sorted = [...this.learned].sort((a, b) => glue(a) - glue(b) || this.memory[a]! - this.memory[b]!);
    const dropped = new Set(sorted.slice(sorted.length >> 1).filter((place) => glue(place) > 2));
    this.mostLearned = Math.max(this.mostLearned, 2 * (this.learned.length - dropped.size));
    // At the root no reason is needed any more, so clauses may move.
    for (let at = 0; at < this.settled; at++) this.reason[variableOf(this.trail[at]!)] = fine;
    const old = this.memory;
    const end = this.used;
    this.memory = new Int32Array(old.length);
    this.used = 1;
    this.learned = [];
    for (const list of this.watches) list.length = 0;
    for (const list of this.given) list.length = 0;
    this.head = 0;
    for (let place = 1; place < end; place += old[place]! + 2) {
      if (dropped.has(place)) continue;
      const lits = [...old.subarray(place + 2, place + 2 + old[place]!)];
      // Literals false at the root go last, so that those watched are open or hold.
      this.store(lits.sort((a, b) => Number(this.val[a]! < 0) - Number(this.val[b]! < 0)), old[place + 1]!);
    }
  }

  private grow(): void {
    const size = 2 * this.level.length;
    const wider = <T extends { set(from: T): void }>(old: T, made: T): T => {
      made.set(old);
      return made;
    };
    this.val = wider(this.val, new Int8Array(2 * size));
    this.level = wider(this.level, new Int32Array(size));
    this.reason = wider(this.reason, new Int32Array(size));
    this.place = wider(this.place, new Int32Array(size));
    this.seen = wider(this.seen, new Uint8Array(size));
    this.phase = wider(this.phase, new Uint8Array(size));
    this.trail = wider(this.trail, new Int32Array(size));
    const activity = wider(this.activity, new Float64Array(size));
    this.activity = activity;
    this.heap.ranked(activity);
  }
}

/** 1 1 2 1 1 2 4 ... (Luby, Sinclair and Zuckerman 1993). */
function luby(index: number): number {
  let size = 1;
  let power = 0;
  while (size < index + 1) {
    size = 2 * size + 1;
    power++;
  }
  let at = index;
  while (size - 1 !== at) {
    size = (size - 1) >> 1;
    power--;
    at %= size;
  }
  return 2 ** power;
}
