import { useState } from 'react';
import type { EntryView, ListHead, PricesView } from '../../contract';
import { cellsOfEntry } from '../../core/prices';
import { own } from '../../i18n';
import { Button, Dialog, DialogFoot, Field, say, Select } from '../../ui';
import { ask, sentences } from '../api';
import { DayField } from '../parts/DayField';
import { useSpeech } from '../speech';
import { FormulaField, isFormula } from './FormulaField';
import shared from '../parts/side/room-page.module.css';
import css from './prices.module.css';

interface Props {
  view: PricesView;
  list: ListHead;
  family: string | null;
  find: string;
  /** How many entries are found by these. */
  count: number;
  /** Those that are marked. */
  marked: readonly EntryView[];
  onClose: () => void;
}

/** Puts entries into a price change that is being made ready, or a new one: by a formula, or to be typed over. */
export function PutIn({ view, list, family, find, count, marked, onClose }: Props) {
  const { t, language } = useSpeech();
  const drafts = view.changes.filter(({ stand }) => stand === 'draft');
  const [into, setInto] = useState(drafts[0]?.id ?? '');
  const [name, setName] = useState('');
  const [inForce, setInForce] = useState(view.today);
  const [over, setOver] = useState<'all' | 'marked'>(marked.length > 0 ? 'marked' : 'all');
  const [formula, setFormula] = useState('');
  const [busy, setBusy] = useState(false);
  const refuse = (failures: Parameters<typeof sentences>[0]): void =>
    say(sentences(failures, t('request.failed')), true);
  /** The change, with its version. */
  const target = async (): Promise<{ id: string; version: number } | null> => {
    const draft = drafts.find(({ id }) => id === into);
    if (draft) return draft;
    const made = await ask('POST /prices/changes', { input: { name, inForce, note: '' } });
    if (made.ok) return made.value;
    refuse(made.failures);
    return null;
  };
  const put = async (): Promise<void> => {
    setBusy(true);
    const change = await target();
    if (change && (await fill(change))) window.location.assign(`/prices/changes/${change.id}`);
    setBusy(false);
  };
  const fill = async ({ id, version }: { id: string; version: number }): Promise<boolean> => {
    const skus = over === 'marked' ? marked.map(({ sku }) => sku) : null;
    if (formula.trim() !== '') {
      const answer = await ask('POST /prices/changes/{id}/formula', {
        at: { id },
        input: {
          version,
          list: list.code,
          formula,
          family,
          find: over === 'marked' ? '' : find,
          skus,
          typedToo: false,
        },
      });
      if (!answer.ok) refuse(answer.failures);
      return answer.ok;
    }
    const answer = await ask('PUT /prices/changes/{id}/rows', {
      at: { id },
      input: {
        version,
        rows: marked.map(({ sku, inside, now }) => ({
          list: list.code,
          sku,
          inside,
          cells: cellsOfEntry(now, language, list.decimals),
        })),
        out: [],
      },
    });
    if (!answer.ok) refuse(answer.failures);
    return answer.ok;
  };
  const ready =
    (into !== '' || name.trim() !== '') &&
    (formula.trim() === ''
      ? over === 'marked' && marked.length > 0
      : isFormula(formula, language, view.lists));
  return (
    <Dialog title={t('prices.change')} closeText={t('prices.close')} open onClose={onClose}>
      <div className={css.putIn}>
        <Select
          label={t('prices.into')}
          value={into}
          options={[
            ...drafts.map((draft) => ({ value: draft.id, text: draft.name })),
            { value: '', text: t('prices.intoNew') },
          ]}
          onChange={(event) => setInto(event.target.value)}
        />
        {into === '' && (
          <>
            <Field
              label={t('prices.name')}
              value={name}
              maxLength={80}
              onChange={(event) => setName(event.target.value)}
            />
            <div className={css.day}>
              <span aria-hidden>{t('prices.inForce')}</span>
              <DayField label={t('prices.inForce')} value={inForce} min={view.today} onPick={setInForce} />
            </div>
          </>
        )}
        <Select
          label={t('prices.over')}
          value={over}
          options={[
            ...(marked.length > 0
              ? [{ value: 'marked', text: t('prices.changeMarked', { count: marked.length }) }]
              : []),
            {
              value: 'all',
              text: `${t('prices.changeAll', { count })}, ${own(list.name, language)}`,
            },
          ]}
          onChange={(event) => setOver(event.target.value === 'marked' ? 'marked' : 'all')}
        />
        <FormulaField value={formula} lists={view.lists} onText={setFormula} />
        {over === 'marked' && formula.trim() === '' && <p className={shared.quiet}>{t('prices.byHand')}</p>}
      </div>
      <DialogFoot>
        <Button look="main" disabled={!ready || busy} onClick={() => void put()}>
          {t('prices.putIn')}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
