import { useState } from 'react';
import { string } from 'yup';
import { recurringIn, type Term } from '../../../core/pricing';
import type { LineView } from '../../../contract';
import { date } from '../../../i18n';
import { DayField } from '../../parts/DayField';
import { useSpeech } from '../../speech';
import { EditCell } from './EditCell';
import css from './lines.module.css';
import { wrongWith } from './typed-amount';

interface Props {
  line: LineView;
  disabled: boolean;
  onChange: (term: Term) => Promise<string | null>;
}

const wholeMonths = string().matches(/^\s*\d{1,3}\s*$/, 'quantity.notANumber');

/** From when and for how many months a line recurs; the last day follows. */
export function TermFields({ line, disabled, onChange }: Props) {
  const { t, language } = useSpeech();
  const [wrong, setWrong] = useState<string | null>(null);
  const { recurs, price, position } = line;
  const running = recurringIn(price)[0]?.recurring;
  if (!recurs) return null;
  const { term } = recurs;
  return (
    <span className={css.term}>
      <DayField
        label={t('ledger.startOf', { line: position })}
        value={term.start}
        disabled={disabled}
        onPick={(start) => {
          if (start && start !== term.start) void onChange({ ...term, start }).then(setWrong);
        }}
      />
      <EditCell
        label={t('ledger.monthsOf', { line: position })}
        value={String(term.months)}
        disabled={disabled}
        narrow
        check={(typed) => wrongWith(wholeMonths, typed, t)}
        onSave={(typed) => onChange({ ...term, months: Number(typed.trim()), days: 0 })}
      />
      <span>
        {t('ledger.termText', {
          days: term.days > 0 ? t('ledger.termDays', { count: term.days }) : '',
          to: running ? date(running.to, language) : '',
        })}
      </span>
      {wrong && (
        <span className={css.problem} role="alert">
          {wrong}
        </span>
      )}
    </span>
  );
}
