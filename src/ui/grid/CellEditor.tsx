import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react';
import { autoUpdate, flip, offset, size, useFloating, type UseFloatingOptions } from '@floating-ui/react-dom';
import { floatingRefs } from '../floating-refs';
import type { GridColumn } from './row';
import css from './grid.module.css';

/** Where what was typed goes, and the cursor after it. */
export type Stored = 'down' | 'up' | 'right' | 'left' | 'marked' | 'here';

interface Props {
  label: string;
  column: GridColumn;
  /** What stands in it at first. */
  begin: string;
  /** All choices are shown before anything is typed. */
  open: boolean;
  onStore: (typed: string, where: Stored) => void;
  onLeave: () => void;
}

/** The field in the place of a cell: Enter and Tab store, Escape leaves; choices hang beneath it. */
export function CellEditor(props: Props) {
  const { label, column, begin } = props;
  const choosing = useChoosing(props);
  const { text, shown, found, active } = choosing;
  const field = useRef<HTMLInputElement | null>(null);
  const { keys, store } = useStoring(props, choosing);
  const id = useId();
  const { refs, floatingStyles } = useFloating(beneath(shown));
  const { anchor, panel } = floatingRefs(refs);
  useEffect(() => {
    field.current?.focus();
    field.current?.setSelectionRange(begin.length, begin.length);
  }, [begin]);
  return (
    <>
      <input
        ref={(element) => {
          field.current = element;
          anchor(element);
        }}
        className={css.editor}
        aria-label={label}
        autoComplete="off"
        value={text}
        {...(column.choices
          ? {
              role: 'combobox',
              'aria-expanded': shown,
              'aria-controls': `${id}-list`,
              'aria-activedescendant': shown && active >= 0 ? `${id}-${String(active)}` : undefined,
            }
          : {})}
        onChange={(event) => choosing.type(event.target.value)}
        onKeyDown={keys}
        onBlur={() => store('here', text)}
        onPointerDown={(event) => event.stopPropagation()}
      />
      {shown && (
        <ul
          id={`${id}-list`}
          ref={panel}
          style={floatingStyles}
          className={css.choices}
          role="listbox"
          aria-label={label}
        >
          {found.map((choice, at) => (
            <li
              key={choice}
              id={`${id}-${String(at)}`}
              role="option"
              aria-selected={at === active}
              onPointerEnter={() => choosing.setActive(at)}
              onPointerDown={(event) => {
                event.preventDefault();
                event.stopPropagation();
                store('here', choice);
              }}
            >
              {choice}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** What is typed, which choices have it, and which of them Enter takes. */
function useChoosing({ column, begin, open }: Props) {
  const [text, setText] = useState(begin);
  const [typed, setTyped] = useState(!open && begin === '');
  const found = choicesFor(column, typed ? text : '');
  const [active, setActive] = useState(() => (open ? Math.max(0, found.indexOf(begin)) : -1));
  const type = (next: string): void => {
    setText(next);
    setTyped(true);
    setActive(next === '' ? -1 : 0);
  };
  return { text, found, active, setActive, type, shown: found.length > 0 && (open || typed) };
}

/** Stores what was typed or chosen, once, and what keys do. */
function useStoring(
  { onStore, onLeave }: Props,
  { text, found, active, setActive, shown }: ReturnType<typeof useChoosing>,
) {
  const over = useRef(false);
  const store = (where: Stored, value = shown ? (found[active] ?? text) : text): void => {
    if (over.current) return;
    over.current = true;
    onStore(value, where);
  };
  const leave = (): void => {
    over.current = true;
    onLeave();
  };
  const keys = (event: KeyboardEvent): void => {
    const { key, shiftKey, ctrlKey, metaKey, nativeEvent } = event;
    // Nothing in the grid or the page hears keys of a cell that is edited.
    event.stopPropagation();
    if (nativeEvent.isComposing) return;
    const arrow = shown ? (key === 'ArrowDown' ? 1 : key === 'ArrowUp' ? -1 : 0) : 0;
    if (arrow !== 0) setActive(Math.max(0, Math.min(found.length - 1, active + arrow)));
    else if (key === 'Enter') store(ctrlKey || metaKey ? 'marked' : shiftKey ? 'up' : 'down');
    else if (key === 'Tab') store(shiftKey ? 'left' : 'right');
    else if (key === 'Escape') leave();
    else return;
    event.preventDefault();
  };
  return { keys, store };
}

/** The list hangs beneath its cell, at least as wide. */
const beneath = (open: boolean): UseFloatingOptions => ({
  open,
  placement: 'bottom-start',
  whileElementsMounted: autoUpdate,
  middleware: [
    offset(1),
    flip(),
    size({ apply: ({ rects, elements }) => atLeast(elements.floating, rects.reference.width) }),
  ],
});

function atLeast(element: HTMLElement, width: number): void {
  element.style.minWidth = `${String(width)}px`;
}

/** The choices with what was typed in them, those that begin with it first. */
function choicesFor({ choices = [] }: GridColumn, text: string): readonly string[] {
  const typed = text.trim().toLowerCase();
  if (typed === '') return choices;
  const having = choices.filter((choice) => choice.toLowerCase().includes(typed));
  const first = having.filter((choice) => choice.toLowerCase().startsWith(typed));
  return [...first, ...having.filter((choice) => !first.includes(choice))];
}
