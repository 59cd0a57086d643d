import { useId, useState, type KeyboardEvent } from 'react';
import { autoUpdate, flip, offset, size, useFloating } from '@floating-ui/react-dom';
import { useAlive } from './useAlive';
import css from './ui.module.css';

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
  onText: (text: string) => void;
  onChoose: (option: ComboOption) => void;
  error?: string | undefined;
  inputId?: string;
  autoFocus?: boolean;
}

/** Type to find, arrows to move, Enter to choose, Escape to leave. */
export function Combobox({ label, hideLabel, placeholder, text, options, none, onText, onChoose, error, inputId, autoFocus }: Props) {
  const own = useId();
  const alive = useAlive();
  const id = inputId ?? own;
  const [open, setOpen] = useState(false);
  const [active, setActive] = useState(0);
  const { refs, floatingStyles } = useFloating({
    open,
    placement: 'bottom-start',
    whileElementsMounted: autoUpdate,
    middleware: [offset(2), flip(), size({ apply: ({ rects, elements }) => { elements.floating.style.minWidth = `${String(rects.reference.width)}px`; } })],
  });
  const shown = open && text.trim() !== '';
  const choose = (option: ComboOption | undefined) => {
    if (!option) return;
    setOpen(false);
    onChoose(option);
  };
  const keys = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      setOpen(true);
      setActive((at) => Math.max(0, Math.min(options.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1))));
    } else if (event.key === 'Enter' && shown) {
      event.preventDefault();
      choose(options[active]);
    } else if (event.key === 'Escape' && shown) {
      event.stopPropagation();
      setOpen(false);
    }
  };
  return (
    <div className={css.field}>
      <label className={hideLabel ? css.hidden : css.label} htmlFor={id}>{label}</label>
      <input
        id={id} ref={refs.setReference} className={css.input} role="combobox" autoComplete="off" placeholder={placeholder} value={text}
        aria-expanded={shown} aria-controls={`${id}-list`} aria-autocomplete="list" aria-activedescendant={shown && options[active] ? `${id}-${String(active)}` : undefined}
        aria-invalid={Boolean(error)} aria-describedby={error ? `${id}-error` : undefined} autoFocus={autoFocus} readOnly={!alive}
        onChange={(event) => { onText(event.target.value); setOpen(true); setActive(0); }}
        onFocus={() => setOpen(true)} onBlur={() => setOpen(false)} onKeyDown={keys}
      />
      {error && <p id={`${id}-error`} className={css.error} role="alert">{error}</p>}
      {shown && (
        <ul id={`${id}-list`} ref={refs.setFloating} style={floatingStyles} className={css.popup} role="listbox" aria-label={label}>
          {options.length === 0 && <li className={css.choice}>{none}</li>}
          {options.map((option, index) => (
            <li
              key={option.id} id={`${id}-${String(index)}`} role="option" aria-selected={index === active} className={css.choice}
              onPointerEnter={() => setActive(index)} onPointerDown={(event) => { event.preventDefault(); choose(option); }}
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
