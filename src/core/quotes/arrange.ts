/** The order of lines, and the groups in it. Lines of one group always stand together. */

/** A line as far as its place matters. */
export interface Arranged {
  id: string;
  /** Name of the group; null where the line stands by itself. */
  group: string | null;
}

/**
 * Lines moved, in their order among themselves, to a place counted from 1; beyond the last they are the last.
 * A line that comes to stand inside a group belongs to it; at the edge of its own group it stays in it;
 * anywhere else it stands by itself. A whole group that is moved stays one, and lands beside another, never
 * inside.
 */
export function moved<L extends Arranged>(lines: readonly L[], ids: readonly string[], to: number): L[] {
  const going = new Set(ids);
  const moving = lines.filter((line) => going.has(line.id));
  const staying = lines.filter((line) => !going.has(line.id));
  let place = Math.max(0, Math.min(staying.length, to - 1));
  const whole = wholeGroup(lines, moving);
  if (whole !== undefined) {
    while (place > 0 && place < staying.length && inside(staying, place) !== null) place += 1;
    return [...staying.slice(0, place), ...moving, ...staying.slice(place)];
  }
  const around = inside(staying, place);
  const beside = [staying[place - 1]?.group ?? null, staying[place]?.group ?? null];
  const placed = moving.map((line) =>
    regrouped(
      line,
      around ??
        (line.group !== null && beside.includes(line.group)
          ? line.group
          : staying.some((each) => each.group === line.group)
            ? null
            : line.group),
    ),
  );
  return together([...staying.slice(0, place), ...placed, ...staying.slice(place)]);
}

/**
 * Lines put into a group, at its end; into a new one where the first of them stands. With null they leave
 * theirs, to the place after it.
 */
export function grouped<L extends Arranged>(
  lines: readonly L[],
  ids: readonly string[],
  group: string | null,
): L[] {
  const going = new Set(ids);
  const moving = lines.filter((line) => going.has(line.id));
  if (group !== null) {
    const already = lines.some((line) => line.group === group && !going.has(line.id));
    if (!already) {
      const first = lines.findIndex((line) => going.has(line.id));
      const staying = lines.filter((line) => !going.has(line.id));
      let place = lines.slice(0, first).filter((line) => !going.has(line.id)).length;
      while (place > 0 && place < staying.length && inside(staying, place) !== null) place += 1;
      return [
        ...staying.slice(0, place),
        ...moving.map((line) => regrouped(line, group)),
        ...staying.slice(place),
      ];
    }
    const staying = lines.filter((line) => !going.has(line.id));
    const last = staying.reduce((at, line, index) => (line.group === group ? index : at), -1);
    return [
      ...staying.slice(0, last + 1),
      ...moving.map((line) => regrouped(line, group)),
      ...staying.slice(last + 1),
    ];
  }
  let made = [...lines];
  for (const line of [...moving].reverse()) {
    if (line.group === null) continue;
    const others = made.filter((each) => each.id !== line.id);
    const last = others.reduce((at, each, index) => (each.group === line.group ? index : at), -1);
    const place = last < 0 ? made.findIndex((each) => each.id === line.id) : last + 1;
    made = [...others.slice(0, place), regrouped(line, null), ...others.slice(place)];
  }
  return made;
}

const regrouped = <L extends Arranged>(line: L, group: string | null): L =>
  line.group === group ? line : { ...line, group };

/** The group that a place between two lines is inside of. */
function inside(lines: readonly Arranged[], place: number): string | null {
  const [left, right] = [lines[place - 1]?.group ?? null, lines[place]?.group ?? null];
  return left !== null && left === right ? left : null;
}

/** The group of which exactly the moving lines are all. */
function wholeGroup(lines: readonly Arranged[], moving: readonly Arranged[]): string | undefined {
  const group = moving[0]?.group ?? null;
  if (group === null || moving.some((line) => line.group !== group)) return undefined;
  return lines.filter((line) => line.group === group).length === moving.length ? group : undefined;
}

/** Lines of a group that was torn apart come to where its first one stands. */
function together<L extends Arranged>(lines: readonly L[]): L[] {
  const made: L[] = [];
  const done = new Set<string>();
  for (const line of lines) {
    if (line.group === null) made.push(line);
    else if (!done.has(line.group)) {
      done.add(line.group);
      made.push(...lines.filter((each) => each.group === line.group));
    }
  }
  return made;
}
