import type { ReactNode } from 'react';
import css from './side.module.css';

/** What one can go to, at the side of a room. */
export function Side({ label, children }: { label: string; children: ReactNode }) {
  return (
    <nav className={css.side} aria-label={label}>
      {children}
    </nav>
  );
}

/** Some of it under a heading, with what can be done there. */
export function SideGroup({ title, act, children }: { title: string; act?: ReactNode; children: ReactNode }) {
  return (
    <section className={css.group}>
      {title !== '' && (
        <div className={css.head}>
          <h2>{title}</h2>
          {act}
        </div>
      )}
      {children}
    </section>
  );
}

interface EntryProps {
  /** How deep it is inside others; 0 where it is in none. */
  depth?: number;
  chosen: boolean;
  /** How many there are in it, or whatever stands at its end. */
  count?: ReactNode;
  /** What is told of it beneath. */
  note?: ReactNode;
  children: ReactNode;
}

/** Something to choose. */
export function SideEntry({
  depth = 0,
  chosen,
  count,
  note,
  children,
  onChoose,
}: EntryProps & { onChoose: () => void }) {
  return (
    <button
      type="button"
      className={css.entry}
      style={depth > 0 ? { paddingInlineStart: 12 + depth * 14 } : undefined}
      aria-pressed={chosen}
      onClick={onChoose}
    >
      <Inner count={count} note={note}>
        {children}
      </Inner>
    </button>
  );
}

/** The same as a page of its own. */
export function SideLink({ chosen, count, note, children, href }: EntryProps & { href: string }) {
  return (
    <a className={css.entry} aria-current={chosen ? 'page' : undefined} href={href}>
      <Inner count={count} note={note}>
        {children}
      </Inner>
    </a>
  );
}

const Inner = ({ count, note, children }: Omit<EntryProps, 'chosen' | 'depth'>) => (
  <>
    <span className={css.text}>{children}</span>
    {count !== undefined && <span className={css.count}>{count}</span>}
    {note !== undefined && <span className={css.note}>{note}</span>}
  </>
);
