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
export function DateField(props: Props) {
  const { label, value, shown, language, words, min, max, disabled, tab, className, onPick } = props;
  const alive = useAlive();
  const [field, setField] = useState<HTMLElement | null>(null);
  const [open, setOpen] = useState(false);
  const { typed, wrong, type, leave, take } = useTypedDay(props);
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
          onChange={(event) => type(event.target.value)}
          onBlur={() => {
            if (typed !== undefined) void take();
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && !event.ctrlKey && !event.metaKey) void take();
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

/** What is typed and not read yet, and why it cannot be. */
function useTypedDay({ shown, language, words, onPick }: Props) {
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState<string | null>(null);
  const leave = (): void => {
    setTyped(undefined);
    setWrong(null);
  };
  const take = async (): Promise<void> => {
    if (typed === undefined || typed.trim() === shown) {
      leave();
      return;
    }
    const day = typed.trim() === '' ? '' : (await picker()).readDay(typed, language, new Date());
    if (day === null) setWrong(words.notADay(typed));
    else {
      leave();
      onPick(day);
    }
  };
  const type = (text: string): void => {
    setTyped(text);
    setWrong(null);
  };
  return { typed, wrong, type, leave, take };
}
