/**
 * What a formula says of the things around it, and where: names, fields behind a dot, and texts that stand for an
 * option since they are compared with a row. It is read from the text alone, so that a formula that does not
 * compile (yet) is understood too.
 */
import { beforeCell, parse, parseCell, SyntaxFailure } from './syntax';
import type { Expr, Iteration, Test } from './tree';

/** Something that a formula names. Places are those of its first character and behind its last. */
export type Mention = { from: number; to: number } & (
  | {
      is: 'name';
      name: string;
      /** The lists in whose filters it stands, the outermost first: it may be of their items. */
      within: readonly string[];
    }
  /** A field of what stands before the dot, as in `terminals.beacon`. */
  | { is: 'field'; of: string; name: string }
  /** A text, with the rows (by their names and dots) that it is compared with or is the value of. */
  | { is: 'text'; text: string; of: readonly string[] }
);

/** A model is gone through often while it is made, and few of its formulas differ from one time to the next. */
const known = new Map<string, readonly Mention[] | null>();
const mostKnown = 20_000;
function once(key: string, make: () => readonly Mention[] | null): readonly Mention[] | null {
  const before = known.get(key);
  if (before !== undefined) return before;
  if (known.size >= mostKnown) known.clear();
  const made = make();
  known.set(key, made);
  return made;
}

/** All that a formula mentions, in order; null where it cannot be read. `gives`: the row whose value it gives. */
export const mentionsIn = (source: string, gives = ''): readonly Mention[] | null =>
  once(`${gives}\n${source}`, () => heardIn(source, gives === '' ? undefined : gives));

const heardIn = (source: string, gives: string | undefined): Mention[] | null =>
  read(
    () => new Hearer(source, 0, 0),
    () => parse(source),
    gives,
  );

/** Names that a formula has for itself, for each item of a list; none where it cannot be read. */
export function ownNamesIn(source: string): string[] {
  const hearer = new Hearer(source, 0, 0);
  try {
    hearer.hear(parse(source), [], []);
  } catch (failure) {
    if (failure instanceof SyntaxFailure) return [];
    throw failure;
  }
  return [...hearer.own];
}

/** All that a cell of a table mentions, whose tests are of a row. */
export function mentionsInCell(name: string, cell: string): readonly Mention[] | null {
  if (cell.trim() === '-') return [];
  return once(`${name} in\n${cell}`, () =>
    read(
      () => new Hearer(cell, beforeCell(name, cell), name.length),
      () => parseCell(name, cell),
    ),
  );
}

function read(hearer: () => Hearer, parsed: () => Expr, gives?: string): Mention[] | null {
  try {
    const heard = hearer();
    const expr = parsed();
    heard.hear(expr, [], []);
    if (gives !== undefined) heard.texts(expr, [gives]);
    return heard.inOrder();
  } catch (failure) {
    if (failure instanceof SyntaxFailure) return null;
    throw failure;
  }
}

/** A text as it is written, with its quotes. */
const written = /"(?:\\.|[^"\\])*"/y;

class Hearer {
  private readonly found: Mention[] = [];
  /** Names that stand for items. */
  readonly own = new Set<string>();

  constructor(
    private readonly source: string,
    /** How much further right places are in what was parsed than in the source. */
    private readonly before: number,
    /** Names that stand before this place are not written in the source. */
    private readonly unwritten: number,
  ) {}

  inOrder(): Mention[] {
    // A text that is compared with two rows is one text.
    const texts = new Map<number, Mention>();
    return this.found
      .sort((one, other) => one.from - other.from)
      .filter((each) => {
        const known = each.is === 'text' ? texts.get(each.from) : undefined;
        if (each.is === 'text' && known?.is === 'text')
          texts.set(each.from, Object.assign(known, { of: [...new Set([...known.of, ...each.of])] }));
        else if (each.is === 'text') texts.set(each.from, each);
        return known === undefined;
      });
  }

