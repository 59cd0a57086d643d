/**
 * From a checked expression to one over slots alone: names get their slots, places and what options have are
 * written out.
 * What comes out reads nothing but numbered slots, so that whoever works with it needs no scope.
 */
import { check, insideOf } from './check';
import { SyntaxFailure } from './syntax';
import type { Expr, Iteration, Test } from './tree';
import { withLocal, type FeelType, type Place, type Scope } from './types';

const nothing = (at: number): Expr => ({ kind: 'literal', value: null, at });
const bare = (at: number): never => {
  throw new SyntaxFailure({ code: 'formula.unsupported', at, params: { what: 'place' } });
};

/**
 * Binds an expression that `check` found nothing wrong with. Throws SyntaxFailure where a place stands for a
 * value.
 */
export const bind = (expr: Expr, scope: Scope): Expr => new Binder().expr(expr, scope);

class Binder {
  /** Whether a field was read that the place at hand does not have. */
  private absent = false;

  expr(expr: Expr, scope: Scope): Expr {
    const of = (sub: Expr) => this.expr(sub, scope);
    switch (expr.kind) {
      case 'literal':
        return expr;
      case 'name':
        return this.named(expr, scope);
      case 'negate':
        return { ...expr, of: of(expr.of) };
      case 'compare':
        return this.ofNothing(expr, scope) ?? { ...expr, left: of(expr.left), right: of(expr.right) };
      case 'arithmetic':
      case 'logic':
        return { ...expr, left: of(expr.left), right: of(expr.right) };
      case 'in':
        return { ...expr, value: of(expr.value), tests: expr.tests.map((test) => this.test(test, scope)) };
      case 'if':
        return { ...expr, test: of(expr.test), then: of(expr.then), else: of(expr.else) };
      case 'list':
        return { ...expr, items: expr.items.map(of) };
      case 'call':
        return this.call(expr, scope);
      case 'path':
        return this.path(expr, scope);
      case 'filter': {
        if (this.places(expr, scope)) return bare(expr.at);
        const item = withLocal(scope, 'item', { is: 'unknown' });
        return { ...expr, list: of(expr.list), by: this.expr(expr.by, item.scope), slot: item.slot };
      }
      case 'quantified':
        return this.quantified(expr, scope);
      case 'for': {
        const [first] = expr.over;
        const places = first && this.places(first.list, scope);
        if (!first || !places) return this.loop(expr, scope);
        if (expr.over.length > 1) return bare(expr.at);
        return this.gather(places, (place) => this.expr(expr.body, local(scope, first.name, place)), expr.at);
      }
      case 'pick':
      case 'gather':
        return expr;
    }
  }

  private named(expr: Extract<Expr, { kind: 'name' }>, scope: Scope): Expr {
    const binding = scope.get(expr.name);
    if (!binding) throw new Error(`unchecked name ${expr.name}`);
    if (binding.type.is === 'places') return bare(expr.at);
    if (binding.absent) this.absent = true;
    return binding.expr ?? { kind: 'name', name: binding.id ?? expr.name, slot: binding.slot, at: expr.at };
  }

  /** The length of what is typed under a name; null where the name is something else. */
  private lengthOf(expr: Expr | undefined, scope: Scope): Expr | null {
    const type = expr?.kind === 'name' ? scope.get(expr.name)?.type : undefined;
    return type?.is === 'text' ? (type.length ?? null) : null;
  }

  /** A typed text compared with nothing: its length is, too. */
  private ofNothing(expr: Extract<Expr, { kind: 'compare' }>, scope: Scope): Expr | null {
    const isNothing = (each: Expr) => each.kind === 'literal' && each.value === null;
    const length = isNothing(expr.right)
      ? this.lengthOf(expr.left, scope)
      : isNothing(expr.left)
        ? this.lengthOf(expr.right, scope)
        : null;
    return length && { ...expr, left: length, right: nothing(expr.at) };
  }

  private test(test: Test, scope: Scope): Test {
    return test.kind === 'interval'
      ? { ...test, low: this.expr(test.low, scope), high: this.expr(test.high, scope) }
      : { ...test, expr: this.expr(test.expr, scope) };
  }

  private call(expr: Extract<Expr, { kind: 'call' }>, scope: Scope): Expr {
    const { name, args, at } = expr;
    if (name === 'today' && args.length === 0) return this.named({ kind: 'name', name, at }, scope);
    const length = name === 'string length' ? this.lengthOf(args[0], scope) : null;
    if (length) return length;
    const places = name === 'count' && args[0] ? this.places(args[0], scope) : null;
    if (!places) return { ...expr, args: args.map((arg) => this.expr(arg, scope)) };
    const one: Expr = { kind: 'literal', value: true, at };
    return { kind: 'call', name: 'count', args: [this.gather(places, () => one, at)], at };
  }

