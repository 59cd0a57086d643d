import type { ReactNode } from 'react';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Shown } from './columns';
import { heldAt } from './held-at';
import css from './lines.module.css';

interface Props {
  columns: readonly Shown[];
  cell: (id: Shown['id']) => ReactNode;
}

/** The figures of a row that is no line of its own: a cell a column, and an empty one where a line's acts stand. */
export function FigureCells({ columns, cell }: Props) {
  const { t } = useSpeech();
  return (
    <>
      {columns.map((column) => (
        <td
          key={column.id}
          data-title={t(column.title)}
          className={classes(css.figure, column.held !== undefined && css.held)}
          {...heldAt(column)}
        >
          {cell(column.id)}
        </td>
      ))}
      <td />
    </>
  );
}
