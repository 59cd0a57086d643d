import type { FieldErrors, FieldValues, Path, UseFormRegister } from 'react-hook-form';
import { hasText } from '../../i18n';
import { Field } from '../../ui';
import { useSpeech } from '../speech';
import css from './forms.module.css';

interface Props<T extends FieldValues> {
  /** Where in the form the address stands. */
  at: string;
  legend: string;
  register: UseFormRegister<T>;
  errors: FieldErrors<T>;
  countries: readonly string[];
}

/** Street, postcode, town and country. */
export function AddressFields<T extends FieldValues>({ at, legend, register, errors, countries }: Props<T>) {
  const { t } = useSpeech();
  const own = (errors as Record<string, Record<string, { message?: string }> | undefined>)[at];
  const field = (name: 'street' | 'postcode' | 'town' | 'country') => {
    const { ref, ...rest } = register(`${at}.${name}` as Path<T>);
    const code = own?.[name]?.message;
    return (
      <Field
        label={t(`address.${name}`)}
        ref={ref}
        error={code === undefined ? undefined : hasText(code) ? t(code) : code}
        {...(name === 'country' ? { list: 'countries', maxLength: 2 } : {})}
        {...rest}
      />
    );
  };
  return (
    <fieldset className={css.address}>
      <legend>{legend}</legend>
      {field('street')}
      {field('postcode')}
      {field('town')}
      {field('country')}
      <datalist id="countries">
        {countries.map((each) => (
          <option key={each} value={each} />
        ))}
      </datalist>
    </fieldset>
  );
}
