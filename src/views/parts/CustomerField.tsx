import { useRef, useState } from 'react';
import { UserPlus } from 'lucide-react';
import type { CustomerFound } from '../../contract';
import { Button, Combobox } from '../../ui';
import { ask } from '../api';
import { useSpeech } from '../speech';
import { pause } from './pause';
import css from './forms.module.css';

interface Props {
  error?: string | undefined;
  /** Name of the one that is meant before anything is typed; the field is not the first of its form then. */
  given?: string | undefined;
  /** The one that is meant: chosen, or the only one found; null while it is open. What is typed comes with it. */
  onMeant: (customer: CustomerFound | null, typed: string) => void;
  /** Begins a new customer of what was typed. */
  onNew?: (name: string) => void;
}

/** Part of a name, number or town finds a customer. */
export function CustomerField({ error, given, onMeant, onNew }: Props) {
  const { t } = useSpeech();
  const [text, setText] = useState(given ?? '');
  const [found, setFound] = useState<CustomerFound[]>([]);
  const latest = useRef(0);
  const [looking, setLooking] = useState(false);
  const find = async (typed: string) => {
    setText(typed);
    onMeant(null, typed);
    const turn = ++latest.current;
    setLooking(typed.trim() !== '');
    await new Promise((next) => setTimeout(next, pause));
    if (turn !== latest.current) return;
    const answer = typed.trim() ? await ask('GET /customers', { query: { find: typed } }) : null;
    if (turn !== latest.current) return;
    const all = answer?.ok ? answer.value : [];
    setFound(all);
    setLooking(false);
    onMeant(all.length === 1 ? (all[0] ?? null) : null, typed);
  };
  return (
    <div className={css.found}>
      {onNew && (
        <Button look="plain" className={css.begin} onClick={() => onNew(text)}>
          <UserPlus size={14} aria-hidden />
          {t('newCustomer.begin')}
        </Button>
      )}
      <Combobox
        label={t('newQuote.customer')}
        placeholder={t('newQuote.customerHint')}
        text={text}
        none={t('newQuote.none', { text })}
        looking={looking ? t('frame.looking') : undefined}
        error={error}
        autoFocus
        options={
          looking
            ? []
            : found.map((each) => ({
                id: each.id,
                text: each.name,
                detail: `${each.number} · ${each.town} · ${each.currency}`,
              }))
        }
        onText={(typed) => void find(typed)}
        onChoose={(option) => {
          latest.current += 1;
          setLooking(false);
          setText(option.text);
          onMeant(found.find((each) => each.id === option.id) ?? null, option.text);
        }}
      />
    </div>
  );
}
