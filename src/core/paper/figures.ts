/** The figures of a document, and whether each is what those that it is worked out from make. */
import { exact, roundHalfUp, type Exact } from '../exact';
import type { Figure, PaperDocument } from './types';

/** All figures by their ids, in the order in which they stand. */
export function figuresIn({ blocks }: PaperDocument): ReadonlyMap<string, Figure> {
  const found = new Map<string, Figure>();
  for (const node of blocks.flatMap(({ nodes }) => nodes)) {
    if (node.is === 'sums') for (const { figure } of node.rows) found.set(figure.id, figure);
    if (node.is === 'table')
      for (const { figure } of node.rows.flatMap(({ cells }) => cells))
        if (figure) found.set(figure.id, figure);
  }
  return found;
}

/** What a figure comes to by those it is worked out from; null where it is given, or one of them is not there. */
export function workedOut(figure: Figure, figures: ReadonlyMap<string, Figure>): Exact | null {
  const { works, decimals } = figure;
  if (!works) return null;
  const values = (ids: readonly string[]): Exact[] | null => {
    const found = ids.map((id) => figures.get(id));
    return found.some((each) => each === undefined)
      ? null
      : found.map((each) => exact((each as Figure).value));
  };
  const sum = (given: readonly Exact[]): Exact => given.reduce((all, each) => all.plus(each), exact(0));
  const product = (given: readonly Exact[]): Exact =>
    roundHalfUp(
      given.reduce((all, each) => all.times(each), exact(1)),
      decimals,
    );
  switch (works.is) {
    case 'product': {
      const of = values(works.of);
      return of && product(of);
    }
    case 'sum': {
      const [of, less] = [values(works.of), values(works.less ?? [])];
      return of && less && sum(of).minus(sum(less));
    }
    case 'rate': {
      const of = values(works.of);
      return of && roundHalfUp(sum(of).times(works.rate), decimals);
    }
    case 'across': {
      const of = works.of.map(values);
      return of.some((each) => each === null) ? null : sum((of as Exact[][]).map(product));
    }
  }
}
