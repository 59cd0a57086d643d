/** The theories of a solver: whom a settled literal wakes, and what they say. */
import { variableOf, type Lit } from './literal';
import type { Clauses } from './clauses';
import type { Numbers } from './numbers';
import type { Clauses as Voice, Theory } from './theory';
import { none, type Trail } from './trail';

/** Constraints that give clauses as a search runs into them. */
export class Theories {
  readonly list: Theory[] = [];
  private readonly ofVariable: number[][] = [];
  private readonly ofNumber: number[][] = [];
  /** Theories to ask before anything else is settled. */
  private readonly woken: number[] = [];
  private readonly isWoken: boolean[] = [];
  private conflict = none;
  readonly voice: Voice;

  constructor(
    private readonly trail: Trail,
    private readonly clauses: Clauses,
    private readonly numbers: Numbers,
  ) {
    this.voice = {
      value: (lit) => trail.value[lit]!,
      bounds: (number) => numbers.bounds(number),
      cut: (number, k) => numbers.atMost(number, k),
      imply: (clause) => this.imply(clause),
    };
  }

  addVariable(): void {
    this.ofVariable.push([]);
  }

  addNumber(): void {
    this.ofNumber.push([]);
  }

  add(theory: Theory): void {
    const index = this.list.length;
    this.list.push(theory);
    this.isWoken.push(false);
    for (const variable of new Set(theory.lits.map(variableOf))) this.ofVariable[variable]!.push(index);
    for (const number of theory.numbers) this.ofNumber[number]!.push(index);
    this.wake(index);
  }

  renew(theory: Theory): void {
    this.wake(this.list.indexOf(theory));
  }

  /** Theories that read a variable, or a number that it bounds. */
  reading(variable: number): readonly number[] {
    const number = this.numbers.ofVariable(variable);
    const own = this.ofVariable[variable]!;
    return number < 0 ? own : own.length === 0 ? this.ofNumber[number]! : [...own, ...this.ofNumber[number]!];
  }

  /** Tells every variable that a theory reads, the bounds of its numbers among them. */
  tellVariables(index: number, tell: (variable: number) => void): void {
    const { lits, numbers } = this.list[index]!;
    for (const lit of lits) tell(variableOf(lit));
    for (const number of numbers) for (const lit of this.numbers.literals(number)) tell(variableOf(lit));
  }

  wakeBy(lit: Lit): void {
    for (const index of this.reading(variableOf(lit))) this.wake(index);
  }

  private wake(index: number): void {
    if (this.isWoken[index]) return;
    this.isWoken[index] = true;
    this.woken.push(index);
  }

  get awake(): boolean {
    return this.woken.length > 0;
  }

  /** Asks one woken theory; gives the place of a broken clause it has given, or none. */
  askOne(): number {
    const index = this.woken.pop()!;
    this.isWoken[index] = false;
    this.conflict = none;
    this.list[index]!.propagate(this.voice);
    return this.conflict;
  }

  /** Keeps a clause that a theory has given: from now on it needs no theory. */
  private imply(clause: readonly Lit[]): boolean {
    const { value, place } = this.trail;
    const lits = [...clause];
    const first = lits[0]!;
    if (value[first]! > 0) return true;
    // The literal settled last among the false ones is watched beside the first.
    let latest = 1;
    for (let at = 2; at < lits.length; at++)
      if (place[variableOf(lits[at]!)]! > place[variableOf(lits[latest]!)]!) latest = at;
    if (lits.length > 1) [lits[1], lits[latest]] = [lits[latest]!, lits[1]!];
    if (value[first]! < 0) {
      if (lits.length > 1 && place[variableOf(lits[1]!)]! > place[variableOf(first)]!)
        [lits[0], lits[1]] = [lits[1]!, lits[0]!];
      this.conflict = this.clauses.add(lits, 2);
      return false;
    }
    this.trail.settle(first, this.clauses.add(lits, 2));
    return true;
  }
}
