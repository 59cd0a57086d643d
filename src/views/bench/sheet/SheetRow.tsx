import { memo, type ReactNode } from 'react';
import type { Feature, Parameter } from '../../../core/model';
import { own } from '../../../i18n';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import { RowControl, roughHeight } from './Row';
import type { RowProps } from './row-props';
import css from './sheet.module.css';

interface Props extends RowProps {
  id: string;
  row: Feature | Parameter | undefined;
  /** Something in the drawing shows it, or pictures show its options. */
  sketched: boolean;
  /** It changed by itself with the last decision. */
  moved: boolean;
  /** Near enough to the window to be drawn. */
  drawn: boolean;
  watch: ((element: HTMLElement | null) => (() => void) | undefined) | undefined;
  helped: boolean;
  onHelp: (row: string | undefined) => void;
  /** What is told of it in place. */
  children: ReactNode;
}

const isFeature = (row: Feature | Parameter | undefined): row is Feature =>
  row !== undefined && 'options' in row && 'most' in row;

/**
 * A row of the sheet: its name and help, its control, and what is told of it. It is drawn again only when
 * something that it shows has changed.
 */
export const SheetRow = memo(function SheetRow({
  id,
  row,
  sketched,
  moved,
  drawn,
  watch,
  helped,
  onHelp,
  children,
  ...control
}: Props) {
  const { t, language } = useSpeech();
  const { words, state } = control;
  const help = t('bench.helpOn', { what: words.row(id) });
  const [feature, parameter] = isFeature(row) ? [row, undefined] : [undefined, row];
  return (
    <div className={classes(css.row, moved && css.moved)} data-row={id} ref={watch}>
      <div className={css.rowHead}>
        <p className={css.rowName}>{words.label(id)}</p>
        {(row?.help !== undefined || sketched) && (
          <button
            type="button"
            className={css.helper}
            aria-expanded={helped}
            aria-label={help}
            title={`${help} (F1)`}
            onClick={() => onHelp(helped ? undefined : id)}
          >
            <span aria-hidden>?</span>
          </button>
        )}
        {row?.help && state.todo && !helped && <p className={css.rowHelp}>{own(row.help, language)}</p>}
      </div>
      {drawn ? (
        <RowControl feature={feature} parameter={parameter} {...control} />
      ) : (
        <div className={css.undrawn} style={{ height: roughHeight(row) }} />
      )}
      {children}
    </div>
  );
}, showsTheSame);

function showsTheSame(before: Props, after: Props): boolean {
  for (const key of [
    'state',
    'differences',
    'remarks',
    'words',
    'frozen',
    'folded',
    'advice',
    'moved',
    'drawn',
    'watch',
    'helped',
    'decimals',
    'onDecide',
    'onConsider',
    'onRelease',
    'onWhy',
    'onAnew',
  ] as const)
    if (before[key] !== after[key]) return false;
  // What is told in place changes with every look at it.
  return !hasChildren(before.children) && !hasChildren(after.children);
}

const hasChildren = (children: ReactNode): boolean => Array.isArray(children) && children.some(Boolean);
