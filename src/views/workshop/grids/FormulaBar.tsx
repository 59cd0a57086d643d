import { useState } from 'react';
import { isWrong, typing, type GridHandle } from '../../../ui/grid';
import { FormulaField } from '../../parts/formula-field/FormulaField';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import { useScope } from '../session/useScope';
import type { Feel } from './part-columns';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  grid: GridHandle;
  /** What stands in a column; nothing where it is no formula. */
  feelOf: (column: string) => Feel | undefined;
  /** What the formula of a row comes to in the try-out. */
  comesTo?: ((row: string, column: string) => string | undefined) | undefined;
}

/**
 * The formula of the cell in which the cursor is, with room to write it: names proposed, types and units checked, what
 * is wrong marked at its characters. It is kept by Enter, or when it is left.
 */
export function FormulaBar({ draft, grid, feelOf, comesTo }: Props) {
  const { t, language } = useSpeech();
  const { scope, nameOf } = useScope(draft.document, language);
  const { state, plan, session } = grid;
  const { row, column } = state.cursor;
  const held = state.rows[row];
  const at = plan.columns[column];
  const feel = at && feelOf(at.id);
  const cell = held?.cells[column];
  const kept = cell === undefined ? '' : isWrong(cell) ? cell.typed : cell;
  const key = `${held?.id ?? ''} ${at?.id ?? ''} ${kept}`;
  /** What is typed and not kept yet, of one cell as it stood. */
  const [typed, setTyped] = useState<{ key: string; text: string } | null>(null);
  if (!held || !at || !feel) return <p className={css.barEmpty}>{t('draft.bar.empty')}</p>;
  const value = typed?.key === key ? typed.text : kept;
  const keep = (text = value): void => {
    if (text.trim() !== kept)
      session.act((now) => typing({ ...now, cursor: { row, column }, anchor: { row, column } }, plan, text));
    setTyped(null);
  };
  const shown = kept === '' ? undefined : comesTo?.(held.id, at.id);
  return (
    <div
      className={css.bar}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) keep();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') setTyped(null);
      }}
    >
      <FormulaField
        key={`${held.id} ${at.id}`}
        label={at.title}
        value={value}
        scope={scope}
        nameOf={nameOf}
        {...(feel.wanted ? { wanted: feel.wanted } : {})}
        {...(feel.cell === undefined ? {} : { cell: feel.cell })}
        {...(shown === undefined ? {} : { comesTo: shown })}
        onChange={(text) => setTyped({ key, text })}
        onEnter={keep}
      />
    </div>
  );
}
