import { useState } from 'react';
import { useForm, useWatch, type UseFormReturn } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import { X } from 'lucide-react';
import { companyInput, pictureKinds, type CompanyInput, type FileView, type HouseView } from '../../contract';
import { hasText } from '../../i18n';
import { Button, Field } from '../../ui';
import { addressOf, ask } from '../api';
import { BringFile } from '../parts/bring/BringFile';
import { useSpeech } from '../speech';
import type { Keep } from './keep';
import { Elsewhere } from './Elsewhere';
import { KeptForm } from './KeptForm';
import css from './house.module.css';

interface Props {
  view: HouseView;
  countries: readonly string[];
  onKeep: Keep;
}

type Form = UseFormReturn<CompanyInput>;
type Name = Exclude<keyof CompanyInput, 'version' | 'mark' | 'addresses' | 'taxIds'>;

/** Who the house is: what stands on its paper, and how it looks there. */
export function CompanyPart({ view, countries, onKeep }: Props) {
  const { t } = useSpeech();
  const form = useForm<CompanyInput>({
    resolver: yupResolver(companyInput as never),
    mode: 'onTouched',
    defaultValues: view.company,
  });
  const [brought, setBrought] = useState<FileView | null>(null);
  // Taken back, the tables begin anew.
  const [turn, setTurn] = useState(0);
  const [toMend, setToMend] = useState({ addresses: false, taxIds: false });
  const id = useWatch({ control: form.control, name: 'mark' });
  const mark = [brought, view.mark].find((file) => file?.id === id) ?? null;
  const setMark = (file: FileView | null): void => {
    setBrought(file);
    form.setValue('mark', file?.id ?? null, { shouldDirty: true });
  };
  return (
    <KeptForm
      {...{ form, view, onKeep }}
      of={({ company }) => company}
      send={(input) => ask('PUT /house/company', { input })}
      wrong={toMend.addresses || toMend.taxIds ? t('house.toMend') : undefined}
      onBack={() => {
        setBrought(null);
        setTurn(turn + 1);
      }}
    >
      <div className={css.sides}>
        <div className={css.fields}>
          <Group
            legend={t('house.address')}
            form={form}
            names={['name', 'street', 'postcode', 'town', 'country']}
          />
          <Group legend={t('house.reach')} form={form} names={['phone', 'email', 'web']} />
          <Group
            legend={t('house.legal')}
            form={form}
            names={['taxNumber', 'registered', 'bank', 'iban', 'bic']}
          />
          <Elsewhere
            key={`${String(view.company.version)} ${String(turn)}`}
            {...{ form, countries }}
            onMend={(which, mend) => setToMend((before) => ({ ...before, [which]: mend }))}
          />
        </div>
        <Paperwork form={form} mark={mark} onMark={setMark} />
      </div>
    </KeptForm>
  );
}

/** The mark on paper, and how all of it looks there. */
function Paperwork({
  form,
  mark,
  onMark,
}: {
  form: Form;
  mark: FileView | null;
  onMark: (file: FileView | null) => void;
}) {
  const { t } = useSpeech();
  return (
    <div className={css.aside}>
      <h2 className={css.legend}>{t('house.mark')}</h2>
      {mark ? (
        <div className={css.mark}>
          <img src={pictureOf(mark)} alt={mark.name} />
          <span className={css.quiet}>{mark.name}</span>
          <Button
            look="plain"
            aria-label={t('files.takeBack', { name: mark.name })}
            title={t('files.takeBack', { name: mark.name })}
            onClick={() => onMark(null)}
          >
            <X size={14} aria-hidden />
          </Button>
        </div>
      ) : (
        <p className={css.quiet}>{t('house.noMark')}</p>
      )}
      <BringFile label={t('house.mark')} kinds={pictureKinds} only={t('files.only')} onBrought={onMark} />
      <h2 className={css.legend}>{t('house.paper')}</h2>
      <Paper form={form} mark={mark} />
    </div>
  );
}

const pictureOf = ({ id }: FileView): string =>
  addressOf('GET /files/{id}', { at: { id }, query: { as: 'small' } });

const labels: Readonly<
  Partial<Record<Name, 'address.street' | 'address.postcode' | 'address.town' | 'address.country'>>
> = {
  street: 'address.street',
  postcode: 'address.postcode',
  town: 'address.town',
  country: 'address.country',
};

function Group({ legend, form, names }: { legend: string; form: Form; names: readonly Name[] }) {
  const { t } = useSpeech();
  return (
    <fieldset className={css.group}>
      <legend className={css.legend}>{legend}</legend>
      {names.map((name) => {
        const { ref, ...rest } = form.register(name);
        const code = form.formState.errors[name]?.message;
        const known = labels[name];
        return (
          <div key={name} data-field={name}>
            <Field
              label={t(known ?? `house.${name as 'name'}`)}
              ref={ref}
              error={code === undefined ? undefined : hasText(code) ? t(code) : code}
              {...rest}
            />
          </div>
        );
      })}
    </fieldset>
  );
}

/** The head and foot of a letter, as they are typed. */
function Paper({ form, mark }: { form: Form; mark: FileView | null }) {
  const said = useWatch({ control: form.control });
  const line = (...parts: (string | undefined)[]): string => parts.filter((part) => part?.trim()).join(' · ');
  return (
    <div className={css.paper}>
      <div className={css.paperHead}>
        <strong>{said.name}</strong>
        {mark && <img src={pictureOf(mark)} alt="" />}
      </div>
      <p className={css.window}>
        {line(said.name, said.street, [said.postcode, said.town].filter(Boolean).join(' '), said.country)}
      </p>
      <div className={css.paperFoot}>
        <span>{line(said.phone, said.email, said.web?.replace(/^https:\/\//, ''))}</span>
        <span>{line(said.registered, said.taxNumber)}</span>
        <span>{line(said.bank, grouped(said.iban), said.bic)}</span>
      </div>
    </div>
  );
}

/** An IBAN as it is written, in fours. */
const grouped = (iban = ''): string => iban.replace(/\s/g, '').replace(/(.{4})(?=.)/g, '$1 ');
