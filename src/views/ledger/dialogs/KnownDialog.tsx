import { useState, type ReactNode } from 'react';
import { Button, Dialog, DialogFoot } from '../../../ui';
import css from '../../parts/forms.module.css';
import { useSpeech } from '../../speech';

interface Props {
  title: string;
  open: boolean;
  /** What there is to choose from, each by its value. */
  known: readonly { value: string; text: ReactNode }[];
  /** Names the way to what is not known yet. */
  newText: string;
  /** Fields for what is not known yet. */
  fields: ReactNode;
  /** Said where nothing is chosen. */
  none: string;
  /** Takes one of the known, by its value; gives the sentence of a refusal. */
  onTake: (value: string) => Promise<string | null>;
  /** Takes what is in the fields, where these are right; gives the sentence of a refusal. */
  onNew: () => Promise<string | null>;
  onClose: () => void;
}

/** One of those that are known, or a new one. */
export function KnownDialog({ title, open, onClose, ...rest }: Props) {
  const { t } = useSpeech();
  return (
    <Dialog title={title} closeText={t('frame.close')} open={open} onClose={onClose}>
      <Choice onClose={onClose} {...rest} />
    </Dialog>
  );
}

/** Each time the dialog opens, nothing is chosen yet. */
function Choice({ known, newText, fields, none, onTake, onNew, onClose }: Omit<Props, 'title' | 'open'>) {
  const { t } = useSpeech();
  const [chosen, setChosen] = useState<string | null>();
  const [wrong, setWrong] = useState<string | null>(null);
  const go = async () =>
    setWrong(chosen === undefined ? none : chosen === null ? await onNew() : await onTake(chosen));
  const choice = (value: string | null, text: ReactNode) => (
    <li key={value}>
      <label>
        <input
          type="radio"
          name="known"
          checked={chosen === value}
          onChange={() => {
            setChosen(value);
            setWrong(null);
          }}
        />
        {text}
      </label>
    </li>
  );
  return (
    <>
      <ul className={css.known}>
        {known.map(({ value, text }) => choice(value, text))}
        {choice(null, newText)}
      </ul>
      {chosen === null && fields}
      {wrong && (
        <p className={css.wrong} role="alert">
          {wrong}
        </p>
      )}
      <DialogFoot>
        <Button onClick={onClose}>{t('ledger.cancel')}</Button>
        <Button look="main" onClick={() => void go()}>
          {t('address.go')}
        </Button>
      </DialogFoot>
    </>
  );
}
