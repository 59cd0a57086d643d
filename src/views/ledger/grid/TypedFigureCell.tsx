import type { ReactNode } from 'react';
import type { Typed } from '../../../core/pricing';
import { typedOf } from '../../../contract';
import { useSpeech } from '../../speech';
import { EditCell } from './EditCell';
import { sendable, shownIn, wrongBy, type Way } from './typed-amount';

interface Props {
  by: Way;
  /** What it stands at; undefined where there is nothing to say. */
  value: string | undefined;
  /** What was typed, whichever of the four it was. */
  typed: Typed | null;
  label: string;
  currency: string;
  decimals: number;
  disabled: boolean;
  /** Told beneath, of the share typed so far or of what stands there. */
  below?: ((share: string | undefined) => ReactNode) | undefined;
  /** Saves what was typed, or takes it back; gives the sentence of a refusal. */
  onType: (typed: { by: Way; value: string } | null) => Promise<string | null>;
  /** Takes a pasted column of values. */
  onFill?: (texts: readonly (string | null)[]) => void;
}

/**
 * One of the four ways of saying a price. The one that was typed shows as typed, and stands out; emptied, it
 * is taken back.
 */
export function TypedFigureCell({
  by,
  value,
  typed,
  label,
  currency,
  decimals,
  disabled,
  below,
  onType,
  onFill,
}: Props) {
  const { t, language } = useSpeech();
  const own = typed?.by === by;
  const shown = own ? typed.value : value;
  return (
    <EditCell
      label={label}
      value={shown === undefined ? '' : shownIn(by, shown, language, decimals)}
      disabled={disabled}
      strong={own}
      hint={own ? t('ledger.typed') : undefined}
      below={
        below &&
        ((text) =>
          below(
            text === undefined || wrongBy(by, text, language, currency, t) !== null || text.trim() === ''
              ? undefined
              : typedOf({ by, value: sendable(by, text, language, currency) }).value,
          ))
      }
      check={(text) => wrongBy(by, text, language, currency, t)}
      onFill={onFill}
      onSave={(text) =>
        onType(text.trim() === '' ? null : { by, value: sendable(by, text, language, currency) })
      }
    />
  );
}
