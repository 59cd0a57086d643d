import { useEffect, useState } from 'react';
import { useForm, useWatch, type UseFormReturn } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import {
  newCustomerInput,
  type CustomerFound,
  type CustomerMeans,
  type NewCustomerInput,
} from '../../contract';
import { hasText, own } from '../../i18n';
import { Button, DialogFoot, Field, Select } from '../../ui';
import { ask, sentences } from '../api';
import { useSpeech } from '../speech';
import { AddressFields } from './AddressFields';
import css from './forms.module.css';

interface Props {
  /** Typed while looking for the customer. */
  name: string;
  onMade: (customer: CustomerFound) => void;
  onCancel: () => void;
}

const nowhere = { street: '', town: '', postcode: '', country: '' };

/** Everything that a quote needs of a customer who is new. */
export function NewCustomer({ name, onMade, onCancel }: Props) {
  const { t } = useSpeech();
  const { form, means, go } = useNewCustomer(name, onMade);
  if (!means) return <p role="status">{t('newCustomer.loading')}</p>;
  return (
    <form
      method="dialog"
      noValidate
      onSubmit={(event) => {
        event.stopPropagation();
        void go(event);
      }}
    >
      <div className={css.grid}>
        <Typed form={form} id="name" wide />
        <Choices form={form} means={means} />
        <Typed form={form} id="contactName" />
        <Typed form={form} id="contactEmail" />
        <Typed form={form} id="paymentDays" />
        <Places form={form} countries={means.countries} />
      </div>
      <DialogFoot>
        <Button onClick={onCancel}>{t('newCustomer.back')}</Button>
        <Button look="main" type="submit" disabled={form.formState.isSubmitting}>
          {t('newCustomer.go')}
        </Button>
      </DialogFoot>
    </form>
  );
}

type Form = UseFormReturn<NewCustomerInput>;

/** The form, what there is to choose from, and sending it. */
function useNewCustomer(name: string, onMade: Props['onMade']) {
  const { t, language } = useSpeech();
  const [means, setMeans] = useState<CustomerMeans | null>(null);
  const form = useForm<NewCustomerInput>({
    resolver: yupResolver(newCustomerInput as never),
    mode: 'onSubmit',
    defaultValues: {
      name,
      class: 'direct',
      language: language === 'de' ? 'de' : 'en',
      contactName: '',
      contactEmail: '',
      paymentDays: 30,
      invoice: nowhere,
    },
  });
  const { setValue, setError, handleSubmit } = form;
  useEffect(() => {
    void ask('GET /customers/means').then((answer) => {
      if (!answer.ok) return;
      setMeans(answer.value);
      setValue('priceList', answer.value.priceLists[0]?.code ?? '');
      setValue('region', answer.value.regions[0] ?? '');
    });
  }, [setValue]);
  const country = useWatch({ control: form.control, name: 'invoice.country' });
  const { dirtyFields } = form.formState;
  const usual = means?.usual.find(({ countries }) => countries.includes(country.trim().toUpperCase()));
  // Where the invoice goes says what is usual; what somebody chose themselves stays.
  useEffect(() => {
    if (!usual) return;
    if (usual.priceList !== null && !dirtyFields.priceList) setValue('priceList', usual.priceList);
    if (usual.region !== '' && !dirtyFields.region) setValue('region', usual.region);
    if (!dirtyFields.language) setValue('language', usual.language);
  }, [usual, dirtyFields, setValue]);
  const go = handleSubmit(async (input) => {
    const answer = await ask('POST /customers', { input });
    if (answer.ok) onMade(answer.value);
    else setError('name', { message: sentences(answer.failures, t('request.failed')) });
  });
  return { form, means, go };
}

function Typed({
  form: { register, formState },
  id,
  wide = false,
}: {
  form: Form;
  id: 'name' | 'contactName' | 'contactEmail' | 'paymentDays';
  wide?: boolean;
}) {
  const { t } = useSpeech();
  const { ref, ...rest } = register(id);
  const code = formState.errors[id]?.message;
  const error = code !== undefined && hasText(code) ? t(code) : code;
  return (
    <div className={wide ? css.wide : undefined}>
      <Field label={t(`newCustomer.${id}`)} ref={ref} error={error} {...rest} />
    </div>
  );
}

function Choices({ form: { register }, means }: { form: Form; means: CustomerMeans }) {
  const { t, language } = useSpeech();
  return (
    <>
      <Select
        label={t('newCustomer.class')}
        options={means.classes.map((each) => ({ value: each, text: t(`class.${each}`) }))}
        {...register('class')}
      />
      <Select
        label={t('newCustomer.priceList')}
        options={means.priceLists.map((each) => ({
          value: each.code,
          text: `${own(each.name, language)}, ${each.currency}`,
        }))}
        {...register('priceList')}
      />
      <Select
        label={t('newCustomer.language')}
        options={(['en', 'de'] as const).map((each) => ({
          value: each,
          text: t(`newCustomer.speaks.${each}`),
        }))}
        {...register('language')}
      />
      <Select
        label={t('newCustomer.region')}
        options={means.regions.map((each) => ({
          value: each,
          text: hasText(`region.${each}`) ? t(`region.${each}` as 'region.uk') : each,
        }))}
        {...register('region')}
      />
    </>
  );
}

/** Where the invoice goes, and where everything else does where that is elsewhere. */
function Places({ form, countries }: { form: Form; countries: CustomerMeans['countries'] }) {
  const { t } = useSpeech();
  const [elsewhere, setElsewhere] = useState(false);
  const { register, unregister } = form;
  const { errors } = form.formState;
  const fields = { register, errors, countries };
  return (
    <>
      <AddressFields at="invoice" legend={t('address.invoice')} {...fields} />
      <label className={css.tick}>
        <input
          type="checkbox"
          checked={!elsewhere}
          onChange={(event) => {
            setElsewhere(!event.target.checked);
            if (event.target.checked) unregister('delivery');
          }}
        />
        {t('newCustomer.sameAddress')}
      </label>
      {elsewhere && <AddressFields at="delivery" legend={t('address.delivery')} {...fields} />}
    </>
  );
}
