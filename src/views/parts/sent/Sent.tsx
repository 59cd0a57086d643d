import { useCallback, useEffect, useState } from 'react';
import { Link2, Mail } from 'lucide-react';
import type { SentView } from '../../../contract';
import { dateTime } from '../../../i18n';
import { Button, LinkButton } from '../../../ui';
import { ask } from '../../api';
import { useSpeech } from '../../speech';
import { useLive } from '../useLive';
import { Answers } from './Answers';
import { MailMark } from './MailMark';
import type { SentOf } from './sent-of';
import { ShareDialog } from './ShareDialog';
import { Shares } from './Shares';
import { Shelf } from './Shelf';
import css from './sent.module.css';

/** All that went out, kept as it stands by now. */
export function useSent({ is, id }: SentOf): { view: SentView | null; look: () => void } {
  const [view, setView] = useState<SentView | null>(null);
  const look = useCallback((): void => {
    const asked =
      is === 'quotes'
        ? ask('GET /quotes/{id}/sent', { at: { id } })
        : ask('GET /builds/{id}/sent', { at: { id } });
    void asked.then((answer) => {
      if (answer.ok) setView(answer.value);
    });
  }, [is, id]);
  useEffect(look, [look]);
  useLive((word) => {
    if (word === 'gap' || word.quote === null || word.quote === id) look();
  });
  return { view, look };
}

interface Props {
  of: SentOf;
  mayOrder: boolean;
  /** What else belongs to it, above the documents. */
  onOrdered?: () => void;
}

/** What the customer was sent and shown, and what they answered. */
export function Sent({ of, mayOrder, onOrdered }: Props) {
  const { t } = useSpeech();
  const { view, look } = useSent(of);
  const [sharing, setSharing] = useState(false);
  if (!view) return <p className={css.quiet}>{t('sent.loading')}</p>;
  const nothing = view.mails.length + view.shares.length + view.answers.length + view.shelf.length === 0;
  return (
    <div className={css.sent}>
      <p className={css.acts}>
        {view.may.mail && (
          <LinkButton href={`/${of.is}/${of.id}/send`}>
            <Mail size={14} aria-hidden />
            {t('mail.write')}
          </LinkButton>
        )}
        {view.may.share && (
          <Button onClick={() => setSharing(true)}>
            <Link2 size={14} aria-hidden />
            {t('share.make')}
          </Button>
        )}
      </p>
      {nothing && <p className={css.quiet}>{t('sent.nothing')}</p>}
      <Answers
        answers={view.answers}
        mayOrder={mayOrder}
        onChanged={(ordered) => {
          look();
          if (ordered) onOrdered?.();
        }}
      />
      <Mails mails={view.mails} />
      <Shares shares={view.shares} onChanged={look} />
      <Shelf shelf={view.shelf} onMade={look} />
      <ShareDialog of={of} open={sharing} onMade={look} onClose={() => setSharing(false)} />
    </div>
  );
}

function Mails({ mails }: Pick<SentView, 'mails'>) {
  const { t, language } = useSpeech();
  if (mails.length === 0) return null;
  return (
    <section aria-label={t('sent.mails')}>
      <h3>{t('sent.mails')}</h3>
      <ul className={css.list}>
        {mails.map((mail) => (
          <li key={mail.id}>
            <a href={`/outbox?mail=${mail.id}`}>{mail.subject}</a>
            <span className={css.under}>
              <MailMark mail={mail} /> {dateTime(mail.sentAt ?? mail.madeAt, language)} ·{' '}
              {mail.recipients.map(({ name, address }) => (name === '' ? address : name)).join(', ')}
              {mail.documents > 0 && ` · ${t('sent.documents', { count: mail.documents })}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
