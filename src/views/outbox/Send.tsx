import { useEffect, useRef, useState } from 'react';
import { ArrowLeft, Send as SendMark } from 'lucide-react';
import type { MailView, SendView } from '../../contract';
import { withLink, type Recipient } from '../../core/sending';
import { own, sentence } from '../../i18n';
import { Button, Field, LinkButton, Select, useLatest } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { DayField } from '../parts/DayField';
import { useStays } from '../parts/useStays';
import { Speech, useSpeech } from '../speech';
import { Documents, wantedKey } from './Documents';
import { Preview } from './Preview';
import { Recipients } from './Recipients';
import css from './send.module.css';

interface Props {
  language: string;
  view: SendView;
  /** Today, of the house. */
  today: string;
}

export default function Send(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

/** Where one comes from, and goes back to. */
const backOf = ({ quote, build }: SendView): string =>
  quote ? `/quotes/${quote.id}` : `/bench/${build?.id ?? ''}`;

/** Names one request, so that it has its effect once. */
const newKey = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join(
    '',
  );

/** A mail as it is written. */
interface Draft {
  recipients: readonly Recipient[];
  subject: string;
  words: string;
  documents: ReadonlySet<string>;
  /** Until when a link opens; null without one. */
  until: string | null;
}

function draftOf({ contacts, texts, documents, until }: SendView): Draft {
  const [first] = contacts;
  const [text] = texts;
  return {
    recipients: first ? [{ as: 'to', name: first.name, address: first.address }] : [],
    subject: text?.subject ?? '',
    words: text?.words ?? '',
    documents: new Set(documents.filter(({ usual }) => usual).map(({ wanted }) => wantedKey(wanted))),
    until,
  };
}

const sentTo = (view: SendView, draft: Draft, key: string): Promise<Answer<MailView>> => {
  const input = {
    recipients: [...draft.recipients],
    subject: draft.subject,
    words: draft.words,
    documents: view.documents
      .map(({ wanted }) => wanted)
      .filter((wanted) => draft.documents.has(wantedKey(wanted))),
    share: draft.until === null ? null : { until: draft.until },
  };
  // Pressed twice, or sent again after a lost answer, it is one mail.
  const headers = { 'idempotency-key': key };
  return view.quote
    ? ask('POST /quotes/{id}/mails', {
        at: { id: view.quote.id },
        input: { ...input, version: view.quote.version },
        headers,
      })
    : ask('POST /builds/{id}/mails', { at: { id: view.build?.id ?? '' }, input, headers });
};

function Page({ view, today }: Props) {
  const { t, language } = useSpeech();
  const [draft, setDraft] = useState(() => draftOf(view));
  const [sending, setSending] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const [gone, setGone] = useState(false);
  // Of one content there is one mail.
  const key = useRef(newKey());
  const change = (to: Partial<Draft>): void => {
    key.current = newKey();
    setDraft((before) => ({ ...before, ...to }));
    setWrong(null);
  };
  useStays(draft.words !== (view.texts[0]?.words ?? '') && !gone);
  const barred = view.obstacles.length > 0;
  const go = async (): Promise<void> => {
    if (sending || barred) return;
    setSending(true);
    const answer = await sentTo(view, draft, key.current);
    if (!answer.ok) {
      setSending(false);
      setWrong(sentences(answer.failures, t('request.failed')));
      return;
    }
    setGone(true);
    window.location.assign(
      view.quote ? `/quotes/${view.quote.id}?side=sent` : `/outbox?mail=${answer.value.id}`,
    );
  };
  useSendKey(() => void go());
  return (
    <div className={css.send}>
      <header className={css.head}>
        <LinkButton look="plain" href={backOf(view)} aria-label={t('mail.back')}>
          <ArrowLeft size={15} aria-hidden />
        </LinkButton>
        <h1>
          {t('mail.write')} <span className={css.number}>{view.quote?.number ?? view.build?.partNumber}</span>
        </h1>
        <span className={css.who}>
          {[view.customer, view.quote?.title].filter(Boolean).join(' · ')}
          {view.before > 0 && ` · ${t('mail.before', { count: view.before })}`}
        </span>
        {wrong !== null && (
          <span className={css.wrong} role="alert">
            {wrong}
          </span>
        )}
        <Button look="main" disabled={sending || barred} onClick={() => void go()}>
          <SendMark size={14} aria-hidden />
          {t(sending ? 'mail.sending' : 'mail.send')}
        </Button>
      </header>
      <section className={css.form} aria-label={t('mail.write')}>
        {barred && (
          <ul className={css.barred} role="alert">
            {view.obstacles.map(({ code, params }, at) => (
              <li key={at}>{sentence(language, code, params)}</li>
            ))}
          </ul>
        )}
        {view.quote?.draft === true && !barred && (
          <p className={css.note}>{t('mail.freezes', { revision: view.quote.revision })}</p>
        )}
        <Recipients
          contacts={view.contacts}
          chosen={draft.recipients}
          onChange={(recipients) => change({ recipients })}
        />
        <Words view={view} draft={draft} onChange={change} />
        <Documents
          offered={view.documents}
          chosen={draft.documents}
          onChange={(documents) => change({ documents })}
        />
        <div className={css.link}>
          <label className={css.tick}>
            <input
              type="checkbox"
              checked={draft.until !== null}
              onChange={(event) => change({ until: event.target.checked ? view.until : null })}
            />
            {t(view.quote ? 'mail.withLink' : 'mail.withBuildLink')}
          </label>
          {draft.until !== null && (
            <DayField
              label={t('mail.until')}
              value={draft.until}
              min={today}
              onPick={(until) => change({ until: until === '' ? view.until : until })}
            />
          )}
        </div>
      </section>
      <Preview
        view={view}
        recipients={draft.recipients}
        subject={draft.subject}
        words={withLink(draft.words, draft.until === null ? null : placeOfLink)}
        link={draft.until === null ? null : placeOfLink}
        documents={view.documents.filter(({ wanted }) => draft.documents.has(wantedKey(wanted)))}
      />
    </div>
  );
}

/** Ctrl+Enter sends from wherever the keyboard is. */
function useSendKey(send: () => void): void {
  const latest = useLatest(send);
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) latest.current();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [latest]);
}

/** Stands for the link until the mail is sent, since nobody knows it before. */
const placeOfLink = '\u0001link\u0001';

function Words({
  view,
  draft,
  onChange,
}: {
  view: SendView;
  draft: Draft;
  onChange: (to: Partial<Draft>) => void;
}) {
  const { t, language } = useSpeech();
  return (
    <>
      {view.texts.length > 1 && (
        <Select
          label={t('mail.text')}
          options={view.texts.map(({ code, name }) => ({ value: code, text: own(name, language) }))}
          onChange={(event) => {
            const text = view.texts.find(({ code }) => code === event.target.value);
            if (text) onChange({ subject: text.subject, words: text.words });
          }}
        />
      )}
      <Field
        label={t('mail.subject')}
        value={draft.subject}
        maxLength={200}
        onChange={(event) => onChange({ subject: event.target.value })}
      />
      <label className={css.words}>
        {t('mail.words')}
        <textarea
          lang={view.language}
          value={draft.words}
          maxLength={20_000}
          onChange={(event) => onChange({ words: event.target.value })}
        />
      </label>
    </>
  );
}
