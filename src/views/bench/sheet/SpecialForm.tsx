import { useState, type ReactNode } from 'react';
import type { BenchView } from '../../../contract';
import type { SpecialPart } from '../../../core/builds';
import { readWritten } from '../../../core/exact';
import { money, own } from '../../../i18n';
import { Button, say } from '../../../ui';
import { ask, sentences } from '../../api';
import { useSpeech } from '../../speech';
import css from '../head/strip.module.css';

/** What takes the place of an item, in words, with its own cost, price and days. */
export function SpecialForm({
  item,
  view,
  onMake,
  onLeave,
}: {
  item: string;
  view: BenchView;
  onMake: (part: SpecialPart) => void;
  onLeave: () => void;
}) {
  const { t, language } = useSpeech();
  const [asking, setAsking] = useState(false);
  const { costs = {}, prices, decimals, currency } = view.tariff;
  const written = (amount: string | undefined) =>
    amount === undefined ? '' : money(amount, language, decimals).replace(/[\s.,](?=\d{3})/g, '');
  const [text, setText] = useState('');
  const [cost, setCost] = useState(written(costs[item]));
  const [price, setPrice] = useState(written(prices[item]));
  const [days, setDays] = useState(String(view.facts[item]?.leadDays ?? 0));
  const read = (typed: string): string | null => {
    const found = readWritten(typed, language);
    return found.is === 'number' && !found.value.startsWith('-') && found.decimals <= 6 ? found.value : null;
  };
  const [costRead, priceRead, daysRead] = [
    read(cost),
    read(price),
    /^\d{1,3}$/.test(days.trim()) ? Number(days) : null,
  ];
  const ready = text.trim() !== '' && costRead !== null && priceRead !== null && daysRead !== null;
  const field = (label: string, value: string, set: (typed: string) => void, wide = false) => (
    <label className={wide ? css.wide : css.narrow}>
      <span>{label}</span>
      <input
        type="text"
        value={value}
        maxLength={wide ? 200 : 20}
        inputMode={wide ? 'text' : 'decimal'}
        autoFocus={wide}
        onChange={(event) => set(event.target.value)}
      />
    </label>
  );
  if (asking && view.quote && view.line)
    return <AskForm item={item} view={view} quote={view.quote.id} line={view.line.id} onLeave={onLeave} />;
  return (
    <Frame
      onLeave={onLeave}
      onSend={() => {
        if (ready) onMake({ item, text: text.trim(), cost: costRead, price: priceRead, days: daysRead });
      }}
    >
      {field(t('special.text', { item: own(view.itemNames[item], language) || item }), text, setText, true)}
      {field(`${t('bench.cost')} ${currency}`, cost, setCost)}
      {field(`${t('build.price')} ${currency}`, price, setPrice)}
      {field(t('special.days'), days, setDays)}
      <Button look="main" type="submit" disabled={!ready}>
        {t('special.go')}
      </Button>
      {view.quote && view.line && (
        <Button title={t('special.askWhy')} onClick={() => setAsking(true)}>
          {t('special.ask')}
        </Button>
      )}
      <Button look="plain" onClick={onLeave}>
        {t('newQuote.cancel')}
      </Button>
    </Frame>
  );
}

/** A form in a line of the sheet: sent by Enter, left by Escape. */
function Frame({
  onSend,
  onLeave,
  children,
}: {
  onSend: () => void;
  onLeave: () => void;
  children: ReactNode;
}) {
  return (
    <form
      method="dialog"
      className={css.specialForm}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onLeave();
      }}
      onSubmit={(event) => {
        event.preventDefault();
        onSend();
      }}
    >
      {children}
    </form>
  );
}

/** Asks who knows: what it takes, costs and sells for. The answer can be put in where it is read. */
function AskForm({
  item,
  view,
  quote,
  line,
  onLeave,
}: {
  item: string;
  view: BenchView;
  quote: string;
  line: string;
  onLeave: () => void;
}) {
  const { t, language } = useSpeech();
  const [words, setWords] = useState('');
  const [role, setRole] = useState<'modeller' | 'manager'>('modeller');
  const send = async (): Promise<void> => {
    const asked = await ask('POST /quotes/{id}/requests', {
      at: { id: quote },
      input: { kind: 'technical', of: null, role, line, item, words },
    });
    say(asked.ok ? t('special.asked') : sentences(asked.failures, t('request.failed')), !asked.ok);
    if (asked.ok) onLeave();
  };
  const name = own(view.itemNames[item], language) || item;
  return (
    <Frame
      onLeave={onLeave}
      onSend={() => {
        if (words.trim() !== '') void send();
      }}
    >
      <label className={css.wide}>
        <span>{t('special.text', { item: name })}</span>
        <input
          type="text"
          value={words}
          maxLength={2_000}
          autoFocus
          onChange={(event) => setWords(event.target.value)}
        />
      </label>
      <label>
        <span>{t('special.whom')}</span>
        <select value={role} onChange={(event) => setRole(event.target.value as 'modeller' | 'manager')}>
          <option value="modeller">{t('role.modeller')}</option>
          <option value="manager">{t('role.manager')}</option>
        </select>
      </label>
      <Button look="main" type="submit" disabled={words.trim() === ''}>
        {t('special.askNow')}
      </Button>
      <Button look="plain" onClick={onLeave}>
        {t('newQuote.cancel')}
      </Button>
    </Frame>
  );
}
