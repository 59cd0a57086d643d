import { useState } from 'react';
import { discountPercent, type OfferInput, type QuoteView, type SignOffView } from '../../../contract';
import { percent } from '../../../i18n';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './sign-off.module.css';
import { wrongWith } from '../grid/typed-amount';
import { type SignOffActs } from './sign-off-acts';

interface Props {
  entry: SignOffView;
  view: QuoteView;
  onAnswer: SignOffActs['onAnswer'];
}

/** Yes, no, or the discounts that would do, line by line. */
export function Answer(props: Props) {
  const { entry, view } = props;
  const { t, language } = useSpeech();
  const { offers, setOffer, refused, toggle, counter, comment, setComment, wrong, answer, says } =
    useAnswering(props);
  const refusesAll = counter.every(({ no }) => no) && counter.length === entry.lines.length;
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
            <AnswerLine
              key={line.line}
              line={line}
              offer={offers[line.line] ?? ''}
              refused={refused.has(line.line)}
              onOffer={(rate) => setOffer(line.line, rate)}
              onRefuse={() => toggle(line.line)}
            />
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
        <Button disabled={counter.length === 0 || refusesAll} onClick={() => void answer('counter')}>
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

/** What is typed and ticked, and what it comes to as an answer. */
function useAnswering({ entry, onAnswer }: Props) {
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
  const says = entry.lines.map(({ line, position, discount }) => {
    const rate = rateOf(line);
    const what = refused.has(line)
      ? t('signOff.lineRefused')
      : rate === ''
        ? t('signOff.signedAt', { rate: percent(discount, language, 2) })
        : t('signOff.onlyAt', { rate: `${rate} %` });
    return t('signOff.says', { line: position, what });
  });
  const setOffer = (line: string, rate: string): void => setOffers({ ...offers, [line]: rate });
  const toggle = (line: string): void =>
    setRefused((before) => {
      const next = new Set(before);
      if (!next.delete(line)) next.add(line);
      return next;
    });
  return { offers, setOffer, refused, toggle, counter, comment, setComment, wrong, answer, says };
}

function AnswerLine({
  line,
  offer,
  refused,
  onOffer,
  onRefuse,
}: {
  line: SignOffView['lines'][number];
  offer: string;
  refused: boolean;
  onOffer: (rate: string) => void;
  onRefuse: () => void;
}) {
  const { t, language } = useSpeech();
  return (
    <tr>
      <td>{line.position}</td>
      <td>{percent(line.discount, language, 2)}</td>
      <td>{line.margin === undefined ? '' : percent(line.margin, language, 1)}</td>
      <td>
        <input
          aria-label={t('signOff.wouldDoFor', { line: line.position })}
          inputMode="decimal"
          value={refused ? '' : offer}
          disabled={refused}
          placeholder={t('signOff.asAsked')}
          onChange={(event) => onOffer(event.target.value)}
        />
      </td>
      <td>
        <input
          type="checkbox"
          aria-label={t('signOff.refuse', { line: line.position })}
          checked={refused}
          onChange={onRefuse}
        />
      </td>
    </tr>
  );
}
