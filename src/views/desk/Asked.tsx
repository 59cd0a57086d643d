import type { ReactNode } from 'react';
import {
  CalendarClock,
  Check,
  CircleHelp,
  Eye,
  ListTodo,
  MailX,
  MessageCircleQuestion,
  MessageSquareReply,
  PencilLine,
  Stamp,
  X,
} from 'lucide-react';
import type { DeskView } from '../../contract';
import { date, dateTime, own } from '../../i18n';
import { useSpeech } from '../speech';
import css from './desk.module.css';

/** All that somebody or something asks of the person, what came from outside first. */
export function Asked({ view }: { view: DeskView }) {
  const { t } = useSpeech();
  return (
    <>
      <Section name={t('desk.answered')}>{useAnswered(view)}</Section>
      <Section name={t('desk.undelivered')}>{useUndelivered(view)}</Section>
      <Section name={t('desk.asked')}>{useAsked(view)}</Section>
      <Section name={t('desk.replied')}>{useReplied(view)}</Section>
      <Section name={t('desk.followUps')}>{useFollowUps(view)}</Section>
      <Section name={t('desk.toDecide')}>{useToDecide(view)}</Section>
      <Section name={t('desk.repriced')}>{useRepriced(view)}</Section>
    </>
  );
}

function Section({ name, children }: { name: string; children: ReactNode[] }) {
  if (children.length === 0) return null;
  return (
    <section className={css.asked} aria-label={name}>
      <h2 className={css.section}>{name}</h2>
      {children}
    </section>
  );
}

interface RowProps {
  href: string;
  number: ReactNode;
  customer: string;
  title: string;
  mark?: ReactNode;
  /** What is to be done. */
  next: string;
  /** Why, in words; told whole where the pointer rests. */
  why: string;
  urgent?: boolean;
  autoFocus?: boolean;
  children: ReactNode;
}

function Row({ href, number, customer, title, mark, next, why, urgent, autoFocus, children }: RowProps) {
  return (
    <a className={css.row} href={href} autoFocus={autoFocus}>
      <span className={css.number}>{number}</span>
      <span className={css.who} title={`${customer} ${title}`}>
        {customer} <span className={css.quiet}>{title}</span>
      </span>
      <span className={css.next} data-urgent={urgent || undefined}>
        {mark}
        {next}
      </span>
      <span className={css.reason} title={why}>
        {children}
      </span>
    </a>
  );
}

const size = 14;
const answerMarks = { accepted: Check, declined: X, question: MessageCircleQuestion, change: PencilLine };

/** What customers answered behind their links. */
function useAnswered({ answered }: DeskView): ReactNode[] {
  const { t, language } = useSpeech();
  return answered.map((each) => {
    const Mark = answerMarks[each.answer];
    return (
      <Row
        {...each}
        key={each.id}
        href={
          each.quoteId === null ? `/builds/${each.buildId ?? ''}/send` : `/quotes/${each.quoteId}?side=sent`
        }
        mark={<Mark size={size} aria-hidden />}
        next={t(each.waits ? 'desk.answers.waits' : `desk.answers.${each.answer}`)}
        why={each.words}
      >
        {each.name}, {dateTime(each.at, language)}
        {each.words !== '' && (
          <>
            : <q>{each.words}</q>
          </>
        )}
      </Row>
    );
  });
}

/** Mails that did not arrive. */
function useUndelivered({ undelivered }: DeskView): ReactNode[] {
  const { t } = useSpeech();
  return undelivered.map(({ id, customer, subject, state, returned }) => (
    <Row
      key={id}
      href={`/outbox?mail=${id}`}
      number={<MailX size={size} aria-hidden />}
      customer={customer}
      title={subject}
      next={t(state === 'unsure' ? 'desk.unsure' : 'desk.notArrived')}
      why={returned.join(', ')}
    >
      {returned.join(', ')}
    </Row>
  ));
}

/** Where colleagues speak about a quote. */
const amongColleagues = (quoteId: string): string => `/quotes/${quoteId}?side=colleagues`;

