/** What another version of a model would make of a build as somebody decided it: the same, or what else. */
import { pictureOf, type BenchMeans, type BenchPicture, type BuildContent } from '../builds';
import { checkDecisions, differences, type Difference, type State } from '../engine';

/** Something before and after; the same where it does not change. */
interface BothWays<T> {
  before: T;
  after: T;
}

/** What becomes of a build. */
export interface BuildImpact {
  /**
   * same: all that is told of it is as it was. other: it stands, with other values, price, number or lead time.
   * decide: somebody has to, since something is open or clashes. lost: something that was decided is no longer
   * there.
   */
  is: 'same' | 'other' | 'decide' | 'lost';
  /** Rows whose value is another by itself. */
  changes: Difference[];
  /** Rows whose decision has no place any more. */
  dropped: string[];
  /** Rows that are to be decided by now, and were not before. */
  open: string[];
  /** Decisions that cannot stand together by now, with the rules that say so. */
  clashes: State['clashes'];
  /** At list price, as far as it can be told. */
  price: BothWays<string>;
  number: BothWays<string>;
  /** Working days; null while something is open. */
  leadDays: BothWays<number | null>;
}

/** Works out what becomes of a build; both means differ in their models, and may in prices and days too. */
export function impactOn(
  before: BenchMeans,
  after: BenchMeans,
  { decisions, special }: Pick<BuildContent, 'decisions' | 'special'>,
): BuildImpact {
  const dropped = [...new Set(checkDecisions(after.engine.model, decisions).map((problem) => problem.on))];
  const [was, is] = [
    pictureOf(before, { decisions, special }),
    pictureOf(after, { decisions: decisions.filter(({ on }) => !dropped.includes(on)), special }),
  ];
  const toDo = ({ state }: BenchPicture): string[] =>
    Object.entries(state.rows).flatMap(([row, { shown, todo }]) => (shown && todo ? [row] : []));
  const opened = new Set(toDo(was));
  const told = {
    changes: differences(was.state, is.state),
    dropped,
    open: toDo(is).filter((row) => !opened.has(row)),
    // What clashed before clashes by no fault of the other version.
    clashes: was.state.clashes.length > 0 ? [] : is.state.clashes,
    price: { before: was.price.list, after: is.price.list },
    number: { before: was.number.text, after: is.number.text },
    leadDays: { before: was.leadDays, after: is.leadDays },
  };
  return { is: verdictOf(told), ...told };
}

function verdictOf({
  changes,
  dropped,
  open,
  clashes,
  price,
  number,
  leadDays,
}: Omit<BuildImpact, 'is'>): BuildImpact['is'] {
  if (dropped.length > 0) return 'lost';
  if (open.length > 0 || clashes.length > 0) return 'decide';
  const alike =
    changes.length === 0 &&
    price.before === price.after &&
    number.before === number.after &&
    leadDays.before === leadDays.after;
  return alike ? 'same' : 'other';
}
