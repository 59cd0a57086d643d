/** What stands one below the other in the Ledger: groups, lines, and the parts of builds that are opened. */
import { across, sumLines, type AcrossRow, type PricedPart, type Totals } from '../../../core/pricing';
import type { LineView } from '../../../contract';

/** A row of the grid. */
export type LedgerRow =
  | { is: 'group'; key: string; name: string; lines: LineView[]; open: boolean; totals: Totals }
  | { is: 'line'; key: string; line: LineView; open: boolean }
  /** What a line is made of where it does not multiply across as a whole. */
  | { is: 'across'; key: string; line: LineView; across: AcrossRow }
  | { is: 'part'; key: string; line: LineView; part: PricedPart };

/** Groups stand open and builds closed until told otherwise: both sets name what was turned. */
export function rowsOf(
  lines: readonly LineView[],
  decimals: number,
  closedGroups: ReadonlySet<string>,
  openLines: ReadonlySet<string>,
): LedgerRow[] {
  const rows: LedgerRow[] = [];
  const groups = new Map<string, LineView[]>();
  for (const line of lines)
    if (line.group !== null) groups.set(line.group, [...(groups.get(line.group) ?? []), line]);
  let at: string | null = null;
  for (const line of lines) {
    const { group } = line;
    if (group !== null && group !== at) {
      const own = groups.get(group) ?? [];
      const counted = own.filter((each) => !each.optional && !each.alternative).map((each) => each.price);
      rows.push({
        is: 'group',
        key: `group ${group}`,
        name: group,
        lines: own,
        open: !closedGroups.has(group),
        totals: sumLines(counted, decimals),
      });
    }
    at = group;
    if (group !== null && closedGroups.has(group)) continue;
    const open = openLines.has(line.id);
    rows.push({ is: 'line', key: line.id, line, open });
    if (open)
      rows.push(
        ...madeOf(line).map((each, index): LedgerRow => ({
          is: 'across',
          key: `${line.id} across ${String(index)}`,
          line,
          across: each,
        })),
        ...(line.build?.parts ?? []).map((part): LedgerRow => ({
          is: 'part',
          key: `${line.id} ${part.id}`,
          line,
          part,
        })),
      );
  }
  return rows;
}

/**
 * The rows that a line is made of, where they are several; its share of a discount on the whole has its own
 * column.
 */
export function madeOf({ price, quantity }: LineView): AcrossRow[] {
  const rows = across(price, quantity);
  return rows.filter(({ is }) => is !== 'share').length > 1 ? rows : [];
}

/** Whether a line opens into parts. */
export const hasParts = (line: LineView): boolean =>
  (line.build?.parts.length ?? 0) > 0 || madeOf(line).length > 0;

/** Where moved lines come to stand when dropped beside another: counted from 1 among the lines that stay. */
export function placeBeside(
  lines: readonly LineView[],
  moving: readonly string[],
  beside: string,
  after: boolean,
): number {
  const going = new Set(moving);
  const staying = lines.filter((line) => !going.has(line.id));
  const at = staying.findIndex((line) => line.id === beside);
  if (at >= 0) return at + 1 + (after ? 1 : 0);
  // Dropped beside one of themselves: they stay where the first of them was.
  const first = lines.findIndex((line) => line.id === beside);
  return lines.slice(0, first).filter((line) => !going.has(line.id)).length + 1;
}

/** All lines from one to another, both among them, in whatever order they were pointed at. */
export function between(lines: readonly LineView[], from: string, to: string): string[] {
  const [a, b] = [lines.findIndex((line) => line.id === from), lines.findIndex((line) => line.id === to)];
  return a < 0 || b < 0 ? [to] : lines.slice(Math.min(a, b), Math.max(a, b) + 1).map((line) => line.id);
}
