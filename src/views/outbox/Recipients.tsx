import { useState } from 'react';
import { Plus } from 'lucide-react';
import type { SendView } from '../../contract';
import type { Recipient } from '../../core/sending';
import { Button, Field } from '../../ui';
import { useSpeech } from '../speech';
import css from './send.module.css';

interface Props {
  contacts: SendView['contacts'];
  chosen: readonly Recipient[];
  onChange: (chosen: Recipient[]) => void;
}

type As = Recipient['as'] | 'no';

/** To whom it goes: those who are known at the customer, and whoever is added. */
export function Recipients({ contacts, chosen, onChange }: Props) {
  const { t } = useSpeech();
  const [adding, setAdding] = useState(contacts.length === 0);
  const known = new Set(contacts.map(({ address }) => address.toLowerCase()));
  const others = chosen.filter(({ address }) => !known.has(address.toLowerCase()));
  const asOf = (address: string): As =>
    chosen.find((each) => each.address.toLowerCase() === address.toLowerCase())?.as ?? 'no';
  const put = (name: string, address: string, as: As): void => {
    const rest = chosen.filter((each) => each.address.toLowerCase() !== address.toLowerCase());
    onChange(as === 'no' ? rest : [...rest, { as, name, address }]);
  };
  return (
    <fieldset className={css.recipients}>
      <legend>{t('mail.to')}</legend>
      {contacts.length === 0 && <p className={css.note}>{t('mail.noContacts')}</p>}
      <ul>
        {[...contacts, ...others.map((each) => ({ ...each, task: '' }))].map(({ name, address, task }) => (
          <li key={address}>
            <select
              aria-label={t('mail.asOf', { name: name === '' ? address : name })}
              value={asOf(address)}
              onChange={(event) => put(name, address, event.target.value as As)}
            >
              {(['to', 'cc', 'no'] as const).map((as) => (
                <option key={as} value={as}>
                  {t(`mail.as.${as}`)}
                </option>
              ))}
            </select>
            <span className={css.person} data-off={asOf(address) === 'no' || undefined}>
              {name !== '' && <b>{name}</b>} <span>{address}</span>
              {task !== '' && <small>{task}</small>}
            </span>
          </li>
        ))}
      </ul>
      {adding ? (
        <Another
          onAdd={(name, address) => {
            put(name, address, chosen.some(({ as }) => as === 'to') ? 'cc' : 'to');
            setAdding(false);
          }}
        />
      ) : (
        <Button look="plain" onClick={() => setAdding(true)}>
          <Plus size={13} aria-hidden />
          {t('mail.another')}
        </Button>
      )}
    </fieldset>
  );
}

function Another({ onAdd }: { onAdd: (name: string, address: string) => void }) {
  const { t } = useSpeech();
  const [name, setName] = useState('');
  const [address, setAddress] = useState('');
  const [wrong, setWrong] = useState(false);
  const add = (): void => {
    const good = /^[^\s<>"(),;:\\]+@[^\s<>"(),;:\\]+$/.test(address.trim());
    setWrong(!good);
    if (good) onAdd(name.trim(), address.trim());
  };
  return (
    <div
      className={css.another}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || event.ctrlKey) return;
        event.preventDefault();
        add();
      }}
    >
      <Field
        label={t('mail.name')}
        value={name}
        maxLength={120}
        onChange={(event) => setName(event.target.value)}
      />
      <Field
        label={t('mail.address')}
        type="email"
        value={address}
        maxLength={200}
        error={wrong ? t('input.badEmail') : undefined}
        onChange={(event) => setAddress(event.target.value)}
      />
      <Button onClick={add}>{t('mail.add')}</Button>
    </div>
  );
}
