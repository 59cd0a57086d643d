import { useRef, useState } from 'react';
import { Check, CircleHelp, PencilLine, X } from 'lucide-react';
import type { AnsweredView, SharedView } from '../../contract';
import { declineReasons, type AnswerKind, type DeclineReason } from '../../core/sending';
import { dateTime } from '../../i18n';
import { Button, Field } from '../../ui';
import { ask, sentences } from '../api';
import { useSpeech } from '../speech';
import css from './shared.module.css';

/** What somebody typed who was refused before the script ran. */
export interface Typed {
  answer: string;
  name: string;
  words: string;
  wrong: string;
}

interface Props {
  token: string;
  view: SharedView;
  typed: Typed | null;
  said: 'order' | 'received' | null;
  onAnswered: (is: AnsweredView['is'], view: SharedView) => void;
}

const marks = { accepted: Check, declined: X, question: CircleHelp, change: PencilLine } as const;

/** Where the customer answers: yes, no, a question, a change at a line; and what they answered before. */
export function AnswerPanel({ token, view, typed, said, onAnswered }: Props) {
  const { t } = useSpeech();
  const { mayAnswer } = view;
  const [chosen, setChosen] = useState<AnswerKind | null>(
    () => mayAnswer.find((each) => each === typed?.answer) ?? null,
  );
  const shown =
    mayAnswer.length === 1
      ? (mayAnswer[0] ?? null)
      : chosen !== null && mayAnswer.includes(chosen)
        ? chosen
        : null;
  return (
    <section id="answer" className={css.answer} aria-label={t('shared.answer')}>
      <h2>{t('shared.answer')}</h2>
      {said !== null && (
        <p className={css.accepted} role="status">
          {t(`shared.said.${said}`)}
        </p>
      )}
      {mayAnswer.length > 1 && (
        <div className={css.kinds} role="radiogroup" aria-label={t('shared.answer')}>
          {mayAnswer.map((kind) => {
            const Mark = marks[kind];
            return (
              <label key={kind} className={css.kind} data-kind={kind}>
                <input
                  type="radio"
                  name="answer"
                  form="answering"
                  value={kind}
                  checked={shown === kind}
                  onChange={() => setChosen(kind)}
                />
                <Mark size={15} aria-hidden />
                {t(`shared.kind.${kind}`)}
              </label>
            );
          })}
        </div>
      )}
      {/* Before the script runs nobody can choose here, so that the form has all of it. */}
      <Form
        key={shown ?? 'none'}
        token={token}
        view={view}
        kind={shown}
        typed={typed}
        onAnswered={(is, now) => {
          setChosen(null);
          onAnswered(is, now);
        }}
      />
      <Before answers={view.answers} />
    </section>
  );
}

function Form({
  token,
  view,
  kind,
  typed,
  onAnswered,
}: Pick<Props, 'token' | 'view' | 'typed' | 'onAnswered'> & { kind: AnswerKind | null }) {
  const { t } = useSpeech();
  const [wrong, setWrong] = useState<string | null>(typed?.wrong ?? null);
  const [busy, setBusy] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  const go = async (): Promise<void> => {
    if (!form.current || busy || kind === null) return;
    const fields = new FormData(form.current);
    const text = (name: string): string => {
      const value = fields.get(name);
      return typeof value === 'string' ? value : '';
    };
    setBusy(true);
    const answer = await ask('POST /shared/{token}/answers', {
      at: { token },
      input: {
        answer: kind,
        name: text('name'),
        words: text('words'),
        line: text('line') === '' ? null : text('line'),
        reason: (text('reason') === '' ? null : text('reason')) as DeclineReason | null,
        document: kind === 'accepted' ? (view.hash ?? '') : '',
        agreed: fields.get('agreed') !== null,
      },
    });
    setBusy(false);
    if (answer.ok) onAnswered(answer.value.is, answer.value.view);
    else setWrong(sentences(answer.failures, t('shared.notSent')));
  };
  const has = (of: AnswerKind): boolean => kind === null || kind === of;
  const making = view.hash === null;
  return (
    <form
      id="answering"
      ref={form}
      method="post"
      className={css.form}
      data-kind={kind ?? undefined}
      onSubmit={(event) => {
        event.preventDefault();
        void go();
      }}
    >
      {kind !== null && view.mayAnswer.length === 1 && <input type="hidden" name="answer" value={kind} />}
      {has('change') && view.lines.length > 0 && (
        <label className={css.field}>
          {t('shared.line')}
          <select name="line" defaultValue="">
            <option value="">{t('shared.noLineMeant')}</option>
            {view.lines.map(({ id, position, name }) => (
              <option key={id} value={id}>{`${String(position)}  ${name}`}</option>
            ))}
          </select>
        </label>
      )}
      {has('declined') && (
        <label className={css.field}>
          {t('shared.reason')}
          <select name="reason" defaultValue="">
            <option value="">{t('shared.choose')}</option>
            {declineReasons.map((each) => (
              <option key={each} value={each}>
                {t(`shared.why.${each}`)}
              </option>
            ))}
          </select>
        </label>
      )}
      <label className={css.field}>
        {t(kind === 'question' || kind === 'change' ? 'shared.words' : 'shared.remark')}
        <textarea
          name="words"
          rows={kind === 'accepted' ? 2 : 4}
          maxLength={4_000}
          defaultValue={typed?.words ?? ''}
        />
      </label>
      <Field
        label={t('shared.name')}
        name="name"
        maxLength={120}
        autoComplete="name"
        defaultValue={typed?.name ?? ''}
      />
      {has('accepted') && (
        <>
          <input type="hidden" name="document" value={view.hash ?? ''} />
          <label className={css.agree}>
            <input type="checkbox" name="agreed" value="yes" />
            {t('shared.agree', { reference: view.reference })}
          </label>
          {view.hash !== null && <p className={css.hash}>{t('shared.hash', { hash: view.hash })}</p>}
        </>
      )}
      {wrong !== null && (
        <p className={css.wrong} role="alert">
          {wrong}
        </p>
      )}
      <Button type="submit" look="main" disabled={busy || (kind === 'accepted' && making)}>
        {t(kind === null ? 'shared.send' : `shared.go.${kind}`)}
      </Button>
      {kind === 'accepted' && making && <p className={css.quiet}>{t('shared.making')}</p>}
    </form>
  );
}

/** What was answered here before, and what the house said to it. */
function Before({ answers }: Pick<SharedView, 'answers'>) {
  const { t, language } = useSpeech();
  if (answers.length === 0) return null;
  return (
    <ul className={css.before} aria-label={t('shared.before')}>
      {answers.map((each, at) => (
        <li key={at}>
          <b>
            {t(`shared.was.${each.answer}`)}
            {each.line !== '' && ` ${t('shared.atLine', { line: each.line })}`}
          </b>
          {each.words !== '' && <p className={css.said}>{each.words}</p>}
          <p className={css.quiet}>
            {each.name}, {dateTime(each.at, language)}
          </p>
          {each.reply !== null && <p className={css.replied}>{each.reply}</p>}
        </li>
      ))}
    </ul>
  );
}
