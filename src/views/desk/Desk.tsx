import { useState } from 'react';
import { CalendarX2, FilePlus2, ListTodo, MessageCircleQuestion, Plus, Send, Stamp } from 'lucide-react';
import type { DeskView, QuoteRow } from '../../contract';
import { date, moneyIn } from '../../i18n';
import { Button } from '../../ui';
import { NewQuote } from '../quotes/NewQuote';
import { ask } from '../api';
import { useLive } from '../parts/useLive';
import { Speech, useSpeech } from '../speech';
import { Asked } from './Asked';
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

function Page({ name, view: first, mayQuote, seesOrders }: Props) {
  const { t } = useSpeech();
  const [view, setView] = useState(first);
  useLive(() => {
    void ask('GET /desk', { query: { whose: first.whose } }).then((answer) => {
      if (answer.ok) setView(answer.value);
    });
  });
  const [open, setOpen] = useState(false);
  return (
    <div className={css.desk}>
      <div className={css.main}>
        <div className={css.head}>
          <h1>{t('desk.greeting', { name: name.split(' ')[0] ?? name })}</h1>
          {mayQuote && (
            <Button
              look="main"
              autoFocus={view.asked.length + view.quotes.length === 0}
              onClick={() => setOpen(true)}
            >
              <Plus size={15} aria-hidden />
              {t('desk.newQuote')}
            </Button>
          )}
        </div>
        <Asked view={view} />
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
        <Waiting view={view} mayQuote={mayQuote} />
      </div>
      <div className={css.side}>
        {view.quota && <Quota {...view.quota} />}
        {seesOrders && <LastOrders orders={view.orders} />}
      </div>
      <NewQuote open={open} onClose={() => setOpen(false)} />
    </div>
  );
}

/** Quotes with something to do, the most pressing first. */
function Waiting({ view, mayQuote }: Pick<Props, 'view' | 'mayQuote'>) {
  const { t } = useSpeech();
  const nothing = !mayQuote
    ? 'desk.nothingHere'
    : view.whose === 'team'
      ? 'desk.nothing'
      : 'desk.nothingMine';
  const more = view.count - view.quotes.length;
  return (
    <div className={css.list}>
      {view.quotes.length === 0 && <p className={css.empty}>{t(nothing)}</p>}
      {view.quotes.map((quote, index) => (
        <WaitingQuote
          key={quote.id}
          quote={quote}
          first={index === 0 && view.asked.length === 0}
          withOwner={view.whose === 'team'}
        />
      ))}
      {more > 0 && (
        <p className={css.empty}>
          <a href="/quotes">{t('desk.more', { count: more })}</a>
        </p>
      )}
    </div>
  );
}

function WaitingQuote({ quote, first, withOwner }: { quote: QuoteRow; first: boolean; withOwner: boolean }) {
  const { t, language } = useSpeech();
  const next = nextStep(quote);
  const Icon = steps[next];
  const day = date(quote.validUntil, language);
  return (
    <a autoFocus={first} className={css.row} href={`/quotes/${quote.id}`}>
      <span className={css.number}>{quote.number}</span>
      <span className={css.who} title={`${quote.customer} ${quote.title}`}>
        {quote.customer} <span className={css.quiet}>{quote.title}</span>
        {withOwner && <span className={css.owner}>{quote.owner}</span>}
      </span>
      <span className={css.next}>
        <Icon size={14} aria-hidden />
        {t(`desk.next.${next}`, { count: quote.problems })}
      </span>
      <span className={css.until} title={t('desk.validWhy', { date: day })}>
        {t('desk.valid', { date: day })}
      </span>
      <span className={css.figure}>{moneyIn(quote.net, quote.currency, language, quote.decimals)}</span>
    </a>
  );
}

function LastOrders({ orders }: { orders: DeskView['orders'] }) {
  const { t, language } = useSpeech();
  return (
    <section className={css.panel} aria-label={t('desk.orders')}>
      <h2 className={css.section}>{t('desk.orders')}</h2>
      {orders.length === 0 && <p className={css.quiet}>{t('desk.noOrders')}</p>}
      <div style={{ marginTop: -12 }}>
        {orders.slice(0, 8).map((order) => (
          <a key={order.id} className={css.order} href={`/orders/${order.id}`}>
            <span className={css.number}>{order.number}</span>
            <span className={css.who} title={order.customer}>
              {order.customer}
            </span>
            <span className={css.figure}>{moneyIn(order.net, order.currency, language, order.decimals)}</span>
            <span className={css.under}>{t('desk.promised', { date: date(order.promised, language) })}</span>
          </a>
        ))}
      </div>
    </section>
  );
}
