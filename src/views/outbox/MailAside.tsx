import { useEffect, useState } from 'react';
import { FileDown, Paperclip, X } from 'lucide-react';
import type { MailView, SeenMail } from '../../contract';
import { dateTime, number, sentence } from '../../i18n';
import { Button, LinkButton, say } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { MailMark } from '../parts/sent/MailMark';
import { useSpeech } from '../speech';
import css from './outbox.module.css';

interface Props {
  mail: MailView;
  onChanged: (mail: MailView) => void;
  onClose: () => void;
}

/** A mail: where it is on its way, and how it looks to whoever gets it. */
export function MailAside({ mail, onChanged, onClose }: Props) {
  const { t, language } = useSpeech();
  const act = async (answered: Promise<Answer<MailView>>): Promise<void> => {
    const answer = await answered;
    if (answer.ok) onChanged(answer.value);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  return (
    <aside
      className={css.aside}
      aria-label={mail.subject}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onClose();
      }}
    >
      <header className={css.asideHead}>
        <MailMark mail={{ state: mail.state, returned: mail.refused.length + mail.returned.length > 0 }} />
        <span className={css.quiet}>
          {mail.sentAt === null
            ? t('mail.asked', { at: dateTime(mail.madeAt, language), by: mail.madeBy })
            : t('mail.sentAt', {
                at: dateTime(mail.sentAt, language),
                by: mail.madeBy,
                server: mail.server ?? '',
              })}
        </span>
        <LinkButton look="plain" href={`/api/mails/${mail.id}/message.eml`} title={t('mail.eml')} download>
          <FileDown size={14} aria-hidden />
          .eml
        </LinkButton>
        <Button look="plain" aria-label={t('mail.close')} onClick={onClose}>
          <X size={14} aria-hidden />
        </Button>
      </header>
      <Trouble mail={mail} />
      {(mail.may.again || mail.may.arrived) && (
        <p className={css.acts}>
          {mail.may.again && (
            <Button onClick={() => void act(ask('POST /mails/{id}/again', { at: { id: mail.id } }))}>
              {t('mail.again')}
            </Button>
          )}
          {mail.may.arrived && (
            <Button onClick={() => void act(ask('POST /mails/{id}/arrived', { at: { id: mail.id } }))}>
              {t('mail.arrived')}
            </Button>
          )}
        </p>
      )}
      <Seen mail={mail} />
      {mail.may.giveBack && <GiveBack mail={mail} onAct={(answered) => void act(answered)} />}
      {mail.hash !== null && <p className={css.hash}>SHA-256 {mail.hash}</p>}
    </aside>
  );
}

/** What is in its way, or where it did not arrive. */
function Trouble({ mail: { problem, next, refused, returned } }: Pick<Props, 'mail'>) {
  const { t, language } = useSpeech();
  const back = [...refused, ...returned];
  if (!problem && back.length === 0) return null;
  return (
    <ul className={css.trouble} role="alert">
      {problem && (
        <li>
          {sentence(language, problem.code, problem.params)}
          {next !== null && ` ${t('mail.next', { at: dateTime(next, language) })}`}
        </li>
      )}
      {back.map(({ address, words }) => (
        <li key={address}>{t('mail.cameBack', { address, words })}</li>
      ))}
    </ul>
  );
}

/** The mail as whoever gets it sees it, read from the message itself. */
function Seen({ mail: { id, state, documents } }: Pick<Props, 'mail'>) {
  const { t, language } = useSpeech();
  const [seen, setSeen] = useState<SeenMail | null>(null);
  useEffect(() => {
    let gone = false;
    void ask('GET /mails/{id}/seen', { at: { id } }).then((answer) => {
      if (!gone && answer.ok) setSeen(answer.value);
    });
    return () => {
      gone = true;
    };
  }, [id, state]);
  if (!seen) return <p className={css.quiet}>{t('mail.notMade')}</p>;
  return (
    <section className={css.seen} aria-label={t('mail.asRead')}>
      <dl className={css.heads}>
        <dt>{t('mail.from')}</dt>
        <dd>{seen.from}</dd>
        <dt>{t('mail.as.to')}</dt>
        <dd>{seen.to.join(', ')}</dd>
        {seen.cc.length > 0 && (
          <>
            <dt>{t('mail.as.cc')}</dt>
            <dd>{seen.cc.join(', ')}</dd>
          </>
        )}
        <dt>{t('mail.subject')}</dt>
        <dd>
          <b>{seen.subject}</b>
        </dd>
      </dl>
      <iframe className={css.letter} title={t('mail.asRead')} sandbox="" srcDoc={seen.html} />
      <ul className={css.enclosed}>
        {seen.attachments.map(({ name, size, hash }) => (
          <li key={`${name} ${hash}`}>
            <Paperclip size={13} aria-hidden />
            <Attached name={name} shelf={documents.find((each) => each.hash === hash)?.id} />
            <span className={css.quiet}>
              {t('mail.kb', { kb: number(String(Math.ceil(size / 1024)), language, 0) })}
            </span>
            <code>{hash.slice(0, 12)}</code>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** An attachment, opened from the shelf, where it lies byte for byte as it went. */
const Attached = ({ name, shelf }: { name: string; shelf: string | undefined }) =>
  shelf === undefined ? <span>{name}</span> : <a href={`/api/shelf/${shelf}`}>{name}</a>;

/** Has the simulated server send it back, to see what becomes of that. */
function GiveBack({ mail, onAct }: { mail: MailView; onAct: (answered: Promise<Answer<MailView>>) => void }) {
  const { t } = useSpeech();
  const there = mail.recipients.filter(
    ({ address }) => ![...mail.returned, ...mail.refused].some((each) => each.address === address),
  );
  if (there.length === 0) return null;
  return (
    <details className={css.giveBack}>
      <summary>{t('mail.server.try')}</summary>
      {there.map(({ address }) => (
        <Button
          key={address}
          onClick={() => onAct(ask('POST /mail-server/returns', { input: { mail: mail.id, address } }))}
        >
          {t('mail.server.giveBack', { address })}
        </Button>
      ))}
    </details>
  );
}
