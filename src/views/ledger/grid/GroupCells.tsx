import type { ReactNode } from 'react';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { money, percent } from '../../../i18n';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Shown } from './columns';
import { EditCell } from './EditCell';
import css from './lines.module.css';
import { FigureCells } from './FigureCells';
import type { LedgerRow } from './rows';

interface Props {
  row: Extract<LedgerRow, { is: 'group' }>;
  columns: readonly Shown[];
  decimals: number;
  mayEdit: boolean;
  marked: boolean;
  onOpen: (group: string) => void;
  onMark: () => void;
  /** Gives the sentence of a refusal. */
  onRename: (to: string) => Promise<string | null>;
}

/** The head of a group: its name, how many lines it has, and what they come to. */
export function GroupCells({
  row: { name, lines, open, totals },
  columns,
  decimals,
  mayEdit,
  marked,
  onOpen,
  onMark,
  onRename,
}: Props): ReactNode {
  const { t, language } = useSpeech();
  const cell = (id: Shown['id']): ReactNode => {
    switch (id) {
      case 'total':
        return money(totals.net, language, decimals);
      case 'listTotal':
        return money(totals.list, language, decimals);
      case 'cost':
        return totals.cost === undefined ? null : money(totals.cost, language, decimals);
      case 'margin':
        return totals.margin === undefined ? null : percent(totals.margin, language, 1);
      default:
        return null;
    }
  };
  return (
    <>
      <td className={classes(css.position, css.held)}>
        {mayEdit && (
          <input type="checkbox" checked={marked} aria-label={t('group.mark', { name })} onChange={onMark} />
        )}
        <span
          data-handle
          className={classes(css.grip, mayEdit && css.handle)}
          title={mayEdit ? t('group.drag') : undefined}
          aria-hidden
        >
          ⋮⋮
        </span>
      </td>
      <th scope="rowgroup" className={classes(css.what, css.held, css.groupName)}>
        <button
          type="button"
          className={css.turn}
          aria-expanded={open}
          aria-label={t('group.open', { name })}
          onClick={() => onOpen(name)}
        >
          {open ? <ChevronDown size={13} aria-hidden /> : <ChevronRight size={13} aria-hidden />}
        </button>
        <EditCell
          label={t('group.name', { name })}
          value={name}
          disabled={!mayEdit}
          wordy
          check={(typed) => (typed.trim() === '' ? t('group.noName') : null)}
          onSave={(typed) => onRename(typed.trim())}
        />
        <span className={css.rateNote}>{t('group.count', { count: lines.length })}</span>
      </th>
      <FigureCells columns={columns} cell={cell} />
    </>
  );
}
