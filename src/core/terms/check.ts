/** What is wrong with a row of terms before it is kept. */
import { exact, readExact } from '../exact';
import { policyNames, problemsOver } from '../pricing';
import { readLevels } from './levels';
import { termKinds, type TermField, type TermKindId } from './kinds';

/** A row of terms: what stands in its fields, and from and to which day it holds (null: always so far, until followed). */
export interface TermCells {
  readonly cells: Readonly<Record<string, string>>;
  readonly from: string | null;
  readonly to: string | null;
}

/** Something wrong; the sentence for its code is in the locale files. */
export interface TermProblem {
  code:
    | 'term.needed'
    | 'term.noNumber'
    | 'term.outside'
    | 'term.unknown'
    | 'term.tooLong'
    | 'term.badCode'
    | 'term.tooFine'
    | 'term.nobody'
    | 'term.rateOrPrice'
    | 'term.priceOfItem'
    | 'term.ofOne'
    | 'term.levels'
    | 'term.order'
    | 'term.condition'
    | 'term.backwards'
    | 'term.higher';
  field: string;
  params?: Record<string, string | number>;
}

/** What rows may name. */
export interface TermMeans {
  families: ReadonlySet<string>;
  items: ReadonlySet<string>;
  /** Lists, with the minor digits of their currencies. */
  lists: ReadonlyMap<string, number>;
  /** Numbers of customers. */
  customers: ReadonlySet<string>;
  roles: readonly string[];
  classes: readonly string[];
  regions: readonly string[];
  /** Currencies by their codes, with their minor digits. */
  currencies: ReadonlyMap<string, number>;
}

const longest = 200;
const codePattern = /^[A-Za-z0-9][A-Za-z0-9.-]{0,19}$/;

/** All that is wrong with a row. */
export function termProblems(kind: TermKindId, row: TermCells, means: TermMeans): TermProblem[] {
  const { fields } = termKinds[kind];
  const problems = fields.flatMap((field) => fieldProblem(field, row.cells[field.id] ?? '', means) ?? []);
  if (row.from !== null && row.to !== null && row.to < row.from)
    problems.push({ code: 'term.backwards', field: 'to' });
  // What cannot be read is mended before it is held against the rest.
  return problems.length > 0 ? problems : togetherProblems(kind, row.cells, means);
}

function fieldProblem(field: TermField, value: string, means: TermMeans): TermProblem | null {
  const { id, is, needed, options = [] } = field;
  if (value === '') return needed ? { code: 'term.needed', field: id } : null;
  const params = { value };
  const unknown = (known: boolean): TermProblem | null =>
    known ? null : { code: 'term.unknown', field: id, params };
  switch (is) {
    case 'text':
      return value.length > longest ? { code: 'term.tooLong', field: id } : null;
    case 'share': {
      const share = readExact(value);
      if (share === null) return { code: 'term.noNumber', field: id, params };
      if (share.lt(0) || share.gt(1)) return { code: 'term.outside', field: id, params };
      return share.decimalPlaces() > 6 ? { code: 'term.tooFine', field: id, params: { decimals: 6 } } : null;
    }
    case 'amount': {
      const amount = readExact(value);
      if (amount === null) return { code: 'term.noNumber', field: id, params };
      if (amount.isNegative()) return { code: 'term.outside', field: id, params };
      return amount.decimalPlaces() > 6 ? { code: 'term.tooFine', field: id, params: { decimals: 6 } } : null;
    }
    case 'count':
      return /^\d{1,3}$/.test(value) ? null : { code: 'term.noNumber', field: id, params };
    case 'mark':
      return unknown(value === '1');
    case 'word':
      return unknown(options.includes(value));
    case 'role':
      return unknown(means.roles.includes(value));
    case 'family':
      return unknown(means.families.has(value));
    case 'item':
      return unknown(means.items.has(value));
    case 'list':
      return unknown(means.lists.has(value));
    case 'class':
      return unknown(means.classes.includes(value));
    case 'customer':
      return unknown(means.customers.has(value));
    case 'country':
      return unknown(/^[A-Z]{2}$/.test(value));
    case 'currency':
      return unknown(means.currencies.has(value));
    case 'region':
      return unknown(means.regions.includes(value));
    case 'code':
      return codePattern.test(value) ? null : { code: 'term.badCode', field: id, params };
    case 'levels':
      return readLevels(value) ? null : { code: 'term.levels', field: id, params };
    case 'condition': {
      const [problem] = problemsOver(value, policyNames, 'yesno');
      return problem ? { code: 'term.condition', field: id, params: { at: problem.at + 1 } } : null;
    }
  }
}

/** What does not go together, where every field can be read by itself. */
function togetherProblems(
  kind: TermKindId,
  cells: Readonly<Record<string, string>>,
  means: TermMeans,
): TermProblem[] {
  const said = (id: string): boolean => (cells[id] ?? '') !== '';
  switch (kind) {
    case 'agreements':
    case 'promotions': {
      const problems: TermProblem[] = [];
      // An agreement is with somebody; a promotion may be for everybody.
      if (kind === 'agreements' && !said('customer') && !said('class'))
        problems.push({ code: 'term.nobody', field: 'customer' });
      if (said('customer') && said('class')) problems.push({ code: 'term.ofOne', field: 'class' });
      if (said('family') && said('sku')) problems.push({ code: 'term.ofOne', field: 'sku' });
      if (said('rate') === said('price')) problems.push({ code: 'term.rateOrPrice', field: 'rate' });
      if (said('price')) {
        if (!said('sku') || !said('list')) problems.push({ code: 'term.priceOfItem', field: 'price' });
        else {
          const decimals = means.lists.get(cells.list ?? '') ?? 2;
          if (exact(cells.price ?? '0').decimalPlaces() > decimals)
            problems.push({ code: 'term.tooFine', field: 'price', params: { decimals } });
        }
      }
      return problems;
    }
    case 'quantityDiscounts':
      return said('family') === said('sku') ? [{ code: 'term.ofOne', field: 'family' }] : [];
    case 'limits': {
      const [target, limit, floor] = ['target', 'limit', 'floor'].map((id) => exact(cells[id] ?? '0'));
      if (!target || !limit || !floor) return [];
      const inOrder =
        cells.by === 'discount'
          ? target.lte(limit) && limit.lte(floor)
          : target.gte(limit) && limit.gte(floor);
      return inOrder ? [] : [{ code: 'term.order', field: 'limit' }];
    }
    case 'commission':
      return exact(cells.higher ?? '0').lt(cells.base ?? '0')
        ? [{ code: 'term.higher', field: 'higher' }]
        : [];
    default:
      return [];
  }
}

/** What a row is about, as one text; its own where its kind has no key. */
export const termKey = (kind: TermKindId, { cells }: Pick<TermCells, 'cells'>, id: string): string => {
  const { key } = termKinds[kind];
  return key.length === 0 ? id : key.map((field) => cells[field] ?? '').join(' ');
};
