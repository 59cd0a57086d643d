import { useState } from 'react';
import { limitFor } from '../../core/pricing';
import {
  discountPercent,
  type OfferInput,
  type QuoteView,
  type SignOffsOfQuote,
  type SignOffView,
} from '../../core/quoting';
import { dateTime, percent } from '../../i18n';
import { Button } from '../../ui';
import { useSpeech } from '../speech';
import { needText } from './need-text';
import css from './sign-off.module.css';
import { wrongWith } from './typed-amount';

export interface SignOffActs {
  /** Each gives the sentence of a refusal. */
  onAsk: (reason: string) => Promise<string | null>;
  onAnswer: (
    id: string,
    answer: { answer: 'yes' | 'no' | 'counter'; comment: string; counter: OfferInput[] },
  ) => Promise<string | null>;
  onTake: (id: string) => Promise<string | null>;
}

/** What must be signed and why, what was asked and answered, and the answer itself for whoever gives it. */
export function SignOff({ view, ...acts }: SignOffActs & { view: QuoteView }) {
  const { t, language } = useSpeech();
  const { signOff } = view;
  if (!signOff) return null;
  const open = signOff.needs.filter((need) => !need.held);
  const waits = signOff.history.some((each) => each.state === 'asked');
  return (
    <div className={css.signOff}>
      {signOff.needs.length === 0 && <p className={css.quiet}>{t('signOff.none')}</p>}
      <ul className={css.needs}>
        {signOff.needs.map((need) => (
          <li key={need.role}>{needText(need, t, language)}</li>
        ))}
      </ul>
      <Reasons view={view} signOff={signOff} />
      {view.may.edit && open.length > 0 && signOff.mayAnswer.length === 0 && (
        <Ask again={waits} onAsk={acts.onAsk} />
      )}
      {[...signOff.history].reverse().map((each) => (
        <Entry
          key={each.id}
          entry={each}
          view={view}
          mayAnswer={signOff.mayAnswer.includes(each.id)}
          {...acts}
        />
      ))}
    </div>
  );
}

