import { date } from '../../i18n';
import { DateField } from '../../ui/DateField';
import { useSpeech } from '../speech';

interface Props {
  label: string;
  /** ISO day; empty for none. */
  value: string;
  min?: string;
  max?: string;
  disabled?: boolean;
  tab?: string;
  className?: string | undefined;
  onPick: (day: string) => void;
}

/** The field of a day in the language of the person. */
export function DayField(props: Props) {
  const { t, language } = useSpeech();
  return (
    <DateField
      {...props}
      language={language}
      shown={props.value && date(props.value, language)}
      words={{
        open: t('day.calendar', { what: props.label }),
        notADay: (value) => t('day.notADay', { value }),
      }}
    />
  );
}
