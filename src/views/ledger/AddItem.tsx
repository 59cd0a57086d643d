import { useState } from 'react';
import { ClipboardPaste } from 'lucide-react';
import type { QuoteView } from '../../core/quoting';
import { Button, Field, useAlive } from '../../ui';
import { sentences, type Answer } from '../api';
import { useSpeech } from '../speech';
import css from './ledger.module.css';

/** What was sent before the page's script ran, and why it was refused. */
export interface RefusedItem { sku: string; quantity: string; text: string }

interface Props {
  /** Of the quote; sent along where the form is sent as it is. */
  version: number;
  refused: RefusedItem | undefined;
  onAdd: (sku: string, quantity: string) => Promise<Answer<QuoteView>>;
  /** Opens what is not finished on the Bench; gives the sentence of a refusal. */
  onOpen: (partNumber: string) => Promise<string | null>;
  /** Opens the dialog for a pasted list. */
  onPaste: () => void;
}

/** Adds an item by its number, or what a part number is read back as. */
export function AddItem({ version, refused, onAdd, onOpen, onPaste }: Props) {
  const { t } = useSpeech();
  const alive = useAlive();
  const [sku, setSku] = useState(refused?.sku ?? '');
  const [quantity, setQuantity] = useState(refused?.quantity ?? '1');
  const [error, setError] = useState(refused?.text);
  const add = async () => {
    const answer = await onAdd(sku, quantity);
    if (!answer.ok) {
      const unfinished = answer.failures.some((failure) => failure.code === 'line.todo');
      setError((unfinished ? await onOpen(sku) : sentences(answer.failures, t('request.failed'))) ?? undefined);
      return;
    }
    setError(undefined);
    setSku('');
    setQuantity('1');
  };
  return (
    <form noValidate className={css.adding} method="post" onSubmit={(event) => { event.preventDefault(); void add(); }}>
      <input type="hidden" name="version" value={version} />
      <Field label={t('ledger.addItem')} name="sku" value={sku} onChange={(event) => setSku(event.target.value)} placeholder="SV-DELIV" />
      <Field label={t('ledger.addQuantity')} name="quantity" value={quantity} inputMode="numeric" onChange={(event) => setQuantity(event.target.value)} />
      <div className={css.addActs}><Button type="submit" disabled={alive && sku.trim() === ''}>{t('ledger.add')}</Button><Button onClick={onPaste}><ClipboardPaste size={14} aria-hidden />{t('paste.open')}</Button></div>
      {error && <p className={css.addError} role="alert">{error}</p>}
    </form>
  );
}
