import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
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
  const { t, language } = useSpeech();
  const [means, setMeans] = useState<CustomerMeans | null>(null);
  const [elsewhere, setElsewhere] = useState(false);
  const {
    register,
    handleSubmit,
    setError,
    setValue,
    unregister,
    formState: { errors, isSubmitting },
  } = useForm<NewCustomerInput>({
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
  useEffect(() => {
    void ask('GET /customers/means').then((answer) => {
      if (!answer.ok) return;
      setMeans(answer.value);
      setValue('priceList', answer.value.priceLists[0]?.code ?? '');
      setValue('region', answer.value.regions[0] ?? '');
    });
  }, [setValue]);
  const text = (code?: string) => (code === undefined ? undefined : hasText(code) ? t(code) : code);
  const go = handleSubmit(async (input) => {
    const answer = await ask('POST /customers', { input: input });
    if (answer.ok) onMade(answer.value);
    else setError('name', { message: sentences(answer.failures, t('request.failed')) });
  });
  const field = (id: 'name' | 'contactName' | 'contactEmail' | 'paymentDays', wide = false) => {
    const { ref, ...rest } = register(id);
    return (
      <div className={wide ? css.wide : undefined}>
        <Field label={t(`newCustomer.${id}`)} ref={ref} error={text(errors[id]?.message)} {...rest} />
      </div>
    );
  };
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
        {field('name', true)}
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
        {field('contactName')}
        {field('contactEmail')}
        {field('paymentDays')}
        <AddressFields
          at="invoice"
          legend={t('ledger.invoice')}
          register={register}
          errors={errors}
          countries={means.countries}
        />
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
        {elsewhere && (
          <AddressFields
            at="delivery"
            legend={t('ledger.delivery')}
            register={register}
            errors={errors}
            countries={means.countries}
          />
        )}
      </div>
      <DialogFoot>
        <Button onClick={onCancel}>{t('newCustomer.back')}</Button>
        <Button look="main" type="submit" disabled={isSubmitting}>
          {t('newCustomer.go')}
        </Button>
      </DialogFoot>
    </form>
  );
}
