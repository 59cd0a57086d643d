import { useState } from 'react';
import { CircleDashed, Lock, Merge, Split, Trash2, X } from 'lucide-react';
import { string } from 'yup';
import type { LineView, QuoteView } from '../../../contract';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './marked.module.css';
import { sendable, sendableQuantity, wrongBy, wrongQuantity, wrongWith } from './typed-amount';
import type { LineChange } from '../session/useQuote';

interface Props {
  view: QuoteView;
  lines: readonly LineView[];
  /** Gives the sentence of a refusal. */
  onChange: (change: LineChange & { group?: string | null }) => Promise<string | null>;
  /** For so many months, each from its own first day. */
  onMonths: (months: number) => Promise<string | null>;
  /** Makes the lines alternatives of one another, or has them stand by themselves. */
  onAlternatives: (apart: boolean) => Promise<string | null>;
  onRemove: () => void;
  onClear: () => void;
}

const months = string().matches(/^\s*\d{1,3}\s*$/, 'quantity.notANumber');

/** What can be done with all marked lines at once. */
export function Marked({ view, lines, onChange, onMonths, onAlternatives, onRemove, onClear }: Props) {
  const { t, language } = useSpeech();
  const [wrong, setWrong] = useState<string | null>(null);
  const go = async (change: LineChange & { group?: string | null }) => setWrong(await onChange(change));
  const recurring = lines.filter((line) => line.recurs);
  const allLocked = lines.every((line) => line.locked);
  const allAside = lines.every((line) => line.optional);
  const some = lines.some((line) => line.alternativeSet !== null);
  const grouped = lines.some((line) => line.group !== null);
  const groups = [...new Set(view.lines.flatMap((line) => (line.group === null ? [] : [line.group])))];
  return (
    <section className={css.bar} aria-label={t('marked.title')}>
      <b className={css.count} role="status">
        {t('marked.count', { count: lines.length })}
      </b>
      {view.may.discount && (
        <TypedField
          label={t('ledger.discount')}
          check={(text) => wrongBy('rate', text, language, view.currency, t)}
          onGo={(text) =>
            go({
              hand:
                text === '' ? null : { by: 'rate', value: sendable('rate', text, language, view.currency) },
            })
          }
        />
      )}
      {view.may.seeCosts && (
        <TypedField
          label={t('ledger.marginPercent')}
          check={(text) => wrongBy('margin', text, language, view.currency, t)}
          onGo={(text) =>
            go({
              hand:
                text === ''
                  ? null
                  : { by: 'margin', value: sendable('margin', text, language, view.currency) },
            })
          }
        />
      )}
      <TypedField
        label={t('ledger.quantity')}
        check={(text) => (text === '' ? null : wrongQuantity(text, language, t))}
        onGo={(text) =>
          text === '' ? Promise.resolve() : go({ quantity: sendableQuantity(text, language) })
        }
      />
      {recurring.length === lines.length && (
        <TypedField
          label={t('marked.months')}
          check={(text) => (text === '' ? null : wrongWith(months, text, t))}
          onGo={(text) => (text === '' ? Promise.resolve() : onMonths(Number(text)).then(setWrong))}
        />
      )}
      <TypedField
        label={t('marked.group')}
        wide
        list={groups}
        check={() => null}
        onGo={(text) => (text === '' ? Promise.resolve() : go({ group: text }))}
      />
      {grouped && <Button onClick={() => void go({ group: null })}>{t('marked.ungroup')}</Button>}
      {view.may.discount && (
        <Button aria-pressed={allLocked} onClick={() => void go({ locked: !allLocked })}>
          <Lock size={13} aria-hidden />
          {t('marked.lock')}
        </Button>
      )}
      <Button aria-pressed={allAside} onClick={() => void go({ optional: !allAside })}>
        <CircleDashed size={13} aria-hidden />
        {t('marked.aside')}
      </Button>
      {lines.length > 1 &&
        !(some && lines.every((line) => line.alternativeSet === lines[0]?.alternativeSet)) && (
          <Button
            title={t('marked.alternativesWhy')}
            onClick={() => void onAlternatives(false).then(setWrong)}
          >
            <Split size={13} aria-hidden />
            {t('marked.alternatives')}
          </Button>
        )}
      {some && (
        <Button title={t('marked.apartWhy')} onClick={() => void onAlternatives(true).then(setWrong)}>
          <Merge size={13} aria-hidden />
          {t('marked.apart')}
        </Button>
      )}
      <Button onClick={onRemove}>
        <Trash2 size={13} aria-hidden />
        {t('marked.remove')}
      </Button>
      <Button look="plain" aria-label={t('marked.clear')} title={t('marked.clear')} onClick={onClear}>
        <X size={14} aria-hidden />
      </Button>
      {wrong && (
        <p className={css.wrong} role="alert">
          {wrong}
        </p>
      )}
    </section>
  );
}

/** A field for all of them: Enter takes what was typed over, nothing typed takes back. */
function TypedField({
  label,
  wide = false,
  list,
  check,
  onGo,
}: {
  label: string;
  wide?: boolean;
  list?: readonly string[];
  check: (text: string) => string | null;
  onGo: (text: string) => Promise<void>;
}) {
  const { t } = useSpeech();
  const [text, setText] = useState('');
  const wrong = check(text.trim());
  const id = `marked-${label}`;
  return (
    <label className={css.field}>
      {label}
      <input
        className={wide ? css.wide : css.narrow}
        value={text}
        aria-label={t('marked.field', { what: label })}
        aria-invalid={wrong !== null}
        title={wrong ?? t('marked.enter')}
        {...(list ? { list: id } : {})}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || wrong !== null) return;
          event.preventDefault();
          void onGo(text.trim());
        }}
      />
      {list && (
        <datalist id={id}>
          {list.map((each) => (
            <option key={each} value={each} />
          ))}
        </datalist>
      )}
      {wrong !== null && (
        <span className={css.wrong} role="alert">
          {wrong}
        </span>
      )}
    </label>
  );
}
