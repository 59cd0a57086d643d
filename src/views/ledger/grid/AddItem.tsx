import { useRef, useState } from 'react';
import { ClipboardPaste } from 'lucide-react';
import type { ItemFound, QuoteView } from '../../../contract';
import { own } from '../../../i18n';
import { Button, Combobox, Field, useAlive } from '../../../ui';
import { ask, sentences, type Answer } from '../../api';
import { pause } from '../../parts/pause';
import { useSpeech } from '../../speech';
import css from '../ledger.module.css';

/** What was sent before the page's script ran, and why it was refused. */
export interface RefusedItem {
  sku: string;
  quantity: string;
  text: string;
}

interface Props {
  /** Of the quote; sent along where the form is sent as it is. */
  version: number;
  refused: RefusedItem | undefined;
  /** Work begins here. */
  begins: boolean;
  onAdd: (sku: string, quantity: string) => Promise<Answer<QuoteView>>;
  /** Opens what is not finished, or a new build of a model, on the Bench; gives the sentence of a refusal. */
  onOpen: (from: { partNumber: string } | { modelId: string }) => Promise<string | null>;
  /** Opens the dialog for a pasted list. */
  onPaste: () => void;
}

/** Adds an item by its number or by words of its name, or what a part number is read back as. */
export function AddItem(props: Props) {
  const { version, begins, onPaste } = props;
  const { t, language } = useSpeech();
  const alive = useAlive();
  const { form, sku, quantity, setQuantity, error, items, find, choose, add } = useAdding(props);
  return (
    <form
      ref={form}
      noValidate
      className={css.adding}
      method="post"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <input type="hidden" name="version" value={version} />
      <Combobox
        label={t('ledger.addItem')}
        name="sku"
        inputId="add-item"
        free
        autoFocus={begins}
        text={sku}
        placeholder={t('ledger.addHint')}
        none=""
        options={items.map((each) => ({
          id: each.sku,
          text: own(each.name, language),
          detail: each.model === undefined ? each.sku : `${each.sku} · ${t('catalogue.configure')}`,
        }))}
        onText={(typed) => void find(typed)}
        onChoose={({ id }) => void choose(id)}
      />
      <Field
        label={t('ledger.addQuantity')}
        name="quantity"
        value={quantity}
        inputMode="numeric"
        onChange={(event) => setQuantity(event.target.value)}
      />
      <div className={css.addActs}>
        <Button type="submit" disabled={alive && sku.trim() === ''}>
          {t('ledger.add')}
        </Button>
        <Button onClick={onPaste}>
          <ClipboardPaste size={14} aria-hidden />
          {t('paste.open')}
        </Button>
      </div>
      {error && (
        <p className={css.addError} role="alert">
          {error}
        </p>
      )}
    </form>
  );
}

/** What is typed, what is found for it, and adding it; what was refused is there again to be mended. */
function useAdding({ refused, onAdd, onOpen }: Props) {
  const { t } = useSpeech();
  const [sku, setSku] = useState(refused?.sku ?? '');
  const [quantity, setQuantity] = useState(refused?.quantity ?? '1');
  const [error, setError] = useState(refused?.text);
  const [items, setItems] = useState<ItemFound[]>([]);
  const latest = useRef(0);
  const form = useRef<HTMLFormElement>(null);
  const find = async (typed: string) => {
    setSku(typed);
    setError(undefined);
    const turn = ++latest.current;
    await new Promise((next) => setTimeout(next, pause));
    const answer =
      turn === latest.current && typed.trim() ? await ask('GET /items', { query: { find: typed } }) : null;
    if (turn === latest.current) setItems(answer?.ok ? answer.value : []);
  };
  const choose = async (id: string) => {
    latest.current += 1;
    setItems([]);
    setSku(id);
    const model = items.find((each) => each.sku === id)?.model;
    if (model === undefined) return;
    const refusal = await onOpen({ modelId: model });
    setError(refusal ?? undefined);
    // It went on the quote at once, and the next can be typed.
    if (refusal === null) setSku((typed) => (typed === id ? '' : typed));
  };
  const add = async () => {
    latest.current += 1;
    setItems([]);
    setError(undefined);
    setSku('');
    setQuantity('1');
    // The next item can be typed while this one is on its way.
    form.current?.querySelector<HTMLInputElement>('[role=combobox]')?.focus();
    const answer = await onAdd(sku, quantity);
    if (answer.ok) return;
    const unfinished = answer.failures.some((failure) => failure.code === 'line.todo');
    setError(
      (unfinished ? await onOpen({ partNumber: sku }) : sentences(answer.failures, t('request.failed'))) ??
        undefined,
    );
    // What was refused is there to be mended, unless something else is typed by now.
    setSku((typed) => typed || sku);
    setQuantity((typed) => (typed === '1' ? quantity : typed));
  };
  return { form, sku, quantity, setQuantity, error, items, find, choose, add };
}
