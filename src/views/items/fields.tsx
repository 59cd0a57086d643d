import { useId, useState } from 'react';
import { exact, readWritten } from '../../core/exact';
import { Field } from '../../ui';
import { useSpeech } from '../speech';
import type { ItemDraft } from './useItem';
import css from './item.module.css';

interface AreaProps {
  label: string;
  value: string;
  most: number;
  rows: number;
  onText: (text: string) => void;
}

/** A text of several lines. */
export function TextArea({ label, value, most, rows, onText }: AreaProps) {
  const id = useId();
  return (
    <div className={css.area}>
      <label htmlFor={id}>{label}</label>
      <textarea
        id={id}
        rows={rows}
        value={value}
        maxLength={most}
        onChange={(event) => onText(event.target.value)}
      />
    </div>
  );
}

type Figure = 'cost' | 'leadDays' | 'mass' | 'usualQuantity' | 'step' | 'coversMonths';
/** Figures that are kept as numbers; the others are exact texts. */
const wholes: ReadonlySet<Figure> = new Set(['leadDays', 'coversMonths']);
/** Figures that have to be there; of the others nothing may be known. */
const needed: ReadonlySet<Figure> = new Set(['cost', 'leadDays']);

/** A figure as one writes it in the language. */
export function FigureField({
  draft,
  field,
  label,
  decimals,
}: {
  draft: ItemDraft;
  field: Figure;
  label: string;
  decimals: number;
}) {
  const { item, change, mark, errorAt, turn } = draft;
  return (
    <NumberField
      key={turn}
      label={label}
      value={item[field] === null ? null : String(item[field])}
      decimals={decimals}
      needed={needed.has(field)}
      error={errorAt(field)}
      onWrong={(wrong) => mark(field, wrong)}
      onValue={(value) =>
        change({
          [field]: value === null ? null : wholes.has(field) ? Number(value) : value,
        })
      }
    />
  );
}

interface NumberProps {
  label: string;
  value: string | null;
  decimals: number;
  needed?: boolean;
  error?: string | undefined;
  hint?: string | undefined;
  onWrong: (wrong: boolean) => void;
  onValue: (value: string | null) => void;
}

/** A number that may be absent; what cannot be read stays as it is typed, and says why. */
export function NumberField({
  label,
  value,
  decimals,
  needed = false,
  error,
  hint,
  onWrong,
  onValue,
}: NumberProps) {
  const { t, language } = useSpeech();
  const written = value === null ? '' : language === 'de' ? value.replace('.', ',') : value;
  const [typed, setTyped] = useState(written);
  const [why, setWhy] = useState<string>();
  const read = (text: string): void => {
    setTyped(text);
    const found = readWritten(text, language);
    const empty = text.trim() === '';
    const wrong = empty
      ? needed
        ? t('input.required')
        : undefined
      : found.is === 'none'
        ? t('grid.noNumber', { value: text })
        : found.decimals > decimals
          ? t('grid.tooFine', { count: decimals })
          : undefined;
    setWhy(wrong);
    onWrong(wrong !== undefined);
    if (wrong !== undefined) return;
    if (empty) onValue(null);
    else if (found.is === 'number') onValue(exact(found.value).toString());
    else if (found.is === 'twoWays') onValue(exact(found.values[0]).toString());
  };
  return (
    <Field
      label={label}
      value={typed}
      inputMode="decimal"
      hint={hint}
      error={why ?? error}
      onChange={(event) => read(event.target.value)}
    />
  );
}
