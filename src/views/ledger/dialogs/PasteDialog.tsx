import { useState } from 'react';
import { mostRows, readPartList } from '../../../core/exchange';
import type { QuoteView, ReadNumber } from '../../../contract';
import { number as written } from '../../../i18n';
import { Button, Dialog, DialogFoot } from '../../../ui';
import { ask, send, sentences, type Answer } from '../../api';
import { useSpeech } from '../../speech';
import css from './paste.module.css';
import { PastedRows } from './PastedRows';
import { sound, withQuantity, type PastedRow } from './pasted-row';

interface Props {
  open: boolean;
  view: QuoteView;
  onAdd: (rows: { sku: string; quantity: number; discount?: string }[]) => Promise<Answer<QuoteView>>;
  onClose: () => void;
}

/**
 * A pasted list of part numbers: each row becomes an item, is read back as a build, or says what is wrong and
 * what comes nearest.
 */
export function PasteDialog(props: Props) {
  const { t } = useSpeech();
  return (
    <Dialog title={t('paste.title')} closeText={t('frame.close')} open={props.open} onClose={props.onClose}>
      <Body {...props} />
    </Dialog>
  );
}

/** Each time the dialog opens it begins anew. */
function Body({ view, onAdd, onClose }: Props) {
  const { t, language } = useSpeech();
  const [text, setText] = useState('');
  const [rows, setRows] = useState<PastedRow[] | null>(null);
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  /** Does something of which the server may say what is wrong. */
  const during = async <T,>(work: Promise<Answer<T>>): Promise<Answer<T>> => {
    setBusy(true);
    const answer = await work;
    setBusy(false);
    setWrong(answer.ok ? null : sentences(answer.failures, t('request.failed')));
    return answer;
  };
  const look = async (list: readonly Omit<PastedRow, 'read'>[]) => {
    const numbers = list.map((row) => row.number);
    const answer = await during(
      ask('POST /quotes/{id}/numbers', { at: { id: view.id }, input: { numbers } }),
    );
    if (answer.ok) setRows(list.map((row, index) => ({ ...row, read: answer.value[index] as ReadNumber })));
  };
  const read = async () => {
    const list = readPartList(text, language);
    const figure = (count: number) => written(String(count), language);
    if (list.is === 'tooMany')
      setWrong(t('paste.tooMany', { count: figure(list.count), most: figure(mostRows) }));
    else if (list.rows.length === 0) setWrong(t('paste.nothing'));
    else await look(list.rows);
  };
  /** What a spreadsheet says stands in the field, to be looked at like what is pasted. */
  const readFile = async (file: File) => {
    const answer = await during(send('POST /read-table', { file }));
    if (answer.ok) setText(answer.value.text);
  };
  const good = rows?.filter(sound) ?? [];
  const add = async () => {
    const answer = await during(
      onAdd(
        good.map(({ number, quantity, discount }) => ({
          sku: number,
          quantity,
          ...(discount === undefined ? {} : { discount }),
        })),
      ),
    );
    if (answer.ok) onClose();
  };
  const changed = (row: PastedRow, to: PastedRow) =>
    (rows ?? []).map((each) => (each.at === row.at ? to : each));
  return (
    <>
      {rows === null ? (
        <Given text={text} onText={setText} onFile={(file) => void readFile(file)} />
      ) : (
        <PastedRows
          rows={rows}
          onQuantity={(row, many) => setRows(changed(row, withQuantity(row, many)))}
          onInstead={(row, number) => void look(changed(row, { ...row, number }))}
        />
      )}
      {wrong && (
        <p className={css.wrong} role="alert">
          {wrong}
        </p>
      )}
      <DialogFoot>
        {rows !== null && <Button onClick={() => setRows(null)}>{t('paste.back')}</Button>}
        <Button onClick={onClose}>{t('ledger.cancel')}</Button>
        {rows === null ? (
          <Button look="main" disabled={busy || text.trim() === ''} onClick={() => void read()}>
            {t(busy ? 'paste.reading' : 'paste.read')}
          </Button>
        ) : (
          <Button look="main" disabled={busy || good.length === 0} onClick={() => void add()}>
            {t('paste.add', { count: good.length, all: rows.length })}
          </Button>
        )}
      </DialogFoot>
    </>
  );
}

/** The list as text, typed, pasted or from a file. */
function Given({
  text,
  onText,
  onFile,
}: {
  text: string;
  onText: (text: string) => void;
  onFile: (file: File) => void;
}) {
  const { t } = useSpeech();
  return (
    <>
      <label className={css.label}>
        {t('paste.label')}
        <textarea
          className={css.text}
          data-first
          rows={10}
          wrap="off"
          value={text}
          placeholder={'SILL-1212-X\t2\nYE-KIOSK'}
          onChange={(event) => onText(event.target.value)}
        />
      </label>
      <label className={css.file}>
        {t('file.pick')}
        <input
          type="file"
          accept=".csv,.txt,.tsv,.xlsx"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) onFile(file);
          }}
        />
      </label>
    </>
  );
}
