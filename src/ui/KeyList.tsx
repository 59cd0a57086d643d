import { Fragment } from 'react';
import css from './ui.module.css';

/** The keys of a view. */
export function KeyList({ keys }: { keys: readonly { keys: string; text: string }[] }) {
  return (
    <dl className={css.keyList}>
      {keys.map((each) => (
        <Fragment key={each.keys}>
          <dt>
            <kbd className={css.key}>{each.keys}</kbd>
          </dt>
          <dd>{each.text}</dd>
        </Fragment>
      ))}
    </dl>
  );
}
