import { Check, CircleAlert, CircleHelp, Clock, Undo2 } from 'lucide-react';
import type { MailRowView } from '../../../contract';
import { useSpeech } from '../../speech';
import css from './sent.module.css';

const marks = {
  making: Clock,
  unmade: CircleAlert,
  waiting: Clock,
  handing: Clock,
  sent: Check,
  refused: CircleAlert,
  unsure: CircleHelp,
} as const;

/** Where a mail is on its way; that it came back is said first. */
export function MailMark({ mail: { state, returned } }: { mail: Pick<MailRowView, 'state' | 'returned'> }) {
  const { t } = useSpeech();
  const came = returned && state === 'sent';
  const Mark = came ? Undo2 : marks[state];
  return (
    <span className={css.mark} data-state={came ? 'returned' : state}>
      <Mark size={13} aria-hidden />
      {t(came ? 'mail.is.returned' : `mail.is.${state}`)}
    </span>
  );
}
