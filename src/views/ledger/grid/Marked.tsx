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
export function Marked(props: Props) {
  const { lines, onRemove, onClear } = props;
  const { t } = useSpeech();
  const [wrong, setWrong] = useState<string | null>(null);
  return (
    <section className={css.bar} aria-label={t('marked.title')}>
      <b className={css.count} role="status">
        {t('marked.count', { count: lines.length })}
      </b>
      <ForAll {...props} onWrong={setWrong} />
      <Turns {...props} onWrong={setWrong} />
      <Alternatives {...props} onWrong={setWrong} />
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

/** With what is told of a refusal. */
type ToldProps = Props & { onWrong: (sentence: string | null) => void };

/** What is typed for all of them. */
function ForAll({ view, lines, onChange, onMonths, onWrong }: ToldProps) {
  const { t, language } = useSpeech();
  const go = async (change: Parameters<Props['onChange']>[0]) => onWrong(await onChange(change));
  const groups = [...new Set(view.lines.flatMap((line) => (line.group === null ? [] : [line.group])))];
  const figure = (by: 'rate' | 'margin', label: string) => (
    <TypedField
      label={label}
      check={(text) => wrongBy(by, text, language, view.currency, t)}
      onGo={(text) =>
        go({ hand: text === '' ? null : { by, value: sendable(by, text, language, view.currency) } })
      }
    />
  );
  return (
    <>
      {view.may.discount && figure('rate', t('ledger.discount'))}
      {view.may.seeCosts && figure('margin', t('ledger.marginPercent'))}
      <TypedField
        label={t('ledger.quantity')}
        check={(text) => (text === '' ? null : wrongQuantity(text, language, t))}
        onGo={async (text) => {
          if (text !== '') await go({ quantity: sendableQuantity(text, language) });
        }}
      />
      {lines.every((line) => line.recurs) && (
        <TypedField
          label={t('marked.months')}
          check={(text) => (text === '' ? null : wrongWith(months, text, t))}
          onGo={async (text) => {
            if (text !== '') onWrong(await onMonths(Number(text)));
          }}
        />
      )}
      <TypedField
        label={t('marked.group')}
        wide
        list={groups}
        check={() => null}
        onGo={async (text) => {
          if (text !== '') await go({ group: text });
        }}
      />
    </>
  );
}

/** What is so for all of them, or for none. */
function Turns({ view, lines, onChange, onWrong }: ToldProps) {
  const { t } = useSpeech();
  const go = async (change: Parameters<Props['onChange']>[0]) => onWrong(await onChange(change));
  const allLocked = lines.every((line) => line.locked);
  const allAside = lines.every((line) => line.optional);
  return (
    <>
      {lines.some((line) => line.group !== null) && (
        <Button onClick={() => void go({ group: null })}>{t('marked.ungroup')}</Button>
      )}
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
    </>
  );
}

/** Together they become alternatives of one another, where they are not, or stand by themselves again. */
function Alternatives({ lines, onAlternatives, onWrong }: ToldProps) {
  const { t } = useSpeech();
  const go = async (apart: boolean) => onWrong(await onAlternatives(apart));
  const some = lines.some((line) => line.alternativeSet !== null);
  const oneSet = some && lines.every((line) => line.alternativeSet === lines[0]?.alternativeSet);
  return (
    <>
      {lines.length > 1 && !oneSet && (
        <Button title={t('marked.alternativesWhy')} onClick={() => void go(false)}>
          <Split size={13} aria-hidden />
          {t('marked.alternatives')}
        </Button>
      )}
      {some && (
        <Button title={t('marked.apartWhy')} onClick={() => void go(true)}>
          <Merge size={13} aria-hidden />
          {t('marked.apart')}
        </Button>
      )}
    </>
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
