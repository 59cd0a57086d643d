/** What the sheet knows of where its rows are: out of sight, near, just come; and which section is on top. */
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import css from './sheet.module.css';

/** Rows that the browser skips because they are out of sight. */
export class AwayRows {
  private readonly rows = new Set<string>();

  has(row: string): boolean {
    return this.rows.has(row);
  }

  /** Gives what ends it. */
  watch(element: HTMLElement): () => void {
    const row = element.dataset.row ?? '';
    const change = (event: Event) => {
      if ((event as ContentVisibilityAutoStateChangeEvent).skipped) this.rows.add(row);
      else this.rows.delete(row);
    };
    element.addEventListener('contentvisibilityautostatechange', change);
    return () => {
      element.removeEventListener('contentvisibilityautostatechange', change);
      this.rows.delete(row);
    };
  }
}

/**
 * The name of the section that the sheet is in, once its title goes out of sight, until the next title pushes it away: one line that
 * stays, where titles that stick would each be a layer of their own.
 */
export function SectionInSight({ sheet }: { sheet: RefObject<HTMLElement | null> }) {
  const [name, setName] = useState<string>();
  const [pushed, setPushed] = useState(0);
  useEffect(() => {
    const scroller = sheet.current;
    if (!scroller) return;
    const look = () => {
      const { scrollTop } = scroller;
      const sections = [...scroller.querySelectorAll<HTMLElement>('[data-section]')];
      const next = sections.findIndex((each) => each.offsetTop >= scrollTop);
      const now = sections.at(next < 0 ? -1 : next - 1);
      const title = now?.querySelector<HTMLElement>('h2');
      setName(next === 0 ? undefined : now?.dataset.section);
      setPushed(title && next > 0 ? Math.min(0, (sections[next] as HTMLElement).offsetTop - scrollTop - title.offsetHeight) : 0);
    };
    scroller.addEventListener('scroll', look, { passive: true });
    return () => scroller.removeEventListener('scroll', look);
  }, [sheet]);
  return name === undefined ? null : <p className={css.inSight} style={{ top: pushed }} data-in-sight aria-hidden>{name}</p>;
}

/** Tells which rows have come near to the window; once near, a row stays drawn. */
export function useNearness(on: boolean, root: { current: HTMLElement | null }, tell: (change: (before: ReadonlySet<string>) => ReadonlySet<string>) => void): (row: HTMLElement | null) => void {
  const observer = useRef<IntersectionObserver | null>(null);
  const waiting = useRef<HTMLElement[]>([]);
  useEffect(() => {
    if (!on) return;
    observer.current = new IntersectionObserver((entries) => {
      const come = entries.flatMap((entry) => (entry.isIntersecting && entry.target instanceof HTMLElement && entry.target.dataset.row ? [entry.target.dataset.row] : []));
      if (come.length > 0) tell((before) => new Set([...before, ...come]));
    }, { root: root.current, rootMargin: '600px 0px' });
    for (const row of waiting.current) observer.current.observe(row);
    waiting.current = [];
    return () => observer.current?.disconnect();
  }, [on, root, tell]);
  return useMemo(() => (row) => {
    if (!row || !on) return;
    if (observer.current) observer.current.observe(row);
    else waiting.current.push(row);
  }, [on]);
}

/** For how long a row that has come is laid out in any case. */
const comingFor = 300;

/**
 * Rows that come with a decision are laid out with the rest at once. With content-visibility the browser finds out only after the layout
 * that they are in sight, and does all of it again before it paints.
 */
export function useComing(): (row: HTMLElement | null) => void {
  const started = useRef(false);
  useEffect(() => { started.current = true; }, []);
  return useMemo(() => {
    let coming: HTMLElement[] = [];
    return (row) => {
      if (!row || !started.current) return;
      if (coming.length === 0) setTimeout(() => {
        for (const each of coming) each.style.contentVisibility = '';
        coming = [];
      }, comingFor);
      row.style.contentVisibility = 'visible';
      coming.push(row);
    };
  }, []);
}
