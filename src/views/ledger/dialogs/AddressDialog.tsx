import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import { object } from 'yup';
import {
  newCustomerInput,
  type Address,
  type AddressInput,
  type KnownAddress,
  type QuoteView,
} from '../../../contract';
import { ask } from '../../api';
import { AddressFields } from '../../parts/AddressFields';
import { useSpeech } from '../../speech';
import { KnownDialog } from './KnownDialog';
import { whenRight } from '../when-right';

interface Props {
  /** Which of the quote's addresses is to be another; null while none is. */
  kind: Address['kind'] | null;
  view: QuoteView;
  /** Gives the sentence of a refusal. */
  onChange: (change: {
    kind: Address['kind'];
    from?: string;
    copyInvoice?: boolean;
    address?: AddressInput;
  }) => Promise<string | null>;
  onClose: () => void;
}

const asInvoice = 'invoice';
// The same rules as for the address of a new customer.
const schema = object({
  address: (newCustomerInput as unknown as { fields: { invoice: never } }).fields.invoice,
});

/** Another address for the quote: one of the customer's, that of the invoice, or a new one. */
export function AddressDialog({ kind, view, onChange, onClose }: Props) {
  const { t } = useSpeech();
  const [known, setKnown] = useState<KnownAddress[]>([]);
  const [countries, setCountries] = useState<string[]>([]);
  const {
    register,
    handleSubmit,
    reset,
    formState: { errors },
  } = useForm<{ address: AddressInput }>({
    resolver: yupResolver(schema as never),
    defaultValues: { address: { street: '', town: '', postcode: '', country: '' } },
  });
  useEffect(() => {
    if (kind === null) return;
    reset();
    void ask('GET /quotes/{id}/addresses', { at: { id: view.id } }).then((answer) => {
      if (answer.ok) setKnown(answer.value);
    });
    void ask('GET /customers/means').then((answer) => {
      if (answer.ok) setCountries(answer.value.countries);
    });
  }, [kind, view.id, reset]);
  const take = async (change: {
    from?: string;
    copyInvoice?: boolean;
    address?: AddressInput;
  }): Promise<string | null> => {
    const refusal = kind === null ? null : await onChange({ kind, ...change });
    if (refusal === null) onClose();
    return refusal;
  };
  return (
    <KnownDialog
      title={t(`address.other.${kind ?? 'delivery'}`)}
      open={kind !== null}
      newText={t('address.new')}
      none={t('address.choose')}
      onClose={onClose}
      known={[
        ...(kind === 'delivery' ? [{ value: asInvoice, text: t('address.asInvoice') }] : []),
        ...known
          .filter((each) => each.kind === kind)
          .map(({ id, street, postcode, town, country }) => ({
            value: id,
            text: `${street}, ${postcode} ${town}, ${country}`,
          })),
      ]}
      fields={
        <AddressFields
          at="address"
          legend={t('address.new')}
          register={register}
          errors={errors}
          countries={countries}
        />
      }
      onTake={(value) => take(value === asInvoice ? { copyInvoice: true } : { from: value })}
      onNew={() => whenRight(handleSubmit, ({ address }) => take({ address }))}
    />
  );
}
