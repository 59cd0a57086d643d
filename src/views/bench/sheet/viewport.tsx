/** What the sheet knows of where its rows are: out of sight, near, just come; and which section is on top. */
import { startTransition, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import css from './sheet.module.css';

/** Rows that the browser skips because they are out of sight. */
export class AwayRows {
  private readonly rows = new Set<string>();

  has(row: string): boolean {
    return this.rows.has(row);
  }

  /** Watches a row, or rows that are skipped together; gives what ends it. */
  watch(element: HTMLElement, rows: readonly string[]): () => void {
    const change = (event: Event) => {
      // What is inside may tell of itself.
      if (event.target !== element) return;
      for (const row of rows)
        if ((event as ContentVisibilityAutoStateChangeEvent).skipped) this.rows.add(row);
        else this.rows.delete(row);
    };
    element.addEventListener('contentvisibilityautostatechange', change);
    return () => {
      element.removeEventListener('contentvisibilityautostatechange', change);
      for (const row of rows) this.rows.delete(row);
    };
  }
}

/**
 * The name of the section that the sheet is in, once its title goes out of sight, until the next title pushes
 * it away: one line that stays, where titles that stick would each be a layer of their own.
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
      setPushed(
        title && next > 0
          ? Math.min(0, (sections[next] as HTMLElement).offsetTop - scrollTop - title.offsetHeight)
          : 0,
      );
    };
    scroller.addEventListener('scroll', look, { passive: true });
    return () => scroller.removeEventListener('scroll', look);
  }, [sheet]);
  return name === undefined ? null : (
    <p className={css.inSight} style={{ top: pushed }} data-in-sight aria-hidden>
      {name}
    </p>
  );
}

/** How far from the window something is near, in CSS pixels. */
const nearBy = 600;

/** Rows of a long sheet that have come near to the window, in groups. Once near, a row stays drawn. */
export class NearRows {
  private observer: IntersectionObserver | undefined;
  private readonly groups = new Map<Element, { rows: readonly string[]; tell: () => void }>();
  private readonly come = new Set<string>();

  constructor(private readonly root: { readonly current: HTMLElement | null }) {}

  has(row: string): boolean {
    return this.come.has(row);
  }

  /** Tells once when the group comes near; gives what ends it. */
  watch(rows: readonly string[], element: HTMLElement, tell: () => void): () => void {
    // Only what comes is drawn, between frames: for the rest of the sheet nothing is new.
    this.observer ??= new IntersectionObserver(
      (entries) => {
        startTransition(() => {
          for (const { isIntersecting, target } of entries) if (isIntersecting) this.tell(target);
        });
      },
      { root: this.root.current, rootMargin: `${String(nearBy)}px 0px` },
    );
    this.groups.set(element, { rows, tell });
    this.observer.observe(element);
    return () => this.leave(element);
  }

  /** Has a row drawn that is gone to, wherever it is. */
  call(row: string): void {
    this.come.add(row);
    for (const [element, { rows }] of this.groups) if (rows.includes(row)) this.tell(element);
  }

  private tell(element: Element): void {
    const group = this.groups.get(element);
    this.leave(element);
    for (const row of group?.rows ?? []) this.come.add(row);
    group?.tell();
  }

  private leave(element: Element): void {
    this.observer?.unobserve(element);
    this.groups.delete(element);
  }
}

/** For how long a row that has come is laid out in any case. */
const comingFor = 300;

/**
 * Rows that come with a decision are laid out with the rest at once. With content-visibility the browser
 * finds out only after the layout that they are in sight, and does all of it again before it paints.
 */
export function useComing(): (row: HTMLElement | null) => void {
  const started = useRef(false);
  useEffect(() => {
    started.current = true;
  }, []);
  return useMemo(() => {
    let coming: HTMLElement[] = [];
    return (row) => {
      if (!row || !started.current) return;
      if (coming.length === 0)
        setTimeout(() => {
          for (const each of coming) each.style.contentVisibility = '';
          coming = [];
        }, comingFor);
      row.style.contentVisibility = 'visible';
      coming.push(row);
    };
  }, []);
}
