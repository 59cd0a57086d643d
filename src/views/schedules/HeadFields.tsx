import type { CustomerFound } from '../../contract';
import { Field } from '../../ui';
import { CustomerField } from '../parts/CustomerField';
import { useSpeech } from '../speech';

/** What is said of a schedule as a whole. */
export interface Head {
  name: string;
  site: string;
  customer: Pick<CustomerFound, 'id' | 'name'> | null;
  /** What is typed names no customer, or several. */
  open: boolean;
}

/** Whether a head can be kept as it is. */
export const whole = ({ name, open }: Head): boolean => name.trim() !== '' && !open;

interface Props {
  head: Head;
  /** What is wrong with the name. */
  wrong?: string | undefined;
  onChange: (head: Head) => void;
}

/** Name, site and customer of a schedule. */
export function HeadFields({ head, wrong, onChange }: Props) {
  const { t } = useSpeech();
  return (
    <>
      <Field
        label={t('schedule.name')}
        placeholder={t('schedule.nameHint')}
        data-first
        maxLength={120}
        value={head.name}
        error={wrong}
        onChange={({ target }) => onChange({ ...head, name: target.value })}
      />
      <Field
        label={t('schedule.site')}
        maxLength={200}
        value={head.site}
        onChange={({ target }) => onChange({ ...head, site: target.value })}
      />
      <CustomerField
        given={head.customer?.name}
        onMeant={(customer, typed) => onChange({ ...head, customer, open: !customer && typed.trim() !== '' })}
      />
    </>
  );
}
