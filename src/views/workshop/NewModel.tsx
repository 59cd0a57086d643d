import { useId, useState } from 'react';
import type { ModelHead, NewDraftInput } from '../../contract';
import { own } from '../../i18n';
import { Button, Dialog, DialogFoot, Field, say, Select } from '../../ui';
import { ask, send, sentences, type Refusal } from '../api';
import { useSpeech } from '../speech';
import { idOf } from './grids/list-edits';
import css from './workshop.module.css';

interface Props {
  models: readonly ModelHead[];
  open: boolean;
  onClose: () => void;
}

const kinds = ['items', 'rows', 'bundle', 'nothing', 'copy', 'document'] as const;
type Kind = (typeof kinds)[number];

/** A new model, begun from items of the catalogue, nothing, a copy, or a document. */
export function NewModel({ models, open, onClose }: Props) {
  const { t, language } = useSpeech();
  const [kind, setKind] = useState<Kind>('items');
  const [title, setTitle] = useState('');
  const [typedId, setTypedId] = useState<string | null>(null);
  const [sku, setSku] = useState('');
  const [items, setItems] = useState('');
  const [copied, setCopied] = useState(models[0]?.id ?? '');
  const [document, setDocument] = useState<unknown>(null);
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const [rows, setRows] = useState<string[][]>([]);
  const [leave, setLeave] = useState(false);
  const [busy, setBusy] = useState(false);
  const area = useId();
  const id = typedId ?? idOf(title, (each) => models.some((model) => model.id === each), 'model');
  const wrong = (field: string): string | undefined =>
    refusals.find((each) => each.field?.endsWith(field))?.message;
  const from = (): NewDraftInput['from'] => {
    const base = { id, sku: sku.trim().toUpperCase(), title: title.trim() };
    switch (kind) {
      case 'items':
        return {
          is: 'items',
          ...base,
          skus: items
            .toUpperCase()
            .split(/[\s,;]+/)
            .filter(Boolean),
        };
      case 'nothing':
        return { is: 'nothing', ...base };
      case 'rows':
        return { is: 'rows', ...base, rows, leave };
      case 'bundle':
      case 'copy': {
        const model = models.find((each) => each.id === copied);
        const version = model?.versions.find((each) => each.current) ?? model?.versions[0];
        return { is: kind, ...base, version: version?.id ?? '' };
      }
      case 'document':
        return { is: 'document', ...(base.sku === '' ? {} : { sku: base.sku }), document };
    }
  };
  const begin = async (): Promise<void> => {
    setBusy(true);
    const answer = await ask('POST /drafts', {
      input: { name: t('draft.number', { number: '1' }), from: from() },
    });
    setBusy(false);
    if (answer.ok) window.location.assign(`/models/${answer.value.id}`);
    else setRefusals(answer.failures);
  };
  const others = refusals.filter(
    ({ field }) => !['title', 'id', 'sku', 'skus'].some((each) => field?.endsWith(each)),
  );
  return (
    <Dialog title={t('draft.beginNew')} closeText={t('frame.close')} open={open} onClose={onClose}>
      <form
        noValidate
        className={css.new}
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
      >
        <Select
          label={t('draft.from')}
          value={kind}
          options={kinds.map((each) => ({ value: each, text: t(`draft.of.${each}`) }))}
          onChange={({ target }) => setKind(kinds.find((each) => each === target.value) ?? 'items')}
        />
        {kind !== 'document' && (
          <>
            <Field
              label={t('draft.title')}
              value={title}
              error={wrong('title')}
              onChange={({ target }) => setTitle(target.value)}
            />
            <Field
              label={t('draft.id')}
              value={id}
              error={wrong('id')}
              onChange={({ target }) => setTypedId(target.value)}
            />
          </>
        )}
        <Field
          label={t('draft.sku')}
          value={sku}
          error={wrong('sku')}
          onChange={({ target }) => setSku(target.value)}
        />
        {kind === 'items' && (
          <div>
            <label htmlFor={area}>{t('draft.items')}</label>
            <textarea id={area} rows={6} value={items} onChange={({ target }) => setItems(target.value)} />
            {wrong('skus') !== undefined && (
              <p role="alert" className={css.wrong}>
                {wrong('skus')}
              </p>
            )}
          </div>
        )}
        {kind === 'rows' && <SheetRows {...{ rows, leave }} onRows={setRows} onLeave={setLeave} />}
        {(kind === 'copy' || kind === 'bundle') && (
          <Select
            label={t('draft.model')}
            value={copied}
            options={models.map((each) => ({ value: each.id, text: own(each.name, language) || each.id }))}
            onChange={({ target }) => setCopied(target.value)}
          />
        )}
        {kind === 'document' && (
          <div>
            <label htmlFor={area}>{t('draft.file')}</label>
            <input
              id={area}
              type="file"
              accept="application/json,.json"
              onChange={({ target }) => {
                void target.files?.[0]?.text().then((text) => {
                  try {
                    setDocument(JSON.parse(text));
                  } catch {
                    // What is no JSON is refused like any other document that is none.
                    setDocument(text);
                  }
                });
              }}
            />
          </div>
        )}
        {others.map(({ code, message }, at) => (
          <p key={`${code} ${String(at)}`} role="alert" className={css.wrong}>
            {message}
          </p>
        ))}
        <DialogFoot>
          <Button look="main" type="submit" disabled={busy}>
            {t('draft.begin')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}

/** Rows that become the outline: pasted from a spreadsheet, or of a file. */
function SheetRows({
  rows,
  leave,
  onRows,
  onLeave,
}: {
  rows: readonly (readonly string[])[];
  leave: boolean;
  onRows: (rows: string[][]) => void;
  onLeave: (leave: boolean) => void;
}) {
  const { t } = useSpeech();
  const area = useId();
  const file = useId();
  const take = async (chosen: File): Promise<void> => {
    const answer = await send('POST /read-rows', { file: chosen });
    if (answer.ok) onRows(answer.value.rows);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  return (
    <div>
      <label htmlFor={area}>{t('draft.rowsHint')}</label>
      <textarea
        id={area}
        rows={7}
        value={rows.map((row) => row.join('\t')).join('\n')}
        onChange={({ target }) => onRows(target.value.split('\n').map((line) => line.split('\t')))}
      />
      <label htmlFor={file}>{t('draft.rowsFile')}</label>{' '}
      <input
        id={file}
        type="file"
        accept=".xlsx,.csv"
        onChange={({ target }) => {
          const [chosen] = target.files ?? [];
          if (chosen) void take(chosen);
        }}
      />
      <label className={css.tick}>
        <input type="checkbox" checked={leave} onChange={({ target }) => onLeave(target.checked)} />{' '}
        {t('draft.rowsLeave')}
      </label>
    </div>
  );
}
