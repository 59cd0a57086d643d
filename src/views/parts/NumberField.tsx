import { useState } from 'react';
import { exact, readWritten } from '../../core/exact';
import { Field } from '../../ui';
import { useSpeech } from '../speech';

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
