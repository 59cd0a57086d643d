import { useState } from 'react';
import { lostReasons, type Lost } from '../../../core/quotes';
import { type QuoteView } from '../../../contract';
import { Button, Dialog, DialogFoot } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './choose.module.css';

interface Props {
  open: boolean;
  view: QuoteView;
  /** Gives the sentence of a refusal. */
  onLose: (lost: Lost) => Promise<string | null>;
  onClose: () => void;
}

/** Why a quote was lost: a reason, and a note for colleagues. */
export function LoseDialog({ open, view, onLose, onClose }: Props) {
  const { t } = useSpeech();
  const [reason, setReason] = useState<Lost['reason']>();
  const [note, setNote] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const go = async () => {
    const refusal = reason === undefined ? t('lost.noReason') : await onLose({ reason, note });
    setWrong(refusal);
    if (refusal === null) onClose();
  };
  return (
    <Dialog
      title={t('lost.title', { number: view.number })}
      closeText={t('frame.close')}
      open={open}
      onClose={onClose}
    >
      <ul className={css.list} role="radiogroup" aria-label={t('lost.title', { number: view.number })}>
        {lostReasons.map((each) => (
          <li key={each}>
            <label>
              <input
                type="radio"
                name="lost"
                checked={reason === each}
                onChange={() => {
                  setReason(each);
                  setWrong(null);
                }}
              />
              {t(`lost.reason.${each}`)}
            </label>
          </li>
        ))}
      </ul>
      <label className={css.note}>
        {t('lost.note')}
        <textarea rows={2} value={note} maxLength={500} onChange={(event) => setNote(event.target.value)} />
      </label>
      {wrong && (
        <p className={css.wrong} role="alert">
          {wrong}
        </p>
      )}
      <DialogFoot>
        <Button onClick={onClose}>{t('ledger.cancel')}</Button>
        <Button look="main" onClick={() => void go()}>
          {t('lost.go')}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
