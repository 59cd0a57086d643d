import { useState } from 'react';
import { addDays, format } from 'date-fns';
import { Button, Dialog, DialogFoot, Field } from '../../../ui';
import { ask, sentences } from '../../api';
import { useSpeech } from '../../speech';
import { DayField } from '../DayField';
import type { SentOf } from './sent-of';
import css from './sent.module.css';

interface Props {
  of: SentOf;
  open: boolean;
  onMade: () => void;
  onClose: () => void;
}

const usualDays = 60;
const inDays = (days: number): string => format(addDays(new Date(), days), 'yyyy-MM-dd');

/** A link for somebody, made and shown once, to be told or sent by whatever way. */
export function ShareDialog({ of, open, onMade, onClose }: Props) {
  const { t } = useSpeech();
  const [name, setName] = useState('');
  const [until, setUntil] = useState(() => inDays(usualDays));
  const [wrong, setWrong] = useState<string | null>(null);
  const [link, setLink] = useState<string | null>(null);
  const close = (): void => {
    setLink(null);
    setWrong(null);
    onClose();
  };
  const make = async (): Promise<void> => {
    const input = { name: name.trim(), address: '', until };
    const answer =
      of.is === 'quotes'
        ? await ask('POST /quotes/{id}/shares', { at: { id: of.id }, input })
        : await ask('POST /builds/{id}/shares', { at: { id: of.id }, input });
    if (!answer.ok) {
      setWrong(sentences(answer.failures, t('request.failed')));
      return;
    }
    setLink(answer.value.link);
    onMade();
  };
  return (
    <Dialog title={t('share.title')} closeText={t('frame.close')} open={open} onClose={close}>
      {link === null ? (
        <>
          <p>{t(of.is === 'quotes' ? 'share.says' : 'share.saysBuild')}</p>
          <div className={css.making}>
            <Field
              label={t('share.for')}
              value={name}
              maxLength={120}
              autoFocus
              onChange={(event) => setName(event.target.value)}
            />
            <DayField label={t('mail.until')} value={until} min={inDays(0)} onPick={setUntil} />
          </div>
          {wrong !== null && (
            <p className={css.wrong} role="alert">
              {wrong}
            </p>
          )}
          <DialogFoot>
            <Button onClick={close}>{t('ledger.cancel')}</Button>
            <Button look="main" onClick={() => void make()}>
              {t('share.make')}
            </Button>
          </DialogFoot>
        </>
      ) : (
        <>
          <p>{t('share.once')}</p>
          <Field label={t('share.link')} value={link} readOnly onFocus={(event) => event.target.select()} />
          <DialogFoot>
            <Button onClick={close}>{t('frame.close')}</Button>
            <Button
              look="main"
              autoFocus
              onClick={() => void navigator.clipboard.writeText(link).catch(() => undefined)}
            >
              {t('share.copy')}
            </Button>
          </DialogFoot>
        </>
      )}
    </Dialog>
  );
}
