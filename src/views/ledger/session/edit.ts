/** Edits of a quote as the contract declares them, and what of them the page can price itself meanwhile. */
import {
  type AnswerOf,
  type Contract,
  type PlaceOf,
  type QuoteChanges,
  type RatesInput,
  type TypedInput,
  typedOf,
} from '../../../contract';
import { exact, plainMoney } from '../../../core/exact';
import type { Term, Typed } from '../../../core/pricing';
import type { SentTo, Way } from '../../api';
import type { LocalEdit } from './requote';

/** Endpoints beneath a quote that change it. */
export type EditWay = {
  [W in Way]: W extends `${string} /quotes/{id}${string}`
    ? QuoteChanges extends AnswerOf<Contract[W]>
      ? W
      : never
    : never;
}[Way];

/** What an edit says; the quote and its version are the session's to add. */
export type EditOf<W extends EditWay> = { input: Omit<SentTo<W>, 'version'> } & (keyof Omit<
  PlaceOf<W>,
  'id'
> extends never
  ? { at?: undefined }
  : { at: Omit<PlaceOf<W>, 'id'> });

/** An edit as it waits to be sent. */
export interface Edit {
  way: EditWay;
  at: Readonly<Record<string, string>>;
  input: object;
}

/** What may be typed on lines. */
export interface LineChange {
  quantity?: string | number;
  hand?: TypedInput | null;
  locked?: boolean;
  optional?: boolean;
  term?: Term;
  price?: string;
  cost?: string | null;
  rates?: RatesInput | null;
  /** A dealer's own selling price. */
  resale?: string | null;
}

/** A typed figure as pricing takes it; null where it is taken back. */
export const localTyped = (typed: TypedInput | null): Typed | null => typed && typedOf(typed);

/** What a change of a line does to its price, as far as the page can work it out. */
export function localEdit(
  line: string,
  { quantity, hand, price, cost, rates: _rates, resale: _resale, ...others }: LineChange,
): LocalEdit {
  return {
    of: 'line',
    line,
    ...others,
    ...(quantity === undefined ? {} : { quantity: Number(quantity) }),
    ...(hand === undefined ? {} : { hand: localTyped(hand) }),
    ...(price === undefined ? {} : { typedPrice: exact(plainMoney(price)).toString() }),
    ...(cost === undefined ? {} : { typedCost: cost === null ? null : exact(plainMoney(cost)).toString() }),
  };
}
