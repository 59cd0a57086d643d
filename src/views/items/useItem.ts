import { useState } from 'react';
import type { ItemView } from '../../contract';
import { differing, type Item } from '../../core/items';
import type { Refusal } from '../api';

/** An item while it is changed. */
export interface ItemDraft {
  item: Item;
  changed: boolean;
  /** Something typed cannot be read. */
  wrong: boolean;
  change: (more: Partial<Item>) => void;
  /** Says of a field whether what is typed there can be read. */
  mark: (field: string, wrong: boolean) => void;
  /** Why the server refused what stands in a field. */
  errorAt: (field: string) => string | undefined;
  /** Begins anew from what is kept. */
  begin: (item: Item) => void;
  /** Another one with each beginning: fields that hold what was typed begin anew with it. */
  turn: number;
}

/** The fields of an item that are different, as they are sent. */
export const changedFields = (before: Item, after: Item): Partial<Item> =>
  Object.fromEntries(differing(before, after).map((field) => [field, after[field]]));

/** An item as it is typed. */
export function useItem(view: ItemView, refusals: readonly Refusal[]): ItemDraft {
  const [item, setItem] = useState(view.item);
  const [marks, setMarks] = useState<ReadonlySet<string>>(new Set());
  const [turn, setTurn] = useState(0);
  return {
    item,
    changed: Object.keys(changedFields(view.item, item)).length > 0,
    wrong: marks.size > 0,
    change: (more) => setItem((now) => ({ ...now, ...more })),
    mark: (field, wrong) =>
      setMarks((now) => {
        if (now.has(field) === wrong) return now;
        const next = new Set(now);
        if (wrong) next.add(field);
        else next.delete(field);
        return next;
      }),
    errorAt: (field) => refusals.find((each) => each.field === field)?.message,
    begin: (next) => {
      setItem(next);
      setMarks(new Set());
      setTurn((now) => now + 1);
    },
    turn,
  };
}