  /** Walks an expression; `local` are names of its own, which mean nothing outside. */
  hear(expr: Expr, local: readonly string[], within: readonly string[]): void {
    const all = (parts: readonly Expr[]): void => parts.forEach((part) => this.hear(part, local, within));
    switch (expr.kind) {
      case 'name':
        if (!local.includes(expr.name)) this.name(expr, within);
        return;
      case 'path':
        this.hear(expr.of, local, within);
        this.field(expr, local);
        return;
      case 'compare':
        all([expr.left, expr.right]);
        this.compared(expr.left, expr.right, local);
        return;
      case 'in':
        this.hear(expr.value, local, within);
        for (const test of expr.tests) this.test(expr.value, test, local, within);
        return;
      case 'call': {
        all(expr.args);
        const [list, item] = expr.args;
        if (expr.name === 'list contains' && list && item) this.compared(list, item, local);
        return;
      }
      case 'filter': {
        this.hear(expr.list, local, within);
        this.hear(expr.by, [...local, 'item'], [...within, ...rowsOf(expr.list, local)]);
        return;
      }
      case 'for':
        this.hear(expr.body, this.iterations(expr.over, local, within), within);
        return;
      case 'quantified':
        this.hear(expr.test, this.iterations(expr.over, local, within), within);
        return;
      case 'if':
        all([expr.test, expr.then, expr.else]);
        return;
      case 'negate':
        this.hear(expr.of, local, within);
        return;
      case 'arithmetic':
      case 'logic':
        all([expr.left, expr.right]);
        return;
      case 'list':
        all(expr.items);
        return;
      default:
    }
  }

  /** Texts that an expression may come to are values of some rows. */
  texts(expr: Expr, of: readonly string[]): void {
    if (expr.kind === 'if') [expr.then, expr.else].forEach((part) => this.texts(part, of));
    else if (expr.kind === 'list') expr.items.forEach((part) => this.texts(part, of));
    else if (expr.kind === 'literal' && typeof expr.value === 'string') {
      const from = expr.at - this.before;
      written.lastIndex = from;
      const [text] = written.exec(this.source) ?? [];
      if (text !== undefined && of.length > 0)
        this.found.push({ is: 'text', text: expr.value, of, from, to: from + text.length });
    }
  }

  private name({ name, at }: { name: string; at: number }, within: readonly string[]): void {
    if (this.before > 0 && at < this.unwritten) return;
    const from = at - this.before;
    this.found.push({ is: 'name', name, within, from, to: from + name.length });
  }

  private field(expr: Extract<Expr, { kind: 'path' }>, local: readonly string[]): void {
    if (expr.nameAt === undefined) return;
    const from = expr.nameAt - this.before;
    for (const of of rowsOf(expr.of, local))
      this.found.push({ is: 'field', of, name: expr.name, from, to: from + expr.name.length });
  }

  private compared(left: Expr, right: Expr, local: readonly string[]): void {
    this.texts(right, rowsOf(left, local));
    this.texts(left, rowsOf(right, local));
  }

  private test(value: Expr, test: Test, local: readonly string[], within: readonly string[]): void {
    const parts = test.kind === 'interval' ? [test.low, test.high] : [test.expr];
    for (const part of parts) {
      this.hear(part, local, within);
      this.compared(value, part, local);
    }
  }

  private iterations(
    over: readonly Iteration[],
    local: readonly string[],
    within: readonly string[],
  ): readonly string[] {
    return over.reduce((known, { name, list, to }) => {
      this.hear(list, known, within);
      if (to) this.hear(to, known, within);
      this.own.add(name);
      return [...known, name];
    }, local);
  }
}

/** The rows whose value an expression may be, by their names and dots. */
function rowsOf(expr: Expr, local: readonly string[]): string[] {
  switch (expr.kind) {
    case 'name':
      return local.includes(expr.name) ? [] : [expr.name];
    case 'path':
      return rowsOf(expr.of, local).map((of) => `${of}.${expr.name}`);
    case 'filter':
      return rowsOf(expr.list, local);
    case 'if':
      return [...rowsOf(expr.then, local), ...rowsOf(expr.else, local)];
    default:
      return [];
  }
}
