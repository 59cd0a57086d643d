import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { autoUpdate, flip, offset, size, useFloating } from '@floating-ui/react-dom';
import { useAlive } from './useAlive';
import { floatingRefs } from './floating-refs';
import { useLatest } from './useLatest';
import css from './ui.module.css';

/** Something that can be chosen. */
export interface ComboOption {
  id: string;
  text: string;
  detail: string;
}

interface Props {
  label: string;
  hideLabel?: boolean;
  placeholder: string;
  text: string;
  options: readonly ComboOption[];
  /** Shown where nothing is found for the text. */
  none: string;
  /** What is said while it is being looked for; Enter then waits for what is found. */
  looking?: string | undefined;
  /**
   * What is typed counts by itself: nothing is chosen before an arrow is pressed, and Enter is the form's
   * own.
   */
  free?: boolean;
  /** Of the field in its form; where it has one, it takes the keyboard before the page's script runs. */
  name?: string;
  onText: (text: string) => void;
  onChoose: (option: ComboOption) => void;
  error?: string | undefined;
  inputId?: string;
  autoFocus?: boolean;
}

/** Type to find, arrows to move, Enter to choose, Escape to leave. */
export function Combobox({
  label,
  hideLabel,
  placeholder,
  text,
  options,
  none,
  looking,
  free = false,
  name,
  onText,
  onChoose,
  error,
  inputId,
  autoFocus,
}: Props) {
  const own = useId();
  const alive = useAlive();
  const id = inputId ?? own;
  const [open, setOpen] = useState(false);
  const begin = free ? -1 : 0;
  const [active, setActive] = useState(begin);
  const wanted = useRef(false);
  const { refs, floatingStyles } = useFloating({
    open,
    placement: 'bottom-start',
    whileElementsMounted: autoUpdate,
    middleware: [
      offset(2),
      flip(),
      size({
        apply: ({ rects, elements }) => {
          elements.floating.style.minWidth = `${String(rects.reference.width)}px`;
        },
      }),
    ],
  });
  const { anchor, panel } = floatingRefs(refs);
  const shown = open && text.trim() !== '' && !(free && options.length === 0);
  const choose = (option: ComboOption | undefined) => {
    if (!option) return;
    setOpen(false);
    onChoose(option);
  };
  // Enter that was pressed before anything was found takes the first of what is.
  useEffect(() => {
    if (looking !== undefined || !wanted.current) return;
    wanted.current = false;
    const [first] = options;
    // Not in the middle of drawing what was found.
    if (first)
      queueMicrotask(() => {
        setOpen(false);
        onChoose(first);
      });
  }, [looking, options, onChoose]);
  // What was typed before the script ran.
  const latest = useLatest(onText);
  useEffect(() => {
    const field = refs.reference.current;
    const typed = field instanceof HTMLInputElement ? field.value : '';
    if (typed !== '') latest.current(typed);
  }, [latest, refs]);
  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      setOpen(true);
      setActive((at) =>
        Math.max(begin, Math.min(options.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1))),
      );
    } else if (event.key === 'Enter' && shown && !free && options.length === 0 && looking !== undefined) {
      event.preventDefault();
      wanted.current = true;
    } else if (event.key === 'Enter' && shown && (!free || active >= 0)) {
      event.preventDefault();
      choose(options[active]);
    } else if (event.key === 'Escape' && shown) {
      event.stopPropagation();
      setOpen(false);
    }
  };
  return (
    <div className={css.field}>
      <label className={hideLabel ? css.hidden : css.label} htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        ref={anchor}
        className={css.input}
        role="combobox"
        autoComplete="off"
        placeholder={placeholder}
        value={text}
        aria-expanded={shown}
        aria-controls={`${id}-list`}
        aria-autocomplete="list"
        aria-activedescendant={shown && options[active] ? `${id}-${String(active)}` : undefined}
        aria-invalid={Boolean(error)}
        aria-describedby={error ? `${id}-error` : undefined}
        autoFocus={autoFocus}
        readOnly={!alive && name === undefined}
        {...(name === undefined ? {} : { name })}
        onChange={(event) => {
          wanted.current = false;
          onText(event.target.value);
          setOpen(true);
          setActive(begin);
        }}
        onFocus={() => setOpen(true)}
        onBlur={() => setOpen(false)}
        onKeyDown={keys}
      />
      {error && (
        <p id={`${id}-error`} className={css.error} role="alert">
          {error}
        </p>
      )}
      {shown && (
        <ul
          id={`${id}-list`}
          ref={panel}
          style={floatingStyles}
          className={css.popup}
          role="listbox"
          aria-label={label}
        >
          {options.length === 0 && <li className={css.choice}>{looking ?? none}</li>}
          {options.map((option, index) => (
            <li
              key={option.id}
              id={`${id}-${String(index)}`}
              role="option"
              aria-selected={index === active}
              className={css.choice}
              onPointerEnter={() => setActive(index)}
              onPointerDown={(event) => {
                event.preventDefault();
                choose(option);
              }}
            >
              <span>{option.text}</span>
              <span className={css.choiceDetail}>{option.detail}</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
