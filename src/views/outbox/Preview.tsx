import { useEffect, useState } from 'react';
import { Paperclip } from 'lucide-react';
import type { OfferedDocument, SendView } from '../../contract';
import { paragraphsOf, type Recipient } from '../../core/sending';
import { Tabs } from '../../ui';
import { Pages } from '../paper/Pages';
import type { SetPages } from '../paper/session/paper-session';
import { ask } from '../api';
import { Sent } from '../parts/sent/Sent';
import { useSpeech } from '../speech';
import { Name, wantedKey } from './Documents';
import css from './send.module.css';

interface Props {
  view: SendView;
  recipients: readonly Recipient[];
  subject: string;
  words: string;
  link: string | null;
  documents: readonly OfferedDocument[];
}

type Tab = 'mail' | 'pages' | 'sent';

/** The mail as it will be read, the pages that go along, and what went before. */
export function Preview(props: Props) {
  const { t } = useSpeech();
  const [tab, setTab] = useState<Tab>('mail');
  const { quote, build } = props.view;
  const tabs: Tab[] = quote ? ['mail', 'pages', 'sent'] : ['mail', 'sent'];
  const of = quote
    ? ({ is: 'quotes', id: quote.id } as const)
    : ({ is: 'builds', id: build?.id ?? '' } as const);
  return (
    <section className={css.preview} aria-label={t('mail.asRead')}>
      <Tabs
        label={t('mail.asRead')}
        tabs={tabs.map((id) => ({ id, text: t(`mail.tab.${id}`) }))}
        chosen={tab}
        onChoose={setTab}
        panel="mail-preview"
      />
      <div id="mail-preview" role="tabpanel" aria-label={t(`mail.tab.${tab}`)} className={css.panel}>
        {tab === 'sent' ? (
          <div className={css.sentBefore}>
            <Sent of={of} mayOrder={false} />
          </div>
        ) : tab === 'pages' && quote ? (
          <QuotePages quote={quote.id} revision={quote.revision} />
        ) : (
          <Letter {...props} />
        )}
      </div>
    </section>
  );
}

/** The mail on a sheet of its own. */
function Letter({ view, recipients, subject, words, link, documents }: Props) {
  const { t } = useSpeech();
  const to = (as: Recipient['as']): string =>
    recipients
      .filter((each) => each.as === as)
      .map(({ name, address }) => (name === '' ? address : `${name} <${address}>`))
      .join(', ');
  return (
    <article className={css.letter}>
      <dl className={css.heads}>
        <dt>{t('mail.from')}</dt>
        <dd>{`${view.sender.name} <${view.sender.address}>`}</dd>
        <dt>{t('mail.as.to')}</dt>
        <dd data-missing={to('to') === '' || undefined}>{to('to') === '' ? t('mail.nobody') : to('to')}</dd>
        {to('cc') !== '' && (
          <>
            <dt>{t('mail.as.cc')}</dt>
            <dd>{to('cc')}</dd>
          </>
        )}
      </dl>
      <h2>{subject}</h2>
      <div className={css.body} lang={view.language}>
        {paragraphsOf(words, link).map((lines, at) => (
          <p key={at}>
            {lines.map((pieces, line) => (
              <span key={line} className={css.lineOf}>
                {pieces.map(({ is, text }, piece) =>
                  is === 'link' ? (
                    <span key={piece} className={css.press}>
                      {view.press}
                    </span>
                  ) : (
                    text
                  ),
                )}
              </span>
            ))}
          </p>
        ))}
      </div>
      {documents.length > 0 && (
        <ul className={css.enclosed}>
          {documents.map((row) => (
            <li key={wantedKey(row.wanted)}>
              <Paperclip size={13} aria-hidden />
              {row.wanted.is === 'quotation' && `${t('mail.group.quotation')}, `}
              <Name row={row} />
            </li>
          ))}
        </ul>
      )}
    </article>
  );
}

/** The pages of the quotation. */
function QuotePages({ quote, revision }: { quote: string; revision: number }) {
  const [set, setSet] = useState<SetPages | null>(null);
  useEffect(() => {
    const left = new AbortController();
    const load = async (): Promise<void> => {
      const seen = await ask('GET /quotes/{id}/paper', { at: { id: quote }, query: { revision } });
      const response = await fetch(`/api/quotes/${quote}/paper.pdf?revision=${String(revision)}`, {
        signal: left.signal,
      });
      if (seen.ok && response.ok)
        setSet({ of: seen.value.composition, bytes: new Uint8Array(await response.arrayBuffer()) });
    };
    load().catch(() => undefined);
    return () => left.abort();
  }, [quote, revision]);
  return <Pages set={set} block={null} onEmpty={() => undefined} />;
}
