/** Reads conditions of sentences into expressions. Verbs may stand in any of their orders. */
import type { Comparison, Expr, Test } from '../../formula';
import { eachOf, type Frames } from './frames';
import { shapeParts } from './pieces';
import type { Order, Phrases, Relation } from './phrases';
import { ValueReader } from './read-value';
import type { RowWord } from './words';

const at = 0;
const not = (of: Expr): Expr => ({ kind: 'call', name: 'not', args: [of], at });
const comparisons: Readonly<Partial<Record<Relation, Comparison>>> = {
  is: '=',
  isNot: '!=',
  lessThan: '<',
  atMost: '<=',
  moreThan: '>',
  atLeast: '>=',
  before: '<',
  notAfter: '<=',
  after: '>',
  notBefore: '>=',
};

/** A way to say a relation. */
interface Way {
  relation: Relation;
  order: Order;
  before: string;
  behind: string;
}

const waysKnown = new WeakMap<Phrases, readonly Way[]>();

/** All ways to say something of something, each once. */
function waysOf(phrases: Phrases): readonly Way[] {
  const known = waysKnown.get(phrases);
  if (known) return known;
  const ways = new Map<string, Way>();
  for (const [relation, orders] of Object.entries(phrases.relations) as [
    Relation,
    Phrases['relations'][Relation],
  ][])
    for (const [order, [before, behind]] of Object.entries(orders) as [Order, readonly [string, string]][]) {
      const key = `${relation}|${before}|${behind}`;
      if (!ways.has(key)) ways.set(key, { relation, order, before, behind });
    }
  const found = [...ways.values()];
  waysKnown.set(phrases, found);
  return found;
}

/** Something that is spoken of: a row, or any value. */
interface Subject {
  expr: Expr;
  row?: RowWord;
}

/** A condition, and whether its verb says "must". */
export interface ConditionRead {
  expr: Expr;
  must: boolean;
}

/** Reads conditions. */
export class ConditionReader extends ValueReader {
  /** Whether some verb since the last look said "must". */
  private saidMust = false;

  /** A condition; `must` where one of its verbs says so. */
  condition(frames: Frames): ConditionRead | null {
    const { scanner, phrases } = this;
    this.saidMust = false;
    const led = [phrases.holdsThat, phrases.mayNot, phrases.must].some(
      (each) => each !== '' && scanner.words(each) !== null,
    );
    const expr = this.either(frames);
    return expr && { expr, must: led || this.saidMust };
  }

  private either(frames: Frames): Expr | null {
    return this.chain('or', () => this.chain('and', () => this.single(frames)));
  }

  private chain(op: 'and' | 'or', part: () => Expr | null): Expr | null {
    let left = part();
    while (left) {
      const before: Expr = left;
      const right = this.scanner.attempt(() => (this.scanner.words(this.phrases[op]) ? part() : null));
      if (!right) return left;
      left = { kind: 'logic', op, left: before, right, at };
    }
    return null;
  }

  private single(frames: Frames): Expr | null {
    const { scanner, phrases } = this;
    return scanner.first<Expr>(
      () => this.ofBuilds(phrases.every, true, frames),
      () => this.ofBuilds(phrases.some, false, frames),
      () => this.howMany(phrases.atLeastOf, '>=', frames),
      () => this.howMany(phrases.atMostOf, '<=', frames),
      () => this.howMany(phrases.exactlyOf, '=', frames),
      () => {
        if (!scanner.words(phrases.not)) return null;
        const inner = this.inBrackets(() => this.either(frames));
        return inner && not(inner);
      },
      () => this.said(frames),
      () => this.inBrackets(() => this.either(frames)),
    );
  }

  private ofBuilds(shape: string, every: boolean, frames: Frames): Expr | null {
    const [head] = shapeParts(shape);
    if (!head || !('words' in head) || !this.scanner.words(head.words)) return null;
    const of = this.within(frames);
    if (!of?.at.inside) return null;
    const name = eachOf(frames);
    const inner: Frames = [...frames, { words: of.at.inside, each: name }];
    const test = this.inBrackets(() => this.either(inner));
    return test && { kind: 'quantified', every, over: [{ name, list: of.expr }], test, at };
  }

  /** "at least 2 of (A; B; C)". */
  private howMany(shape: string, op: Comparison, frames: Frames): Expr | null {
    const count = this.scanner.shape<{ count: Expr }>(shape, { count: () => this.number('') })?.count;
    const items = count && this.inBrackets(() => this.separated(() => this.either(frames)));
    if (!items) return null;
    const list: Expr = { kind: 'list', items, at };
    const taken: Expr = { kind: 'filter', list, by: { kind: 'name', name: 'item', at }, at };
    return {
      kind: 'compare',
      op,
      left: { kind: 'call', name: 'count', args: [taken], at },
      right: count,
      at,
    };
  }

