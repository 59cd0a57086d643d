import { useState } from 'react';
import { X } from 'lucide-react';
import { own } from '../../i18n';
import { Button, Combobox } from '../../ui';
import { ask } from '../api';
import { useAnswer } from '../parts/useAnswer';
import { useSpeech } from '../speech';
import type { ItemDraft } from './useItem';
import css from './item.module.css';

/** What is sold in its place, and what is proposed with it. */
export function ItemLinks({ draft }: { draft: ItemDraft }) {
  const { t } = useSpeech();
  const { item, change, errorAt } = draft;
  const wrongWith = item.goesWith.map((_, at) => errorAt(`goesWith.${String(at)}`)).find(Boolean);
  return (
    <>
      <div className={css.half}>
        <ItemPick
          label={t('items.field.replacedBy')}
          error={errorAt('replacedBy')}
          onPick={(sku) => change({ replacedBy: sku })}
        />
        {item.replacedBy !== null && (
          <Picked skus={[item.replacedBy]} onDrop={() => change({ replacedBy: null })} />
        )}
      </div>
      <div className={css.half}>
        <ItemPick
          label={t('items.field.goesWith')}
          error={wrongWith}
          onPick={(sku) => item.goesWith.includes(sku) || change({ goesWith: [...item.goesWith, sku] })}
        />
        <Picked
          skus={item.goesWith}
          onDrop={(sku) => change({ goesWith: item.goesWith.filter((each) => each !== sku) })}
        />
      </div>
    </>
  );
}

function Picked({ skus, onDrop }: { skus: readonly string[]; onDrop: (sku: string) => void }) {
  const { t } = useSpeech();
  return (
    <ul className={css.picked}>
      {skus.map((sku) => (
        <li key={sku}>
          <a href={`/items/${encodeURIComponent(sku)}`}>{sku}</a>
          <Button look="plain" aria-label={t('items.dropOther', { sku })} onClick={() => onDrop(sku)}>
            <X size={13} aria-hidden />
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** Finds an item by its number or name. */
function ItemPick({
  label,
  error,
  onPick,
}: {
  label: string;
  error: string | undefined;
  onPick: (sku: string) => void;
}) {
  const { t, language } = useSpeech();
  const [text, setText] = useState('');
  const wanted = text.trim() === '' ? null : text.trim();
  const { last, answer } = useAnswer(wanted, () => ask('GET /items', { query: { find: wanted ?? '' } }));
  const found = wanted !== null && last?.ok ? last.value : [];
  return (
    <Combobox
      label={label}
      placeholder={t('items.find')}
      text={text}
      options={found.map(({ sku, name }) => ({ id: sku, text: own(name, language), detail: sku }))}
      none={t('items.noneFound')}
      looking={wanted !== null && !answer ? t('frame.looking') : undefined}
      error={error}
      onText={setText}
      onChoose={({ id }) => {
        setText('');
        onPick(id);
      }}
    />
  );
}
