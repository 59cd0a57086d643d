import { useEffect, useRef } from 'react';
import { autoUpdate, flip, offset, shift, useFloating } from '@floating-ui/react-dom';
import { format, parseISO } from 'date-fns';
import { de, enGB } from 'date-fns/locale';
import { DayPicker, type ClassNames } from 'react-day-picker';
import css from './date-picker.module.css';

interface Props {
  label: string;
  /** The field that it belongs to. */
  field: HTMLElement;
  value: string;
  min?: string | undefined;
  max?: string | undefined;
  language: string;
  onPick: (day: string) => void;
  onClose: () => void;
}

const looks: Partial<ClassNames> = {
  root: css.root ?? '',
  months: css.months ?? '',
  month: css.month ?? '',
  month_caption: css.caption ?? '',
  nav: css.nav ?? '',
  button_previous: css.turn ?? '',
  button_next: css.turn ?? '',
  chevron: css.chevron ?? '',
  month_grid: css.grid ?? '',
  weekday: css.weekday ?? '',
  day: css.day ?? '',
  day_button: css.dayButton ?? '',
  selected: css.selected ?? '',
  today: css.today ?? '',
  outside: css.outside ?? '',
  disabled: css.disabled ?? '',
};

/** A month at a time, above everything, beside its field. Arrows move by day and week, Escape closes. */
export function Calendar({ label, field, value, min, max, language, onPick, onClose }: Props) {
  const panel = useRef<HTMLDivElement>(null);
  const { refs, floatingStyles } = useFloating({
    strategy: 'fixed',
    placement: 'bottom-start',
    elements: { reference: field },
    whileElementsMounted: autoUpdate,
    middleware: [offset(4), flip(), shift({ padding: 8 })],
  });
  useEffect(() => {
    const shown = panel.current;
    shown?.showPopover();
    refs.setFloating(shown);
    return () => shown?.hidePopover();
  }, [refs]);
  const selected = value ? parseISO(value) : undefined;
  return (
    <div
      ref={panel}
      popover="auto"
      role="dialog"
      aria-label={label}
      className={css.panel}
      style={floatingStyles}
      onToggle={(event) => {
        if (event.newState === 'closed') onClose();
      }}
    >
      <DayPicker
        mode="single"
        required={false}
        autoFocus
        weekStartsOn={language === 'en-US' ? 0 : 1}
        locale={language === 'de' ? de : enGB}
        classNames={looks}
        selected={selected}
        defaultMonth={selected ?? (min ? parseISO(min) : undefined)}
        disabled={[...(min ? [{ before: parseISO(min) }] : []), ...(max ? [{ after: parseISO(max) }] : [])]}
        onSelect={(day) => {
          if (day) onPick(format(day, 'yyyy-MM-dd'));
        }}
      />
    </div>
  );
}
