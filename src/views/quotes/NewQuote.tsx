import { useRef, useState } from 'react';
import type { CustomerFound } from '../../core/quoting';
import { Button, Combobox, Dialog, DialogFoot, Field } from '../../ui';
import { ask, sentences } from '../api';
import { useSpeech } from '../speech';

/** Opens a quote: part of a name finds the customer; everything else comes along. */
export function NewQuote({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { t } = useSpeech();
  const [text, setText] = useState('');
  const [found, setFound] = useState<CustomerFound[]>([]);
  const [customer, setCustomer] = useState<CustomerFound | null>(null);
  const [title, setTitle] = useState('');
  const [error, setError] = useState<string>();
  const latest = useRef(0);

  const find = async (typed: string) => {
    setText(typed);
    setCustomer(null);
    setError(undefined);
    const turn = ++latest.current;
    const answer = typed.trim() ? await ask<CustomerFound[]>('GET', `/api/customers?find=${encodeURIComponent(typed)}`) : null;
    if (turn === latest.current) setFound(answer?.ok ? answer.value : []);
  };
  const go = async () => {
    const chosen = customer ?? (found.length === 1 ? found[0] : null);
    if (!chosen) {
      setError(t('quote.noCustomer'));
      return;
    }
    const answer = await ask<{ id: string }>('POST', '/api/quotes', { customerId: chosen.id, title });
    if (answer.ok) window.location.assign(`/quotes/${answer.value.id}`);
    else setError(sentences(answer.failures, t('request.failed')));
  };
  return (
    <Dialog title={t('newQuote.title')} closeText={t('frame.close')} open={open} onClose={onClose}>
      <form noValidate onSubmit={(event) => { event.preventDefault(); void go(); }} style={{ display: 'grid', gap: 16, minHeight: 240, alignContent: 'space-between' }}>
        <div style={{ display: 'grid', gap: 16 }}>
          <Combobox
            label={t('newQuote.customer')} placeholder={t('newQuote.customerHint')} text={text} none={t('newQuote.none', { text })} error={error} autoFocus
            options={found.map((each) => ({ id: each.id, text: each.name, detail: `${each.number} · ${each.town} · ${each.currency}` }))}
            onText={(typed) => void find(typed)}
            onChoose={(option) => { setCustomer(found.find((each) => each.id === option.id) ?? null); setText(option.text); }}
          />
          <Field label={t('newQuote.name')} hint={t('newQuote.nameHint')} value={title} maxLength={120} onChange={(event) => setTitle(event.target.value)} />
        </div>
        <DialogFoot>
          <Button onClick={onClose}>{t('newQuote.cancel')}</Button>
          <Button look="main" type="submit">{t('newQuote.open')}</Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
