import { useId, type SelectHTMLAttributes } from 'react';
import css from './ui.module.css';

interface Props extends SelectHTMLAttributes<HTMLSelectElement> {
  label: string;
  options: readonly { value: string; text: string }[];
}

/** A choice among a few, as the browser has it. */
export function Select({ label, options, ...rest }: Props) {
  const id = useId();
  return (
    <div className={css.field}>
      <label className={css.label} htmlFor={id}>
        {label}
      </label>
      <select id={id} className={css.input} {...rest}>
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.text}
          </option>
        ))}
      </select>
    </div>
  );
}
