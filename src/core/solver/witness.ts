import { variableOf, type Lit } from './literal';
import type { Numbers } from './numbers';

/**
 * A complete assignment that meets every constraint: the proof that something can be had. Never changed once
 * made.
 */
export class Witness {
  constructor(
    /** 1 where the variable is true. Bound literals made later are read from `codes`. */
    readonly bits: Uint8Array,
    /** Value of each number. */
    readonly codes: Int32Array,
    private readonly numbers: Numbers,
  ) {}

  /** A base with some literals and codes changed; without a base, everything is among the changes. */
  static from(
    base: Witness | null,
    changed: readonly Lit[],
    codes: ReadonlyMap<number, number>,
    count: number,
    numbers: Numbers,
  ): Witness {
    const bits = new Uint8Array(count);
    const all = new Int32Array(numbers.size);
    if (base) {
      bits.set(base.bits);
      all.set(base.codes);
      for (let variable = base.bits.length; variable < count; variable++)
        bits[variable] = base.holds(2 * variable) ? 1 : 0;
    }
    for (const lit of changed) bits[variableOf(lit)] = lit & 1 ? 0 : 1;
    for (const [number, code] of codes) all[number] = code;
    return new Witness(bits, all, numbers);
  }

  holds(lit: Lit): boolean {
    const variable = variableOf(lit);
    const bit =
      variable < this.bits.length
        ? this.bits[variable]!
        : this.numbers.cutHolds(variable, this.codes)
          ? 1
          : 0;
    return (bit ^ (lit & 1)) === 1;
  }

  /** The same but for one variable that no witness depends on. */
  without(lit: Lit): Witness {
    const bits = Uint8Array.from(this.bits);
    bits[variableOf(lit)] = lit & 1;
    return new Witness(bits, this.codes, this.numbers);
  }

  meets(lits: readonly Lit[]): boolean {
    for (const lit of lits) if (!this.holds(lit)) return false;
    return true;
  }
}
