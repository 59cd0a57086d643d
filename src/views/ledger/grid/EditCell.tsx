import { useEffect, useId, useRef, useState, type ClipboardEvent, type ReactNode } from 'react';
import { classes, useAlive, useLatest } from '../../../ui';
import css from './lines.module.css';

/** What a cell shows, checks and saves. */
export interface CellProps {
  label: string;
  /** As saved. */
  value: string;
  disabled: boolean;
  /** It stands out: this is what was typed, and the others follow. */
  strong?: boolean;
  narrow?: boolean;
  /** Something must be typed here before the line can be sold. */
  waits?: boolean;
  /** For words instead of figures. */
  wordy?: boolean;
  hint?: string | undefined;
  /** What is told beneath of what is typed so far, or of what stands there. */
  below?: ((typed: string | undefined) => ReactNode) | undefined;
  /** Saves; gives the sentence of a refusal, which then stands at the cell with what was typed. */
  onSave: (typed: string) => Promise<string | null>;
  /** Checks while typing; the sentence of what is wrong, or null. */
  check: (typed: string) => string | null;
  /** Takes a pasted column of values; null for what did not pass the check, and waits at its cell. */
  onFill?: ((texts: readonly (string | null)[]) => void) | undefined;
}

/** Tells a cell what was pasted into it and is wrong; null where it is right, and taken elsewhere. */
const pastedInto = 'iunctura:pasted';

/** The cells of a column from one of them downwards. */
function columnFrom(field: HTMLElement): HTMLElement[] {
  const [row, cell] = [field.closest('tr'), field.closest('td')];
  const at = row && cell ? [...row.children].indexOf(cell) : -1;
  const found: HTMLElement[] = [];
  for (let next: Element | null = row; next && at >= 0; next = next.nextElementSibling) {
    const input =
      (next as HTMLElement).dataset.line === undefined
        ? null
        : next.children[at]?.querySelector<HTMLElement>('input');
    if (input) found.push(input);
  }
  return found;
}

/**
 * A cell that is typed into: Enter or leaving saves, Escape takes the typing back. What was refused stays to
 * be mended.
 */
export function EditCell(props: CellProps) {
  const { label, value, disabled, strong = false, waits = false, narrow = false, wordy = false } = props;
  const id = useId();
  const alive = useAlive();
  const { field, typed, error, type, undo, save } = useTyping(props);

  // Where the keyboard was here before the page answered to it, what is typed next replaces what stands as
  // well.
  useEffect(() => {
    if (alive && document.activeElement === field.current) field.current?.select();
  }, [alive, field]);
  const shown = typed ?? value;
  return (
    <span className={css.cellPlace}>
      <input
        ref={field}
        data-waits={waits || undefined}
        className={classes(css.cell, strong && css.strong, wordy && css.wordy)}
        aria-label={label}
        title={props.hint}
        inputMode={wordy ? undefined : 'decimal'}
        value={shown}
        style={{ width: `${String(Math.max(narrow ? 5 : 8, shown.length + 1))}ch` }}
        disabled={disabled}
        readOnly={!alive}
        data-typing={typed === undefined ? undefined : ''}
        aria-invalid={error !== null}
        aria-describedby={error ? id : undefined}
        onPaste={pasteInto(props)}
        onFocus={(event) => event.target.select()}
        onChange={(event) => type(event.target.value)}
        onBlur={() => void save()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') void save();
          if (event.key === 'Escape') undo();
          if (event.key === 'Enter' || event.key === 'Escape') selectWhole(event.currentTarget);
        }}
      />
      {props.below?.(error === null ? typed : undefined)}
      {error && (
        <p id={id} className={css.cellError} role="alert">
          {error}
        </p>
      )}
    </span>
  );
}

/** What stands there is taken as a whole again, so that what is typed next replaces it. */
const selectWhole = (field: HTMLInputElement): number =>
  requestAnimationFrame(() => {
    if (document.activeElement === field) field.select();
  });

/** What is typed and not saved, what is wrong with it, and what was pasted from another cell into this. */
function useTyping({ value, check, onSave }: Pick<CellProps, 'value' | 'check' | 'onSave'>) {
  const field = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState<string>();
  const [error, setError] = useState<string | null>(null);
  const latest = useLatest(typed);
  const undo = (): void => {
    setTyped(undefined);
    setError(null);
  };
  const save = async (): Promise<void> => {
    if (typed === undefined || typed.trim() === value) {
      undo();
      return;
    }
    const wrong = check(typed) ?? (await onSave(typed));
    // What is typed meanwhile is another matter.
    if (latest.current !== typed) return;
    setError(wrong);
    if (wrong === null) setTyped(undefined);
  };
  const type = (text: string): void => {
    setTyped(text);
    setError(check(text));
  };
  const checkNow = useLatest(check);
  useEffect(() => {
    const input = field.current;
    const take = (event: Event) => {
      const text = (event as CustomEvent<string | null>).detail;
      setTyped(text ?? undefined);
      setError(text === null ? null : checkNow.current(text));
    };
    input?.addEventListener(pastedInto, take);
    return () => input?.removeEventListener(pastedInto, take);
  }, [checkNow]);
  return { field, typed, error, type, undo, save };
}

/**
 * A column copied from a spreadsheet fills downwards from here; a single value is pasted as text is. What is
 * wrong stays at its own cell, to be mended there; the others are taken.
 */
const pasteInto =
  ({ check, onFill }: Pick<CellProps, 'check' | 'onFill'>) =>
  (event: ClipboardEvent<HTMLInputElement>): void => {
    const pasted = event.clipboardData
      .getData('text/plain')
      .replace(/[\r\n]+$/, '')
      .split(/\r\n|\r|\n/);
    if (!onFill || pasted.length < 2) return;
    event.preventDefault();
    const texts = pasted.map((row) => row.split('\t')[0] ?? '');
    const cells = columnFrom(event.currentTarget);
    const wrong = texts.map((text) => check(text) !== null);
    wrong.forEach((is, index) =>
      cells[index]?.dispatchEvent(new CustomEvent(pastedInto, { detail: is ? texts[index] : null })),
    );
    onFill(texts.map((text, index) => (wrong[index] ? null : text)));
  };
