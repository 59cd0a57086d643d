import type { ReactNode } from 'react';
import { Field } from './Field';
import css from './ui.module.css';

/** What is typed to find by, and how to change it: the props of a field. */
export interface FindField {
  value: string;
  onChange: (event: { target: { value: string } }) => void;
}

interface Props {
  title: string;
  /** Finds rows by typing; none where there is nothing to find. */
  find?: { label: string; field: FindField } | undefined;
  /** More to find by, beneath the title. */
  filters?: ReactNode;
  /** Beneath the list. */
  foot?: ReactNode;
  /** What can be begun here. */
  act?: ReactNode;
  children: ReactNode;
}

/**
 * A page that is one list: its title, a field that finds in it, what can be begun, and the list in the room
 * that is left.
 */
export function ListPage({ title, find, filters, act, foot, children }: Props) {
  return (
    <div className={css.listPage}>
      <div className={css.listHead}>
        <h1>{title}</h1>
        {find && (
          <div className={css.listFind}>
            <Field label={find.label} autoFocus {...find.field} />
          </div>
        )}
        {act}
      </div>
      {filters}
      <div className={css.listed}>{children}</div>
      {foot}
    </div>
  );
}
