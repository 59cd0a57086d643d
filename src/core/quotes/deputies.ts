/**
 * Who signs in the place of whom. A deputy stands in from one day to another, both counted; where the deputy
 * has one on that day too, that one stands in for both.
 */

/** Somebody in the place of somebody else, from day to day. */
export interface Deputy {
  /** Who is stood in for. */
  of: string;
  /** Who stands in. */
  deputy: string;
  /** ISO days, both counted. */
  from: string;
  to: string;
}

/** All in whose place somebody may act on a day: not themselves, each once. */
export function standsInFor(deputies: readonly Deputy[], who: string, day: string): string[] {
  const today = deputies.filter(({ from, to }) => from <= day && day <= to);
  const found = new Set<string>();
  const open = [who];
  for (let at = open.pop(); at !== undefined; at = open.pop())
    for (const { of, deputy } of today)
      if (deputy === at && of !== who && !found.has(of)) {
        found.add(of);
        open.push(of);
      }
  return [...found];
}

/**
 * Where people would stand in for each other in a circle on some day, so that in the end nobody is there: the
 * first such day, and who is in it, each followed by their deputy. Null where there is none. Whoever would be
 * their own deputy is a circle of one.
 */
export function circleIn(deputies: readonly Deputy[]): { day: string; of: string[] } | null {
  // Whatever holds on some day holds on the first day of one of its spans.
  const days = [...new Set(deputies.map(({ from }) => from))].sort();
  for (const day of days) {
    const today = deputies.filter(({ from, to }) => from <= day && day <= to);
    const byWhom = new Map<string, Deputy[]>();
    for (const each of today) byWhom.set(each.of, [...(byWhom.get(each.of) ?? []), each]);
    const circle = circleOf(byWhom);
    if (circle) return { day, of: circle };
  }
  return null;
}

/** A way along deputies that comes back to where it began; each is left behind once it is known to lead nowhere. */
function circleOf(byWhom: ReadonlyMap<string, readonly Deputy[]>): string[] | null {
  const over = new Set<string>();
  for (const start of byWhom.keys()) {
    const way: string[] = [];
    const next: Deputy[][] = [];
    const enter = (who: string): void => {
      way.push(who);
      next.push([...(byWhom.get(who) ?? [])]);
    };
    if (!over.has(start)) enter(start);
    while (way.length > 0) {
      const step = next.at(-1)?.pop();
      if (!step) {
        over.add(way.pop() as string);
        next.pop();
      } else if (way.includes(step.deputy)) return way.slice(way.indexOf(step.deputy));
      else if (!over.has(step.deputy)) enter(step.deputy);
    }
  }
  return null;
}
