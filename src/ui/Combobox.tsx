import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { autoUpdate, flip, offset, size, useFloating, type UseFloatingOptions } from '@floating-ui/react-dom';
import { useAlive } from './useAlive';
import { floatingRefs } from './floating-refs';
import { useTypedBefore } from './useTypedBefore';
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
export function Combobox(props: Props) {
  const { label, hideLabel, placeholder, text, options, name, error, inputId, autoFocus } = props;
  const own = useId();
  const alive = useAlive();
  const id = inputId ?? own;
  const { shown, active, setActive, setOpen, choose, type, keys } = useChoosing(props);
  const { refs, floatingStyles } = useFloating(beneath(shown));
  const { anchor, panel } = floatingRefs(refs);
  useTypedBefore(refs.reference, text, ({ value }) => props.onText(value));
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
        onChange={(event) => type(event.target.value)}
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
          <Choices {...props} id={id} active={active} onActive={setActive} onPick={choose} />
        </ul>
      )}
    </div>
  );
}

/** What is found, or that nothing is. */
function Choices({
  id,
  options,
  looking,
  none,
  active,
  onActive,
  onPick,
}: Props & {
  id: string;
  active: number;
  onActive: (at: number) => void;
  onPick: (option: ComboOption) => void;
}) {
  if (options.length === 0) return <li className={css.choice}>{looking ?? none}</li>;
  return options.map((option, index) => (
    <li
      key={option.id}
      id={`${id}-${String(index)}`}
      role="option"
      aria-selected={index === active}
      className={css.choice}
      onPointerEnter={() => onActive(index)}
      onPointerDown={(event) => {
        event.preventDefault();
        onPick(option);
      }}
    >
      <span>{option.text}</span>
      <span className={css.choiceDetail}>{option.detail}</span>
    </li>
  ));
}

/** Whether the list is open, which of it Enter takes, and what keys do. */
function useChoosing({ text, options, looking, free = false, onText, onChoose }: Props) {
  const begin = free ? -1 : 0;
  const [open, setOpen] = useState(false);
  const [active, setActive] = useState(begin);
  const wanted = useRef(false);
  const shown = open && text.trim() !== '' && !(free && options.length === 0);
  const choose = (option: ComboOption | undefined): void => {
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
  const type = (typed: string): void => {
    wanted.current = false;
    onText(typed);
    setOpen(true);
    setActive(begin);
  };
  const keys = (event: KeyboardEvent<HTMLInputElement>): void => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      setOpen(true);
      const step = event.key === 'ArrowDown' ? 1 : -1;
      setActive((at) => Math.max(begin, Math.min(options.length - 1, at + step)));
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
  return { shown, active, setActive, setOpen, choose, type, keys };
}

/** The list hangs beneath its field, at least as wide. */
const beneath = (open: boolean): UseFloatingOptions => ({
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
