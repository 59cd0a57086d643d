import { useEffect, useState } from 'react';
import { Check, CornerUpLeft, TriangleAlert } from 'lucide-react';
import { isWhole } from '../../../core/quotes';
import { mostRows, readPartList, type PartListRow } from '../../../core/exchange';
import { type QuoteView, type ReadNumber } from '../../../contract';
import { own, number as written } from '../../../i18n';
import { Button, Dialog, DialogFoot } from '../../../ui';
import { ask, send, sentences, type Answer } from '../../api';
import { unitText } from '../../parts/unit-text';
import { useSpeech } from '../../speech';
import css from './paste.module.css';

interface Props {
  open: boolean;
  view: QuoteView;
  onAdd: (rows: { sku: string; quantity: number; discount?: string }[]) => Promise<Answer<QuoteView>>;
  onClose: () => void;
}

type Row = PartListRow & { read: ReadNumber };

/** In which what was read is sold. */
const unitIn = ({ read }: Row): string => (read.is === 'item' ? read.unit : 'pc');
const otherUnit = (row: Row): boolean => row.unit !== undefined && row.unit !== unitIn(row);
const inParts = (row: Row): boolean => !Number.isInteger(row.quantity) && isWhole(unitIn(row));

/** What can be added as it stands. */
const sound = (row: Row): boolean =>
  row.quantity > 0 && row.read.is !== 'wrong' && !otherUnit(row) && !inParts(row);

/**
 * A pasted list of part numbers: each row becomes an item, is read back as a build, or says what is wrong and
 * what comes nearest.
 */
export function PasteDialog({ open, view, onAdd, onClose }: Props) {
  const { t, language } = useSpeech();
  const [text, setText] = useState('');
  const [rows, setRows] = useState<Row[] | null>(null);
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  useEffect(() => {
    if (!open) return;
    setText('');
    setRows(null);
    setWrong(null);
  }, [open]);

  const look = async (list: readonly PartListRow[]) => {
    setBusy(true);
    const answer = await ask('POST /quotes/{id}/numbers', {
      at: { id: view.id },
      input: {
        numbers: list.map((row) => row.number),
      },
    });
    setBusy(false);
    setWrong(answer.ok ? null : sentences(answer.failures, t('request.failed')));
    if (answer.ok) setRows(list.map((row, index) => ({ ...row, read: answer.value[index] as ReadNumber })));
  };
  const read = async () => {
    const list = readPartList(text, language);
    if (list.is === 'tooMany')
      setWrong(
        t('paste.tooMany', {
          count: written(String(list.count), language),
          most: written(String(mostRows), language),
        }),
      );
    else if (list.rows.length === 0) setWrong(t('paste.nothing'));
    else await look(list.rows);
  };
  /** What a spreadsheet says stands in the field, to be looked at like what is pasted. */
  const readFile = async (file: File) => {
    const answer = await send('POST /read-table', { file: file });
    setWrong(answer.ok ? null : sentences(answer.failures, t('request.failed')));
    if (answer.ok) setText(answer.value.text);
  };
  const good = rows?.filter(sound) ?? [];
  const add = async () => {
    setBusy(true);
    const answer = await onAdd(
      good.map(({ number, quantity, discount }) => ({
        sku: number,
        quantity,
        ...(discount === undefined ? {} : { discount }),
      })),
    );
    setBusy(false);
    if (answer.ok) onClose();
    else setWrong(sentences(answer.failures, t('request.failed')));
  };
  const told = (row: Row) => {
    const { read: found, quantity, twoWays, unread } = row;
    if (twoWays)
      return (
        <span className={css.wrong}>
          <TriangleAlert size={13} aria-hidden />
          {t('paste.howMany')}{' '}
          {[...twoWays].reverse().map((each) => (
            <button key={each} type="button" className={css.nearest} onClick={() => howMany(row, each)}>
              {written(each, language)}
            </button>
          ))}
        </span>
      );
    const bad = (text: string) => (
      <span className={css.wrong}>
        <TriangleAlert size={13} aria-hidden />
        {text}{' '}
        {found.is !== 'wrong' && quantity === 0 && (
          <button type="button" className={css.nearest} onClick={() => howMany(row, '1')}>
            {t('paste.takeOne')}
          </button>
        )}
      </span>
    );
    if (quantity === 0)
      return bad(unread === undefined ? t('quantity.range') : t('paste.unread', { text: unread }));
    if (found.is !== 'wrong' && otherUnit(row))
      return bad(t('paste.otherUnit', { said: unitText(row.unit ?? '', t), unit: unitText(unitIn(row), t) }));
    if (found.is !== 'wrong' && inParts(row)) return bad(t('quantity.byPiece', { sku: row.number }));
    switch (found.is) {
      case 'item':
        return (
          <span className={css.found}>
            <Check size={13} aria-hidden />
            {t('paste.found')}
          </span>
        );
      case 'build':
        return (
          <span className={css.found}>
            <CornerUpLeft size={13} aria-hidden />
            {t(found.complete ? 'paste.readBack' : 'paste.incomplete')}
          </span>
        );
      case 'wrong':
        return (
          <span className={css.wrong}>
            <TriangleAlert size={13} aria-hidden />
            {t(found.code as 'line.unknownItem', found.params)}
          </span>
        );
    }
  };
  const howMany = (row: Row, many: string) =>
    setRows((before) =>
      (before ?? []).map((each) =>
        each.at === row.at
          ? {
              at: each.at,
              number: each.number,
              read: each.read,
              quantity: /^\d{1,5}(\.\d{1,3})?$/.test(many) ? Number(many) : 0,
              ...(each.unit === undefined ? {} : { unit: each.unit }),
              ...(each.discount === undefined ? {} : { discount: each.discount }),
            }
          : each,
      ),
    );
  const instead = (row: Row, number: string) =>
    void look((rows ?? []).map((each) => (each.at === row.at ? { ...each, number } : each)));

  return (
    <Dialog title={t('paste.title')} closeText={t('frame.close')} open={open} onClose={onClose}>
      {rows === null ? (
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
              onChange={(event) => setText(event.target.value)}
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
                if (file) void readFile(file);
              }}
            />
          </label>
        </>
      ) : (
        <div className={css.rows} tabIndex={0} role="region" aria-label={t('paste.title')}>
          <table>
            <tbody>
              {rows.map((row) => (
                <tr key={row.at}>
                  <td className={css.at}>{row.at}</td>
                  <td className={css.number}>{row.number}</td>
                  <td className={css.at}>
                    {row.quantity === 0
                      ? '?'
                      : `${written(String(row.quantity), language)}${row.read.is === 'item' && row.read.unit !== 'pc' ? ` ${unitText(row.read.unit, t)}` : ''}`}
                  </td>
                  <td className={css.at}>{row.discount !== undefined && `${row.discount} %`}</td>
                  <td>
                    {row.read.is !== 'wrong' && <span>{own(row.read.name, language)} </span>}
                    {told(row)}
                    {row.read.is === 'wrong' && row.read.nearest && (
                      <Nearest nearest={row.read.nearest} onTake={(number) => instead(row, number)} />
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
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
    </Dialog>
  );
}

function Nearest({
  nearest,
  onTake,
}: {
  nearest: { number: string; name: Record<string, string> };
  onTake: (number: string) => void;
}) {
  const { t, language } = useSpeech();
  return (
    <button type="button" className={css.nearest} onClick={() => onTake(nearest.number)}>
      {t('paste.nearest', { number: nearest.number, name: own(nearest.name, language) })}
    </button>
  );
}
