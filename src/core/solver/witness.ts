import { variableOf, type Lit } from './literal';
import type { Numbers } from './numbers';

/** A complete assignment that meets every constraint: the proof that something can be had. Never changed once made. */
export class Witness {
  constructor(
    /** 1 where the variable is true. Bound literals made later are read from `codes`. */
    readonly bits: Uint8Array,
    /** Value of each number. */
    readonly codes: Int32Array,
    private readonly numbers: Numbers,
  ) {}

  holds(lit: Lit): boolean {
    const variable = variableOf(lit);
    const bit = variable < this.bits.length ? this.bits[variable]! : this.numbers.cutHolds(variable, this.codes) ? 1 : 0;
    return (bit ^ (lit & 1)) === 1;
  }

  meets(lits: readonly Lit[]): boolean {
    for (const lit of lits) if (!this.holds(lit)) return false;
    return true;
  }
}