  private path(expr: Extract<Expr, { kind: 'path' }>, scope: Scope): Expr {
    const { name, at } = expr;
    const places = this.places(expr.of, scope);
    if (places) {
      const read = ({ fields }: Place): Expr => this.named({ kind: 'name', name, at }, fields);
      const [only] = places;
      if (typeOf(expr.of, scope).many) return this.gather(places, read, at);
      return only ? { kind: 'if', test: only.when, then: read(only), else: nothing(at), at } : nothing(at);
    }
    const { type, several } = typeOf(expr.of, scope);
    const found = type.is === 'text' ? type.facts?.told.get(name) : undefined;
    const of = this.expr(expr.of, scope);
    if (!found) return type.is === 'text' ? bare(at) : { ...expr, of };
    if (!several) return { kind: 'pick', of, cases: found.cases, at };
    const items = found.cases.map(([option, value]) => ({ when: contains(of, option, at), value }));
    return { kind: 'gather', items, at };
  }

  private quantified(expr: Extract<Expr, { kind: 'quantified' }>, scope: Scope): Expr {
    const [first, ...rest] = expr.over;
    const places = first && this.places(first.list, scope);
    if (!first || !places) return this.loop(expr, scope);
    const { at, every } = expr;
    const inner: Expr = rest.length > 0 ? { ...expr, over: rest } : expr.test;
    return places.reduce<Expr>(
      (all, place) => {
        const test = this.expr(inner, local(scope, first.name, place));
        const one: Expr = every
          ? {
              kind: 'logic',
              op: 'or',
              left: { kind: 'call', name: 'not', args: [place.when], at },
              right: test,
              at,
            }
          : { kind: 'logic', op: 'and', left: place.when, right: test, at };
        return { kind: 'logic', op: every ? 'and' : 'or', left: all, right: one, at };
      },
      { kind: 'literal', value: every, at },
    );
  }

  private loop(expr: Extract<Expr, { kind: 'quantified' | 'for' }>, scope: Scope): Expr {
    let inner = scope;
    const over = expr.over.map((each): Iteration => {
      const bound = {
        list: this.expr(each.list, inner),
        ...(each.to ? { to: this.expr(each.to, inner) } : {}),
      };
      const made = withLocal(inner, each.name, { is: 'unknown' });
      inner = made.scope;
      return { name: each.name, slot: made.slot, ...bound };
    });
    return expr.kind === 'for'
      ? { ...expr, over, body: this.expr(expr.body, inner) }
      : { ...expr, over, test: this.expr(expr.test, inner) };
  }

  /** Asked after what may have set it. */
  private wasAbsent(): boolean {
    return this.absent;
  }

  /** Places that do not have what is read of them are left out. */
  private gather(places: readonly Place[], value: (place: Place) => Expr, at: number): Expr {
    const items = places.flatMap((place) => {
      this.absent = false;
      const item = { when: place.when, value: value(place) };
      return this.wasAbsent() ? [] : [item];
    });
    this.absent = false;
    return { kind: 'gather', items, at };
  }

  /** The places an expression stands for; null where it is a value. */
  private places(expr: Expr, scope: Scope): readonly Place[] | null {
    if (expr.kind !== 'name' && expr.kind !== 'path' && expr.kind !== 'filter') return null;
    if (expr.kind === 'filter') {
      const all = this.places(expr.list, scope);
      if (!all) return null;
      if (expr.by.kind === 'literal' && typeof expr.by.value === 'object' && expr.by.value !== null)
        return all.slice(Number(expr.by.value) - 1, Number(expr.by.value));
      return all.map((place) => ({
        ...place,
        when: {
          kind: 'logic',
          op: 'and',
          left: place.when,
          right: this.expr(
            expr.by,
            insideOf(local(scope, 'item', place), { is: 'places', places: [place], many: false }),
          ),
          at: expr.at,
        },
      }));
    }
    const { type } = typeOf(expr, scope);
    return type.is === 'places' ? type.places : null;
  }
}

const local = (scope: Scope, name: string, place: Place): Scope =>
  new Map(scope).set(name, { slot: NaN, type: { is: 'places', places: [place], many: false } });

/** The type of an expression, or of the items of a list. */
function typeOf(expr: Expr, scope: Scope): { type: FeelType; several: boolean; many: boolean } {
  const type = check(expr, scope, []);
  const several = type.is === 'list';
  return { type: type.is === 'list' ? type.item : type, several, many: type.is === 'places' && type.many };
}

const contains = (list: Expr, option: string, at: number): Expr => ({
  kind: 'call',
  name: 'list contains',
  args: [list, { kind: 'literal', value: option, at }],
  at,
});
