import { ArrowDown, ArrowUp, Pin, PinOff } from 'lucide-react';
import type { LedgerColumn } from '../../../contract';
import { Button, Dialog, DialogFoot } from '../../../ui';
import { useSpeech } from '../../speech';
import { columnsFor, titleOf, usualColumns, type Sees } from '../grid/columns';
import css from './choose.module.css';

interface Props {
  open: boolean;
  sees: Sees;
  columns: readonly LedgerColumn[] | null | undefined;
  /** null goes back to the usual ones. */
  onChange: (columns: LedgerColumn[] | null) => void;
  onClose: () => void;
}

/**
 * Which columns the Ledger shows, in which order, and which of them stay in sight. Remembered for the person.
 */
export function ColumnsDialog({ open, sees, columns, onChange, onClose }: Props) {
  const { t } = useSpeech();
  const chosen = columns ?? usualColumns(sees);
  const others = columnsFor(sees).filter((id) => !chosen.some((column) => column.id === id));
  const swap = (at: number, to: number) => {
    const next = [...chosen];
    const [moved] = next.splice(at, 1);
    if (moved) next.splice(to, 0, moved);
    onChange(next);
  };
  return (
    <Dialog title={t('column.title')} closeText={t('frame.close')} open={open} onClose={onClose}>
      <ul className={css.list}>
        {chosen.map(({ id, pinned }, at) => {
          const name = t(titleOf(id));
          return (
            <li key={id}>
              <label>
                <input
                  type="checkbox"
                  checked
                  disabled={chosen.length === 1}
                  onChange={() => onChange(chosen.filter((each) => each.id !== id))}
                />
                {name}
              </label>
              <Button
                look="plain"
                aria-label={t('column.pin', { name })}
                title={t('column.pin', { name })}
                aria-pressed={pinned}
                onClick={() =>
                  onChange(chosen.map((each) => (each.id === id ? { id, pinned: !pinned } : each)))
                }
              >
                {pinned ? <PinOff size={14} aria-hidden /> : <Pin size={14} aria-hidden />}
              </Button>
              <Button
                look="plain"
                aria-label={t('column.earlier', { name })}
                disabled={at === 0}
                onClick={() => swap(at, at - 1)}
              >
                <ArrowUp size={14} aria-hidden />
              </Button>
              <Button
                look="plain"
                aria-label={t('column.later', { name })}
                disabled={at === chosen.length - 1}
                onClick={() => swap(at, at + 1)}
              >
                <ArrowDown size={14} aria-hidden />
              </Button>
            </li>
          );
        })}
        {others.map((id) => (
          <li key={id}>
            <label>
              <input
                type="checkbox"
                checked={false}
                onChange={() => onChange([...chosen, { id, pinned: false }])}
              />
              {t(titleOf(id))}
            </label>
          </li>
        ))}
      </ul>
      <DialogFoot>
        <Button onClick={() => onChange(null)}>{t('column.usual')}</Button>
        <Button look="main" onClick={onClose}>
          {t('column.done')}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
