import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import { contactInput, type ContactInput, type KnownContact, type QuoteView } from '../../../contract';
import { hasText } from '../../../i18n';
import { Field } from '../../../ui';
import { ask } from '../../api';
import css from '../../parts/forms.module.css';
import { useSpeech } from '../../speech';
import { KnownDialog } from './KnownDialog';
import { whenRight } from '../when-right';

interface Props {
  open: boolean;
  view: QuoteView;
  /** Gives the sentence of a refusal. */
  onChange: (change: { from?: string; contact?: ContactInput }) => Promise<string | null>;
  onClose: () => void;
}

/** Whom the quote is made out to: one of the people known at the customer, or a new one. */
export function ContactDialog({ open, view, onChange, onClose }: Props) {
  const { t } = useSpeech();
  const [known, setKnown] = useState<KnownContact[]>([]);
  const {
    register,
    handleSubmit,
    reset,
    formState: { errors },
  } = useForm<ContactInput>({
    resolver: yupResolver(contactInput as never),
    defaultValues: { name: '', email: '', task: '' },
  });
  useEffect(() => {
    if (!open) return;
    reset();
    void ask('GET /quotes/{id}/contacts', { at: { id: view.id } }).then((answer) => {
      if (answer.ok) setKnown(answer.value);
    });
  }, [open, view.id, reset]);
  const take = async (change: { from?: string; contact?: ContactInput }): Promise<string | null> => {
    const refusal = await onChange(change);
    if (refusal === null) onClose();
    return refusal;
  };
  const field = (id: keyof ContactInput) => {
    const { ref, ...rest } = register(id);
    const code = errors[id]?.message;
    return (
      <Field
        label={t(`contact.${id}`)}
        ref={ref}
        error={code === undefined ? undefined : hasText(code) ? t(code) : code}
        {...rest}
      />
    );
  };
  return (
    <KnownDialog
      title={t('contact.other')}
      open={open}
      newText={t('contact.new')}
      none={t('contact.choose')}
      onClose={onClose}
      known={known.map(({ id, name, email, task }) => ({
        value: id,
        text: (
          <>
            {name}
            {task && `, ${task}`} <span className={css.beside}>{email}</span>
          </>
        ),
      }))}
      fields={
        <fieldset className={css.person}>
          <legend>{t('contact.new')}</legend>
          {field('name')}
          {field('email')}
          {field('task')}
        </fieldset>
      }
      onTake={(from) => take({ from })}
      onNew={() => whenRight(handleSubmit, (contact) => take({ contact }))}
    />
  );
}
