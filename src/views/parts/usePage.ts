import { useEffect, useRef, useState } from 'react';
import type { Page } from '../../core/quoting';
import type { FindField } from '../../ui';
import { ask } from '../api';
import { pause } from './pause';

export interface Order {
  by: string;
  descending: boolean;
}

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
export function usePage<T>(path: string, first: Page<T>, usual: Order): PageOf<T> {
  const [page, setPage] = useState(first);
  const [find, setFind] = useState('');
  const [order, setOrder] = useState(usual);
  const [busy, setBusy] = useState(false);
  const turn = useRef(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const load = (wanted: { find: string; order: Order; page: number }, after: number): void => {
    const mine = ++turn.current;
    clearTimeout(timer.current);
    setBusy(true);
    timer.current = setTimeout(() => {
      const query = new URLSearchParams({
        find: wanted.find,
        sort: wanted.order.by,
        descending: String(wanted.order.descending),
        page: String(wanted.page),
      });
      void ask<Page<T>>('GET', `${path}?${query.toString()}`).then((answer) => {
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
        load({ find: value, order, page: 0 }, pause);
      },
    },
    onOrder: (by) => {
      const next = { by, descending: order.by === by ? !order.descending : false };
      setOrder(next);
      load({ find, order: next, page: 0 }, 0);
    },
    go: (to) => load({ find, order, page: to }, 0),
  };
}