  /** Something said of a row, or else of any value; the way that reads most of the text. */
  private said(frames: Frames): Expr | null {
    const { scanner } = this;
    return scanner.first<Expr>(
      () => {
        const read = this.row(frames);
        return read && this.relation({ expr: read.expr, row: read.row }, frames);
      },
      () => {
        const expr = this.value(frames);
        return expr && this.relation({ expr }, frames);
      },
    );
  }

  private relation(subject: Subject, frames: Frames): Expr | null {
    const { scanner } = this;
    let best: { way: Way; to: number } | undefined;
    for (const way of waysOf(this.phrases)) {
      const from = scanner.at;
      const { length } = scanner.tokens;
      if (this.inWay(way, subject, frames) && (!best || scanner.at > best.to)) best = { way, to: scanner.at };
      scanner.at = from;
      scanner.tokens.length = length;
    }
    if (!best) return null;
    if (best.way.order === 'must' || best.way.order === 'bare') this.saidMust = true;
    return this.inWay(best.way, subject, frames);
  }

  private inWay({ relation, before, behind }: Way, subject: Subject, frames: Frames): Expr | null {
    const { scanner } = this;
    return scanner.attempt(() => {
      if (before !== '' && !scanner.words(before)) return null;
      const found = this.meant(relation, subject, frames);
      return found && (behind === '' || scanner.words(behind)) ? found : null;
    });
  }

  private meant(relation: Relation, { expr, row }: Subject, frames: Frames): Expr | null {
    switch (relation) {
      case 'taken':
      case 'holds':
        return expr;
      case 'takenNot':
      case 'holdsNot':
        return not(expr);
      case 'given':
      case 'givenNot': {
        const nothing: Expr = { kind: 'literal', value: null, at };
        return { kind: 'compare', op: relation === 'given' ? '!=' : '=', left: expr, right: nothing, at };
      }
      case 'includes':
      case 'includesNot': {
        const option = row?.is === 'several' ? this.option(row) : null;
        const contains: Expr | null = option && {
          kind: 'call',
          name: 'list contains',
          args: [expr, option],
          at,
        };
        return contains && relation === 'includesNot' ? not(contains) : contains;
      }
      case 'oneOf':
      case 'noneOf': {
        const tests = this.values(row, frames);
        const among: Expr | null = tests && { kind: 'in', value: expr, tests, at };
        return among && relation === 'noneOf' ? not(among) : among;
      }
      case 'between': {
        const low = this.compared(row, frames);
        const high = low && this.scanner.words(this.phrases.and) ? this.compared(row, frames) : null;
        const tests: Test[] | null = low &&
          high && [{ kind: 'interval', low, high, lowOpen: false, highOpen: false }];
        return tests && { kind: 'in', value: expr, tests, at };
      }
      default: {
        const right = this.compared(row, frames);
        return right && { kind: 'compare', op: comparisons[relation] ?? '=', left: expr, right, at };
      }
    }
  }

  private option(row: RowWord): Expr | null {
    if (row.options.length === 0) return null;
    this.scanner.expect({ is: 'option', options: row.options, of: row });
    const option = this.scanner.name(row.options, 'option');
    return option && { kind: 'literal', value: option.id, at };
  }

  /** What a row is compared with. */
  private compared(row: RowWord | undefined, frames: Frames): Expr | null {
    const { scanner, phrases } = this;
    return scanner.first<Expr>(
      () => (row ? this.option(row) : null),
      () => (scanner.words(phrases.yes) ? { kind: 'literal', value: true, at } : null),
      () => (scanner.words(phrases.no) ? { kind: 'literal', value: false, at } : null),
      () => this.value(frames, row?.unit),
    );
  }

  /** "A, B or C". */
  private values(row: RowWord | undefined, frames: Frames): Test[] | null {
    const { scanner } = this;
    const first = this.compared(row, frames);
    if (!first) return null;
    const found = [first];
    const next = (separator: () => unknown): boolean => {
      const read = scanner.attempt(() => (separator() ? this.compared(row, frames) : null));
      if (read) found.push(read);
      return read !== null;
    };
    // A comma with no "or" behind it is one of the sentence, such as that behind "when".
    const several = scanner.attempt(() => {
      while (next(() => scanner.pattern(/,/, 'word')));
      return next(() => scanner.words(this.phrases.or)) ? true : null;
    });
    if (!several) found.length = 1;
    return found.map((each): Test => ({ kind: 'equals', expr: each }));
  }
}
