import { useId } from 'react';
import { NumberField } from '../parts/NumberField';
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
