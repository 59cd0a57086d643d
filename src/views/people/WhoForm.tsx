import { useForm, useWatch } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import { newPersonInput, roles, type NewPersonInput, type PeopleView, type PersonView } from '../../contract';
import { hasText } from '../../i18n';
import { Button, Field, Select } from '../../ui';
import { ask, type Answer } from '../api';
import { useSpeech } from '../speech';
import type { Send, Told } from './send';
import css from './people.module.css';

interface Props {
  view: PeopleView;
  person: PersonView | null;
  own: string;
  onSent: Send;
}

/** Who somebody is; somebody new comes with a link. */
export function WhoForm({ view, person, own, onSent }: Props) {
  const { t } = useSpeech();
  const form = useForm<NewPersonInput>({
    resolver: yupResolver(newPersonInput as never),
    mode: 'onTouched',
    defaultValues: {
      name: person?.name ?? '',
      email: person?.email ?? '',
      role: person?.role ?? 'engineer',
      language: person?.language ?? 'en',
      dealer: person?.dealer?.id ?? null,
    },
  });
  const { errors, isDirty, isSubmitting } = form.formState;
  const text = (code?: string) => (code === undefined ? undefined : hasText(code) ? t(code) : code);
  const role = useWatch({ control: form.control, name: 'role' });
  const keep = form.handleSubmit(async (said) => {
    const input = { ...said, dealer: said.role === 'dealer' ? said.dealer : null };
    const sent: Promise<Answer<Told>> = person
      ? ask('PUT /people/{id}', { at: { id: person.id }, input: { version: person.version, ...input } })
      : ask('POST /people', { input });
    const answer = await onSent(sent);
    if (!answer.ok)
      for (const { field, message } of answer.failures)
        if (field !== undefined && field in input) form.setError(field as keyof NewPersonInput, { message });
  });
  return (
    <form noValidate className={css.form} onSubmit={(event) => void keep(event)}>
      <Field
        label={t('house.name')}
        autoFocus={!person}
        error={text(errors.name?.message)}
        {...form.register('name')}
      />
      <Field
        label={t('house.email')}
        type="email"
        autoComplete="off"
        error={text(errors.email?.message)}
        {...form.register('email')}
      />
      <Select
        label={t('people.role')}
        options={roles.map((value) => ({ value, text: t(`role.${value}`) }))}
        disabled={person?.id === own}
        {...form.register('role')}
      />
      <Select
        label={t('frame.language')}
        options={[
          { value: 'en', text: 'English' },
          { value: 'de', text: 'Deutsch' },
        ]}
        {...form.register('language')}
      />
      {role === 'dealer' && (
        <div className={css.whole}>
          <Select
            label={t('people.forDealer')}
            options={[
              { value: '', text: '–' },
              ...view.dealers.map(({ id, name }) => ({ value: id, text: name })),
            ]}
            {...form.register('dealer', { setValueAs: (value: string | null) => value || null })}
          />
          {errors.dealer && (
            <p className={css.wrong} role="alert">
              {text(errors.dealer.message)}
            </p>
          )}
        </div>
      )}
      <p className={css.quiet}>{t(person?.id === own ? 'people.ownRole' : 'people.roleHint')}</p>
      <div className={css.acts}>
        <Button look="main" type="submit" disabled={!isDirty || isSubmitting}>
          {t(person ? 'house.keep' : 'people.make')}
        </Button>
        <Button onClick={() => form.reset()} disabled={!isDirty || isSubmitting}>
          {t('house.back')}
        </Button>
      </div>
    </form>
  );
}