/** Sign-offs that wait for an answer of the person, and what colleagues want to know. */
function useAsked({ asked, colleagues }: DeskView): ReactNode[] {
  const { t, language } = useSpeech();
  return [
    ...asked.map((each, index) => (
      <Row
        {...each}
        key={`${each.quoteId}${each.at}`}
        autoFocus={index === 0}
        href={`/quotes/${each.quoteId}`}
        mark={<Stamp size={size} aria-hidden />}
        next={t('desk.askedLines', { count: each.lines })}
        why={each.reason}
      >
        {each.for !== undefined && <b>{t('desk.askedFor', { of: each.for })} </b>}
        {each.by}: <q>{each.reason}</q>
      </Row>
    )),
    ...colleagues
      .filter(({ state }) => state === 'open')
      .map((each) => {
        const Mark = each.kind === 'technical' ? CircleHelp : Eye;
        return (
          <Row
            {...each}
            key={each.id}
            href={amongColleagues(each.quoteId)}
            mark={<Mark size={size} aria-hidden />}
            next={each.line === null ? t('desk.look') : t('desk.technical', { line: each.line })}
            why={each.words}
          >
            {each.who}, {dateTime(each.at, language)}: <q>{each.words}</q>
          </Row>
        );
      }),
  ];
}

/** What colleagues answered. */
function useReplied({ colleagues }: DeskView): ReactNode[] {
  const { t, language } = useSpeech();
  return colleagues
    .filter(({ state }) => state === 'answered')
    .map((each) => (
      <Row
        {...each}
        key={each.id}
        href={amongColleagues(each.quoteId)}
        mark={<MessageSquareReply size={size} aria-hidden />}
        next={each.line === null ? t('desk.looked') : t('desk.technicalDone', { line: each.line })}
        why={each.words}
      >
        {each.who}, {dateTime(each.at, language)}: <q>{each.words}</q>
      </Row>
    ));
}

/** Days on which the person wanted to come back to a quote. */
function useFollowUps({ followUps }: DeskView): ReactNode[] {
  const { t, language } = useSpeech();
  return followUps.map((each) => (
    <Row
      {...each}
      key={each.id}
      href={amongColleagues(each.quoteId)}
      mark={<CalendarClock size={size} aria-hidden />}
      next={
        each.due === 'overdue' || each.due === 'today' ? t(`desk.due.${each.due}`) : date(each.day, language)
      }
      urgent={each.due === 'overdue'}
      why={each.words}
    >
      {each.due === 'overdue' && `${date(each.day, language)}${each.words === '' ? '' : ': '}`}
      {each.words}
    </Row>
  ));
}

/** Quotes in which a newer version of a model leaves something to decide. */
function useToDecide({ toDecide }: DeskView): ReactNode[] {
  const { t, language } = useSpeech();
  return toDecide.map((each) => (
    <Row
      {...each}
      key={`${each.quoteId} ${String(each.version)}`}
      href={`/quotes/${each.quoteId}`}
      mark={<ListTodo size={size} aria-hidden />}
      next={each.lost > 0 ? t('desk.lost', { count: each.lost }) : t('desk.decide', { count: each.decide })}
      why={each.note}
    >
      {t('desk.newer', {
        model: own(each.model, language),
        version: String(each.version),
        day: date(each.from, language),
      })}{' '}
      {each.note !== '' && <q>{each.note}</q>}
    </Row>
  ));
}

/** Quotes that want a decision at the prices of a change. */
function useRepriced({ repriced }: DeskView): ReactNode[] {
  const { t, language } = useSpeech();
  return repriced.map((each) => (
    <Row
      {...each}
      key={`${each.quoteId} ${each.change}`}
      href={`/quotes/${each.quoteId}`}
      mark={<ListTodo size={size} aria-hidden />}
      next={
        each.unsold > 0
          ? t('desk.unsold', { count: each.unsold })
          : t('desk.toSign', {
              roles: each.signs.map((role) => t(`role.${role}` as 'role.manager')).join(', '),
            })
      }
      why={each.name}
    >
      {t('desk.atPrices', { name: each.name, day: date(each.from, language) })}
    </Row>
  ));
}
