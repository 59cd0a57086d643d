import { useState } from 'react';
import { limitFor } from '../../../core/pricing';
import { type QuoteView, type SignOffsOfQuote, type SignOffView } from '../../../contract';
import { dateTime, percent } from '../../../i18n';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import { needText } from './need-text';
import css from './sign-off.module.css';
import { type SignOffActs } from './sign-off-acts';
import { Answer } from './Answer';

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

/** Who answered, and in whose place. */
const answerer = (
  { answeredBy = '', answeredFor }: SignOffView,
  t: ReturnType<typeof useSpeech>['t'],
): string =>
  answeredFor === undefined ? answeredBy : t('signOff.inPlace', { who: answeredBy, of: answeredFor });

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
      <p className={css.state}>{t(`signOff.state.${entry.state}`, { role, who: answerer(entry, t) })}</p>
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
          {t('signOff.answeredBy', { who: answerer(entry, t), at: dateTime(entry.answeredAt, language) })}{' '}
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
