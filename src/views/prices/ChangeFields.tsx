import { useState } from 'react';
import type { PriceChangeHead } from '../../contract';
import { Button, Dialog, DialogFoot, Field } from '../../ui';
import { DayField } from '../parts/DayField';
import { useSpeech } from '../speech';
import css from './prices.module.css';

/** What a price change is called, and from when it holds. */
export type ChangeNamed = Pick<PriceChangeHead, 'name' | 'note' | 'inForce'>;

interface Props {
  title: string;
  act: string;
  first: ChangeNamed;
  today: string;
  onClose: () => void;
  onKeep: (named: ChangeNamed) => Promise<void>;
}

/** Asks for the name, day and note of a price change. */
export function ChangeFields({ title, act, first, today, onClose, onKeep }: Props) {
  const { t } = useSpeech();
  const [named, setNamed] = useState(first);
  const [busy, setBusy] = useState(false);
  const keep = async (): Promise<void> => {
    setBusy(true);
    await onKeep(named);
    setBusy(false);
  };
  return (
    <Dialog title={title} closeText={t('prices.close')} open onClose={onClose}>
      <form
        className={css.putIn}
        id="change-fields"
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <Field
          label={t('prices.name')}
          value={named.name}
          maxLength={80}
          onChange={(event) => setNamed({ ...named, name: event.target.value })}
        />
        <div className={css.day}>
          <span aria-hidden>{t('prices.inForce')}</span>
          <DayField
            label={t('prices.inForce')}
            value={named.inForce}
            min={today}
            onPick={(inForce) => setNamed({ ...named, inForce })}
          />
        </div>
        <Field
          label={t('prices.note')}
          value={named.note}
          maxLength={500}
          onChange={(event) => setNamed({ ...named, note: event.target.value })}
        />
      </form>
      <DialogFoot>
        <Button look="main" type="submit" form="change-fields" disabled={busy || named.name.trim() === ''}>
          {act}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
