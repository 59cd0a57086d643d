import { useState } from 'react';
import type { RequestView } from '../../../../contract';
import { money, own } from '../../../../i18n';
import { Button, Field } from '../../../../ui';
import { ask } from '../../../api';
import { NumberField } from '../../../parts/NumberField';
import { useSpeech } from '../../../speech';
import css from './colleagues.module.css';
import type { ColleaguesHere } from './useColleagues';

interface Props {
  id: string;
  request: RequestView;
  did: ColleaguesHere['did'];
}

interface Part {
  text: string;
  cost: string | null;
  price: string | null;
  days: string | null;
}

/** An answer in words; where a special part is wanted, what it is, costs and sells for, begun from the item's own. */
export function AnswerForm({ id, request: { item, usual }, did }: Props) {
  const { t } = useSpeech();
  const [words, setWords] = useState('');
  const [part, setPart] = useState<Part | null>(null);
  const [wrong, setWrong] = useState<ReadonlySet<string>>(new Set());
  const whole = part === null ? undefined : completed(part);
  const ready = words.trim() !== '' && whole !== null && wrong.size === 0;
  const wrongAt = (field: string, is: boolean): void => {
    const next = new Set(wrong);
    if (is) next.add(field);
    else next.delete(field);
    setWrong(next);
  };
  return (
    <form
      method="dialog"
      className={css.answer}
      onSubmit={(event) => {
        event.preventDefault();
        if (ready)
          void did(ask('POST /requests/{id}/answer', { at: { id }, input: { words, part: whole ?? null } }));
      }}
    >
      <textarea
        rows={3}
        aria-label={t('colleague.answerWords')}
        placeholder={t('colleague.answerWords')}
        maxLength={4_000}
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      {item && (
        <label className={css.tick}>
          <input
            type="checkbox"
            checked={part !== null}
            onChange={(event) => {
              setWrong(new Set());
              setPart(
                event.target.checked
                  ? { text: '', cost: usual?.cost ?? null, price: usual?.price ?? null, days: null }
                  : null,
              );
            }}
          />
          {t('colleague.withPart')}
        </label>
      )}
      {item && part && (
        <PartFields part={part} item={item} usual={usual} onChange={setPart} onWrong={wrongAt} />
      )}
      <p className={css.acts}>
        <Button look="main" type="submit" disabled={!ready}>
          {t('colleague.answer')}
        </Button>
      </p>
    </form>
  );
}

function PartFields({
  part,
  item,
  usual,
  onChange,
  onWrong,
}: {
  part: Part;
  item: NonNullable<RequestView['item']>;
  usual: RequestView['usual'];
  onChange: (part: Part) => void;
  onWrong: (field: string, is: boolean) => void;
}) {
  const { t, language } = useSpeech();
  const currency = usual?.currency ?? '';
  const shown = (value: string | null | undefined): string | undefined =>
    value === null || value === undefined
      ? undefined
      : t('colleague.usually', { amount: money(value, language, usual?.decimals ?? 2) });
  return (
    <div className={css.part}>
      <Field
        label={t('special.text', { item: own(item.name, language) || item.sku })}
        value={part.text}
        maxLength={200}
        onChange={(event) => onChange({ ...part, text: event.target.value })}
      />
      <NumberField
        label={`${t('bench.cost')} ${currency}`}
        value={part.cost}
        decimals={6}
        needed
        hint={shown(usual?.cost)}
        onWrong={(is) => onWrong('cost', is)}
        onValue={(cost) => onChange({ ...part, cost })}
      />
      <NumberField
        label={`${t('build.price')} ${currency}`}
        value={part.price}
        decimals={6}
        needed
        hint={usual && usual.price === null ? t('colleague.notSold') : shown(usual?.price)}
        onWrong={(is) => onWrong('price', is)}
        onValue={(price) => onChange({ ...part, price })}
      />
      <NumberField
        label={t('special.days')}
        value={part.days}
        decimals={0}
        needed
        onWrong={(is) => onWrong('days', is)}
        onValue={(days) => onChange({ ...part, days })}
      />
    </div>
  );
}

/** The part, once all of it is said. */
function completed({ text, cost, price, days }: Part) {
  return text.trim() === '' || cost === null || price === null || days === null
    ? null
    : { text: text.trim(), cost, price, days: Number(days) };
}
