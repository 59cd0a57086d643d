/** What can be had beside the decisions, and what could be had at all. */
import type { Lit } from '../../solver';
import type { Encoding } from '../encoding/encoding';
import type { Standing } from '../types';
import { rangesOf, type Range } from '../bounds/ranges';
import type { WitnessCache } from './witness-cache';
import type { Code, Variable } from '../encoding/variables';

/** Reads from what can be had how options and numbers stand. */
export class Standings {
  /** By key: codes that some build of the context has, or has not; what is once known stays known. */
  private readonly possible: (boolean | undefined)[] = [];

  constructor(
    private readonly encoding: Encoding,
    private readonly witnesses: WitnessCache,
    /** Without any decision. */
    private readonly context: WitnessCache,
  ) {}

  /**
   * Whether a value can be had beside the decisions; one's own decision on the variable is the one that it
   * would replace.
   */
  free(code: Code, own?: readonly Lit[]): boolean {
    const free = this.witnesses.can(code.wish, own);
    if (free) this.possible[code.wish.key] = true;
    return free;
  }

  /** Whether the row can do without existing. */
  canHide({ hidden }: Variable): boolean {
    return hidden !== null && this.witnesses.can(hidden);
  }

  /** The standing of what is not free. */
  refused(code: Code): Standing {
    return this.inContext(code) ? 'swap' : 'barred';
  }

  /** The same where it is known already. */
  known({ wish }: Code): Standing | undefined {
    const possible = this.possible[wish.key];
    return possible === undefined ? undefined : possible ? 'swap' : 'barred';
  }

  /** What could not be decided in the budget is left out, and told. */
  ranges(variable: Variable, own: readonly Lit[] | undefined, unsure: () => void): Range[] {
    return variable.row.kind === 'number'
      ? rangesOf(variable.row, this.encoding, this.witnesses, own, unsure)
      : [];
  }

  private inContext(code: Code): boolean {
    const known =
      this.possible[code.wish.key] ?? (this.witnesses.coreOf(code.wish)?.length === 0 ? false : undefined);
    if (known !== undefined) return known;
    this.context.startFrom(this.witnesses.base);
    const possible = this.context.can(code.wish);
    this.possible[code.wish.key] = possible;
    return possible;
  }
}
