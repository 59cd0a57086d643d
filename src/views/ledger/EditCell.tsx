import { useId, useState, type ReactNode } from 'react';
import { classes } from '../../ui';
import css from './ledger.module.css';

interface Props {
  label: string;
  /** As saved. */
  value: string;
  disabled: boolean;
  /** It stands out: this is what was typed, and the others follow. */
  strong?: boolean;
  narrow?: boolean;
  hint?: string | undefined;
  /** What is told beneath of what is typed so far, or of what stands there. */
  below?: ((typed: string | undefined) => ReactNode) | undefined;
  /** Saves; gives the sentence of a refusal, which then stands at the cell with what was typed. */
  onSave: (typed: string) => Promise<string | null>;
  /** Checks while typing; the sentence of what is wrong, or null. */
  check: (typed: string) => string | null;
}

/** A cell that is typed into: Enter or leaving saves, Escape takes the typing back. What was refused stays to be mended. */
export function EditCell({ label, value, disabled, strong = false, narrow = false, hint, below, onSave, check }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string>();
  const [error, setError] = useState<string | null>(null);
  const save = async () => {
    if (typed === undefined || typed.trim() === value) {
      setTyped(undefined);
      setError(null);
      return;
    }
    const wrong = check(typed) ?? (await onSave(typed));
    setError(wrong);
    if (wrong === null) setTyped(undefined);
  };
  return (
    <>
      <input
        className={classes(css.cell, strong && css.strong)} aria-label={label} title={hint} inputMode="decimal" value={typed ?? value} style={{ width: `${String(Math.max(narrow ? 5 : 8, (typed ?? value).length + 1))}ch` }} disabled={disabled} aria-invalid={error !== null} aria-describedby={error ? id : undefined}
        onFocus={(event) => event.target.select()} onChange={(event) => { setTyped(event.target.value); setError(check(event.target.value)); }} onBlur={() => void save()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') void save();
          if (event.key === 'Escape') { setTyped(undefined); setError(null); }
        }}
      />
      {below?.(error === null ? typed : undefined)}
      {error && <p id={id} className={css.cellError} role="alert">{error}</p>}
    </>
  );
}
