import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import { object } from 'yup';
import { newCustomerInput, type Address, type AddressInput, type CustomerMeans, type KnownAddress, type QuoteView } from '../../core/quoting';
import { Button, Dialog, DialogFoot } from '../../ui';
import { ask } from '../api';
import { AddressFields } from '../parts/AddressFields';
import css from '../parts/forms.module.css';
import { useSpeech } from '../speech';

interface Props {
  /** Which of the quote's addresses is to be another; null while none is. */
  kind: Address['kind'] | null;
  view: QuoteView;
  /** Gives the sentence of a refusal. */
  onChange: (change: { kind: Address['kind']; from?: string; copyInvoice?: boolean; address?: AddressInput }) => Promise<string | null>;
  onClose: () => void;
}

type Known = 'new' | 'invoice' | (string & {});
// The same rules as for the address of a new customer.
const schema = object({ address: (newCustomerInput as unknown as { fields: { invoice: never } }).fields.invoice });

/** Another address for the quote: one of the customer's, that of the invoice, or a new one. */
export function AddressDialog({ kind, view, onChange, onClose }: Props) {
  const { t } = useSpeech();
  const [known, setKnown] = useState<KnownAddress[]>([]);
  const [countries, setCountries] = useState<string[]>([]);
  const [chosen, setChosen] = useState<Known>();
  const [wrong, setWrong] = useState<string | null>(null);
  const { register, handleSubmit, reset, formState: { errors } } = useForm<{ address: AddressInput }>({ resolver: yupResolver(schema as never), defaultValues: { address: { street: '', town: '', postcode: '', country: '' } } });
  useEffect(() => {
    if (kind === null) return;
    setChosen(undefined);
    setWrong(null);
    reset();
    void ask<KnownAddress[]>('GET', `/api/quotes/${view.id}/addresses`).then((answer) => { if (answer.ok) setKnown(answer.value); });
    void ask<CustomerMeans>('GET', '/api/customers/means').then((answer) => { if (answer.ok) setCountries(answer.value.countries); });
  }, [kind, view.id, reset]);
  const take = async (change: { from?: string; copyInvoice?: boolean; address?: AddressInput }) => {
    if (kind === null) return;
    const refusal = await onChange({ kind, ...change });
    setWrong(refusal);
    if (refusal === null) onClose();
  };
  const go = chosen === 'new' ? handleSubmit(({ address }) => take({ address })) : async () => {
    if (chosen === undefined) setWrong(t('address.choose'));
    else await take(chosen === 'invoice' ? { copyInvoice: true } : { from: chosen });
  };
  const choice = (value: Known, text: string) => <li key={value}><label><input type="radio" name="address" checked={chosen === value} onChange={() => { setChosen(value); setWrong(null); }} />{text}</label></li>;
  return (
    <Dialog title={t(`address.other.${kind ?? 'delivery'}`)} closeText={t('frame.close')} open={kind !== null} onClose={onClose}>
      <ul className={css.known}>
        {kind === 'delivery' && choice('invoice', t('address.asInvoice'))}
        {known.filter((each) => each.kind === kind).map(({ id, street, postcode, town, country }) => choice(id, `${street}, ${postcode} ${town}, ${country}`))}
        {choice('new', t('address.new'))}
      </ul>
      {chosen === 'new' && <AddressFields at="address" legend={t('address.new')} register={register} errors={errors} countries={countries} />}
      {wrong && <p className={css.wrong} role="alert">{wrong}</p>}
      <DialogFoot>
        <Button onClick={onClose}>{t('ledger.cancel')}</Button>
        <Button look="main" onClick={() => void go()}>{t('address.go')}</Button>
      </DialogFoot>
    </Dialog>
  );
}
