import { useState } from 'react';
import { CalendarX2, FilePlus2, ListTodo, MessageCircleQuestion, Plus, Send, Stamp } from 'lucide-react';
import type { DeskView, QuoteRow } from '../../contract';
import { date, moneyIn } from '../../i18n';
import { Button } from '../../ui';
import { NewQuote } from '../quotes/NewQuote';
import { Speech, useSpeech } from '../speech';
import css from './desk.module.css';
import { Quota } from '../parts/Quota';

interface Props {
  language: string;
  name: string;
  view: DeskView;
  mayQuote: boolean;
  seesOrders: boolean;
}

export default function Desk(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

const steps = {
  fix: ListTodo,
  fill: FilePlus2,
  needed: Stamp,
  asked: Stamp,
  send: Send,
  answer: MessageCircleQuestion,
  revise: CalendarX2,
};

function nextStep(quote: QuoteRow): keyof typeof steps {
  if (quote.state === 'sent') return 'answer';
  if (quote.state === 'expired') return 'revise';
  if (quote.lines === 0) return 'fill';
  if (quote.problems > 0) return 'fix';
  return quote.signing ?? 'send';
}

function Page({ name, view, mayQuote, seesOrders }: Props) {
  const { t, language } = useSpeech();
  const [open, setOpen] = useState(false);
  const waiting = view.quotes;
  return (
    <div className={css.desk}>
      <div className={css.main}>
        <div className={css.head}>
          <h1>{t('desk.greeting', { name: name.split(' ')[0] ?? name })}</h1>
          {mayQuote && (
            <Button
              look="main"
              autoFocus={view.asked.length + waiting.length === 0}
              onClick={() => setOpen(true)}
            >
              <Plus size={15} aria-hidden />
              {t('desk.newQuote')}
            </Button>
          )}
        </div>
        {view.asked.length > 0 && (
          <section className={css.asked} aria-label={t('desk.asked')}>
            <h2 className={css.section}>{t('desk.asked')}</h2>
            {view.asked.map((each, index) => (
              <a
                key={`${each.quoteId}${each.at}`}
                autoFocus={index === 0}
                className={css.row}
                href={`/quotes/${each.quoteId}`}
              >
                <span className={css.number}>{each.number}</span>
                <span className={css.who} title={`${each.customer} ${each.title}`}>
                  {each.customer} <span className={css.quiet}>{each.title}</span>
                </span>
                <span className={css.next}>
                  <Stamp size={14} aria-hidden />
                  {t('desk.askedLines', { count: each.lines })}
                </span>
                <span className={css.reason} title={each.reason}>
                  {each.by}: <q>{each.reason}</q>
                </span>
              </a>
            ))}
          </section>
        )}
        <div className={css.section}>
          <h2>{t(view.whose === 'mine' ? 'desk.waiting' : 'desk.waitingTeam')}</h2>
          <nav className={css.whose} aria-label={t('desk.whose')}>
            {(['mine', 'team'] as const).map((each) => (
              <a
                key={each}
                href={each === 'mine' ? '/' : '/?whose=team'}
                aria-current={view.whose === each ? 'page' : undefined}
              >
                {t(`desk.${each}`)}
              </a>
            ))}
          </nav>
        </div>
        <div className={css.list}>
          {waiting.length === 0 && (
            <p className={css.empty}>
              {t(
                mayQuote && view.whose === 'team'
                  ? 'desk.nothing'
                  : mayQuote
                    ? 'desk.nothingMine'
                    : 'desk.nothingHere',
              )}
            </p>
          )}
          {waiting.map((quote, index) => {
            const next = nextStep(quote);
            const Icon = steps[next];
            return (
              <a
                key={quote.id}
                autoFocus={index === 0 && view.asked.length === 0}
                className={css.row}
                href={`/quotes/${quote.id}`}
              >
                <span className={css.number}>{quote.number}</span>
                <span className={css.who} title={`${quote.customer} ${quote.title}`}>
                  {quote.customer} <span className={css.quiet}>{quote.title}</span>
                  {view.whose === 'team' && <span className={css.owner}>{quote.owner}</span>}
                </span>
                <span className={css.next}>
                  <Icon size={14} aria-hidden />
                  {t(`desk.next.${next}`, { count: quote.problems })}
                </span>
                <span
                  className={css.until}
                  title={t('desk.validWhy', { date: date(quote.validUntil, language) })}
                >
                  {t('desk.valid', { date: date(quote.validUntil, language) })}
                </span>
                <span className={css.figure}>
                  {moneyIn(quote.net, quote.currency, language, quote.decimals)}
                </span>
              </a>
            );
          })}
          {view.count > waiting.length && (
            <p className={css.empty}>
              <a href="/quotes">{t('desk.more', { count: view.count - waiting.length })}</a>
            </p>
          )}
        </div>
      </div>
      <div className={css.side}>
        {view.quota && <Quota {...view.quota} />}
        {seesOrders && (
          <section className={css.panel} aria-label={t('desk.orders')}>
            <h2 className={css.section}>{t('desk.orders')}</h2>
            {view.orders.length === 0 && <p className={css.quiet}>{t('desk.noOrders')}</p>}
            <div style={{ marginTop: -12 }}>
              {view.orders.slice(0, 8).map((order) => (
                <a key={order.id} className={css.order} href={`/orders/${order.id}`}>
                  <span className={css.number}>{order.number}</span>
                  <span className={css.who} title={order.customer}>
                    {order.customer}
                  </span>
                  <span className={css.figure}>
                    {moneyIn(order.net, order.currency, language, order.decimals)}
                  </span>
                  <span className={css.under}>
                    {t('desk.promised', { date: date(order.promised, language) })}
                  </span>
                </a>
              ))}
            </div>
          </section>
        )}
      </div>
      <NewQuote open={open} onClose={() => setOpen(false)} />
    </div>
  );
}
