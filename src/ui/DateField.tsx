import { lazy, Suspense, useState } from 'react';
import { CalendarDays } from 'lucide-react';
import { classes } from './classes';
import { useAlive } from './useAlive';
import css from './ui.module.css';

const picker = () => import('./date-picker');
const Calendar = lazy(async () => ({ default: (await picker()).Calendar }));

interface Props {
  label: string;
  /** ISO day; empty for none. */
  value: string;
  /** As it is read. */
  shown: string;
  language: string;
  words: { open: string; notADay: (typed: string) => string };
  min?: string | undefined;
  max?: string | undefined;
  disabled?: boolean | undefined;
  /** For finding its way among the fields of a sheet. */
  tab?: string;
  className?: string | undefined;
  /** The day, or empty where what stood there was taken away. */
  onPick: (day: string) => void;
}

/**
 * A day, typed in whichever way people write one, or picked from a calendar. What cannot be read stays, with
 * a sentence.
 */
export function DateField({
  label,
  value,
  shown,
  language,
  words,
  min,
  max,
  disabled,
  tab,
  className,
  onPick,
}: Props) {
  const alive = useAlive();
  const [field, setField] = useState<HTMLElement | null>(null);
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const leave = () => {
    setTyped(undefined);
    setWrong(null);
  };
  const take = async (text: string | undefined) => {
    if (text === undefined || text.trim() === shown) {
      leave();
      return;
    }
    const day = text.trim() === '' ? '' : (await picker()).readDay(text, language, new Date());
    if (day === null) setWrong(words.notADay(text));
    else {
      leave();
      onPick(day);
    }
  };
  return (
    <span className={classes(css.dateField, className)}>
      <span ref={setField} className={css.dateLine}>
        <input
          type="text"
          inputMode="text"
          autoComplete="off"
          data-tab={tab}
          data-decided={typed === undefined}
          aria-label={label}
          aria-invalid={wrong !== null}
          disabled={disabled}
          readOnly={!alive}
          value={typed ?? shown}
          onFocus={() => void picker()}
          onChange={(event) => {
            setTyped(event.target.value);
            setWrong(null);
          }}
          onBlur={() => {
            if (typed !== undefined) void take(typed);
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) void take(typed);
            if (event.key === 'Escape' && typed !== undefined) {
              event.stopPropagation();
              leave();
            }
            if (event.key === 'ArrowDown') {
              event.preventDefault();
              setOpen(true);
            }
          }}
        />
        {!disabled && (
          <button
            type="button"
            tabIndex={-1}
            className={css.dateOpen}
            aria-label={words.open}
            title={words.open}
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            <CalendarDays size={13} aria-hidden />
          </button>
        )}
      </span>
      {wrong && (
        <span className={css.error} role="alert">
          {wrong}
        </span>
      )}
      {open && field && (
        <Suspense>
          <Calendar
            label={words.open}
            field={field}
            value={value}
            min={min}
            max={max}
            language={language}
            onPick={(day) => {
              setOpen(false);
              leave();
              onPick(day);
              field.querySelector('input')?.focus();
            }}
            onClose={() => setOpen(false)}
          />
        </Suspense>
      )}
    </span>
  );
}