/** What of each line goes how far beyond which limit. */
function Reasons({ view, signOff: { judged, limits } }: { view: QuoteView; signOff: SignOffsOfQuote }) {
  const { t, language } = useSpeech();
  const beyond = judged.flatMap((each) => {
    const line = view.lines.find(({ id }) => id === each.line);
    const limit = line && limitFor(limits, line.family, each.by);
    return line && limit && each.signers.length > 0 ? [{ ...each, line, limit }] : [];
  });
  if (beyond.length === 0) return null;
  return (
    <table className={css.reasons} aria-label={t('signOff.reasons')}>
      <tbody>
        {beyond.map(({ line, by, figure, reach, limit }) => (
          <tr key={`${line.id} ${by}`}>
            <th scope="row">{t('signOff.line', { line: line.position })}</th>
            <td>
              {t(`signOff.by.${by}`, { figure: percent(figure, language, 2) })}, {t(`ledger.reach.${reach}`)}
              <span className={css.borders}>
                {t('signOff.borders', {
                  limit: percent(limit.limit, language),
                  floor: percent(limit.floor, language),
                })}
              </span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Ask({ again, onAsk }: { again: boolean; onAsk: SignOffActs['onAsk'] }) {
  const { t } = useSpeech();
  const [reason, setReason] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  return (
    <form
      method="dialog"
      className={css.ask}
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void onAsk(reason).then((refusal) => {
          setWrong(refusal);
          if (refusal === null) setReason('');
        });
      }}
    >
      <label>
        {t('signOff.reason')}
        <textarea
          rows={2}
          value={reason}
          maxLength={500}
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      {wrong && (
        <p className={css.wrong} role="alert">
          {wrong}
        </p>
      )}
      <Button type="submit" look="main">
        {t(again ? 'signOff.askAgain' : 'signOff.ask')}
      </Button>
    </form>
  );
}

function Entry({
  entry,
  view,
  mayAnswer,
  onAnswer,
  onTake,
}: SignOffActs & { entry: SignOffView; view: QuoteView; mayAnswer: boolean }) {
  const { t, language } = useSpeech();
  const [wrong, setWrong] = useState<string | null>(null);
  const offered = entry.lines.some((line) => line.offer !== undefined);
  const taken =
    offered &&
    entry.lines.every(
      (line) =>
        line.offer === undefined ||
        (view.lines.find((each) => each.id === line.line)?.hand ?? { value: '0' }).value === line.offer,
    );
  const role = t(`role.${entry.role as 'manager'}`);
  /** What was given beside what was asked. */
  const given = ({ offer, refused }: SignOffView['lines'][number]): string =>
    entry.state !== 'counter'
      ? ''
      : offer !== undefined
        ? t('signOff.offer', { rate: percent(offer, language, 2) })
        : t(refused ? 'signOff.lineRefused' : 'signOff.lineAsAsked');
  return (
    <article className={css.entry} aria-label={t('signOff.entry', { role })}>
      <p className={css.state}>{t(`signOff.state.${entry.state}`, { role, who: entry.answeredBy ?? '' })}</p>
      <p>
        {t('signOff.asked', { who: entry.askedBy, at: dateTime(entry.askedAt, language) })}{' '}
        <q>{entry.reason}</q>
      </p>
      {mayAnswer ? (
        <Answer entry={entry} view={view} onAnswer={onAnswer} />
      ) : (
        <table>
          <tbody>
            {entry.lines.map((line) => (
              <tr key={line.line}>
                <td>{t('signOff.line', { line: line.position })}</td>
                <td>
                  {t('signOff.figures', {
                    discount: percent(line.discount, language, 2),
                    margin: line.margin === undefined ? '–' : percent(line.margin, language, 1),
                  })}
                  {given(line) && <b> {given(line)}</b>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {entry.answeredAt && (
        <p>
          {t('signOff.answeredBy', { who: entry.answeredBy ?? '', at: dateTime(entry.answeredAt, language) })}{' '}
          {entry.comment && <q>{entry.comment}</q>}
        </p>
      )}
      {entry.state === 'counter' && view.may.edit && !taken && !mayAnswer && (
        <Button onClick={() => void onTake(entry.id).then(setWrong)}>{t('signOff.take')}</Button>
      )}
      {wrong && (
        <p className={css.wrong} role="alert">
          {wrong}
        </p>
      )}
    </article>
  );
}

/** Yes, no, or the discounts that would do, line by line. */
function Answer({
  entry,
  view,
  onAnswer,
}: {
  entry: SignOffView;
  view: QuoteView;
  onAnswer: SignOffActs['onAnswer'];
}) {
  const { t, language } = useSpeech();
  const [comment, setComment] = useState('');
  const [offers, setOffers] = useState<Readonly<Record<string, string>>>({});
  const [refused, setRefused] = useState<ReadonlySet<string>>(new Set());
  const [wrong, setWrong] = useState<string | null>(null);
  const rateOf = (line: string): string => (refused.has(line) ? '' : (offers[line] ?? '').trim());
  const counter = entry.lines.flatMap(({ line }): OfferInput[] =>
    refused.has(line) ? [{ line, no: true }] : rateOf(line) === '' ? [] : [{ line, rate: rateOf(line) }],
  );
  const answer = async (kind: 'yes' | 'no' | 'counter') => {
    const bad =
      counter
        .map(({ rate }) => (rate === undefined ? null : wrongWith(discountPercent, rate, t)))
        .find((each) => each !== null) ?? null;
    setWrong(
      kind === 'counter' && bad !== null
        ? bad
        : await onAnswer(entry.id, { answer: kind, comment, counter: kind === 'counter' ? counter : [] }),
    );
  };
  /** What would be answered for each line, before it is. */
  const says = entry.lines.map(({ line, position, discount }) =>
    t('signOff.says', {
      line: position,
      what: refused.has(line)
        ? t('signOff.lineRefused')
        : rateOf(line) === ''
          ? t('signOff.signedAt', { rate: percent(discount, language, 2) })
          : t('signOff.onlyAt', { rate: `${rateOf(line)} %` }),
    }),
  );
  return (
    <div className={css.answer}>
      <table>
        <thead>
          <tr>
            <th scope="col">{t('ledger.line')}</th>
            <th scope="col">{t('ledger.discount')}</th>
            <th scope="col">{t('ledger.marginPercent')}</th>
            <th scope="col">{t('signOff.wouldDo')}</th>
            <th scope="col">{t('signOff.no')}</th>
          </tr>
        </thead>
        <tbody>
          {entry.lines.map((line) => (
            <tr key={line.line}>
              <td>{line.position}</td>
              <td>{percent(line.discount, language, 2)}</td>
              <td>{line.margin === undefined ? '' : percent(line.margin, language, 1)}</td>
              <td>
                <input
                  aria-label={t('signOff.wouldDoFor', { line: line.position })}
                  inputMode="decimal"
                  value={refused.has(line.line) ? '' : (offers[line.line] ?? '')}
                  disabled={refused.has(line.line)}
                  placeholder={t('signOff.asAsked')}
                  onChange={(event) => setOffers({ ...offers, [line.line]: event.target.value })}
                />
              </td>
              <td>
                <input
                  type="checkbox"
                  aria-label={t('signOff.refuse', { line: line.position })}
                  checked={refused.has(line.line)}
                  onChange={() =>
                    setRefused((before) => {
                      const next = new Set(before);
                      if (!next.delete(line.line)) next.add(line.line);
                      return next;
                    })
                  }
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <label>
        {t('signOff.comment')}
        <textarea
          rows={2}
          value={comment}
          maxLength={500}
          onChange={(event) => setComment(event.target.value)}
        />
      </label>
      {counter.length > 0 && <p role="status">{says.join(' ')}</p>}
      {wrong && (
        <p className={css.wrong} role="alert">
          {wrong}
        </p>
      )}
      <div className={css.buttons}>
        <Button look="main" disabled={counter.length > 0} onClick={() => void answer('yes')}>
          {t('signOff.yes')}
        </Button>
        <Button
          disabled={
            counter.length === 0 || (counter.every(({ no }) => no) && counter.length === entry.lines.length)
          }
          onClick={() => void answer('counter')}
        >
          {t('signOff.counter')}
        </Button>
        <Button onClick={() => void answer('no')}>{t('signOff.no')}</Button>
      </div>
      {view.totals.margin !== undefined && (
        <p className={css.quiet}>
          {t('signOff.allOfIt', { margin: percent(view.totals.margin, language, 1) })}
        </p>
      )}
    </div>
  );
}
