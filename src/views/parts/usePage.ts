import { useEffect, useRef, useState } from 'react';
import type { Page } from '../../contract';
import type { FindField } from '../../ui';
import type { Answer } from '../api';
import { pause } from './pause';

/** By which column a list is in order. */
export interface Order {
  by: string;
  descending: boolean;
}

/** What of a list is asked for. */
export interface Wanted {
  find: string;
  sort: string;
  descending: boolean;
  page: number;
}

/** A page of a list, and what turns it. */
export interface PageOf<T> {
  page: Page<T>;
  field: FindField;
  order: Order;
  onOrder: (by: string) => void;
  go: (page: number) => void;
  /** An answer is awaited. */
  busy: boolean;
}

/**
 * A list that the server finds, sorts and cuts into pages. Asked after a pause in typing; what comes late is
 * dropped.
 */
export function usePage<T>(
  load: (wanted: Wanted) => Promise<Answer<Page<T>>>,
  first: Page<T>,
  usual: Order,
): PageOf<T> {
  const [page, setPage] = useState(first);
  const [find, setFind] = useState('');
  const [order, setOrder] = useState(usual);
  const [busy, setBusy] = useState(false);
  const turn = useRef(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const turnTo = (wanted: { find: string; order: Order; page: number }, after: number): void => {
    const mine = ++turn.current;
    clearTimeout(timer.current);
    setBusy(true);
    timer.current = setTimeout(() => {
      const { find: words, order: by, page: at } = wanted;
      void load({ find: words, sort: by.by, descending: by.descending, page: at }).then((answer) => {
        if (turn.current !== mine) return;
        setBusy(false);
        if (answer.ok) setPage(answer.value);
      });
    }, after);
  };
  return {
    page,
    order,
    busy,
    field: {
      value: find,
      onChange: ({ target: { value } }) => {
        setFind(value);
        turnTo({ find: value, order, page: 0 }, pause);
      },
    },
    onOrder: (by) => {
      const next = { by, descending: order.by === by ? !order.descending : false };
      setOrder(next);
      turnTo({ find, order: next, page: 0 }, 0);
    },
    go: (to) => turnTo({ find, order, page: to }, 0),
  };
}
