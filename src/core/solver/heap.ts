/**
 * A binary heap of variables, the most active on top; each variable knows its place, so that its rank can
 * change in place.
 */
export class Heap {
  private readonly order: number[] = [];
  /** Place of a variable in `order`, -1 where it is not in the heap. */
  private readonly place: number[] = [];

  constructor(private rank: Float64Array) {}

  /** The ranks have moved to a larger array. */
  ranked(rank: Float64Array): void {
    this.rank = rank;
  }

  has(variable: number): boolean {
    return (this.place[variable] ?? -1) >= 0;
  }

  add(variable: number): void {
    while (this.place.length <= variable) this.place.push(-1);
    if (this.place[variable]! >= 0) return;
    this.place[variable] = this.order.length;
    this.order.push(variable);
    this.up(this.order.length - 1);
  }

  /** The rank of a variable has grown. */
  raised(variable: number): void {
    if (this.has(variable)) this.up(this.place[variable]!);
  }

  /** Takes the most active variable; -1 where there is none. */
  take(): number {
    const top = this.order[0];
    if (top === undefined) return -1;
    const last = this.order.pop()!;
    this.place[top] = -1;
    if (last !== top) {
      this.order[0] = last;
      this.place[last] = 0;
      this.down(0);
    }
    return top;
  }

  private up(from: number): void {
    const { order, place, rank } = this;
    const variable = order[from]!;
    const own = rank[variable]!;
    let at = from;
    while (at > 0) {
      const parent = (at - 1) >> 1;
      const above = order[parent]!;
      if (rank[above]! >= own) break;
      order[at] = above;
      place[above] = at;
      at = parent;
    }
    order[at] = variable;
    place[variable] = at;
  }

  private down(from: number): void {
    const { order, place, rank } = this;
    const variable = order[from]!;
    const own = rank[variable]!;
    let at = from;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= order.length) break;
      if (child + 1 < order.length && rank[order[child + 1]!]! > rank[order[child]!]!) child++;
      const below = order[child]!;
      if (rank[below]! <= own) break;
      order[at] = below;
      place[below] = at;
      at = child;
    }
    order[at] = variable;
    place[variable] = at;
  }
}
