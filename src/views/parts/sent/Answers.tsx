import { useState } from 'react';
import { Check, CircleHelp, PencilLine, X } from 'lucide-react';
import type { AnswerView } from '../../../contract';
import { dateTime, own, sentence } from '../../../i18n';
import { Button, say } from '../../../ui';
import { ask, sentences, type Answer } from '../../api';
import { useSpeech } from '../../speech';
import css from './sent.module.css';

interface Props {
  answers: readonly AnswerView[];
  mayOrder: boolean;
  onChanged: (ordered: boolean) => void;
}

const marks = { accepted: Check, declined: X, question: CircleHelp, change: PencilLine } as const;

/** What the customer answered behind a share, what is still open first. */
export function Answers({ answers, mayOrder, onChanged }: Props) {
  const { t } = useSpeech();
  if (answers.length === 0) return null;
  const sorted = [...answers].sort((a, b) => Number(a.doneAt !== null) - Number(b.doneAt !== null));
  return (
    <section aria-label={t('sent.answers')}>
      <h3>{t('sent.answers')}</h3>
      <ul className={css.answers}>
        {sorted.map((answer) => (
          <One key={answer.id} answer={answer} mayOrder={mayOrder} onChanged={onChanged} />
        ))}
      </ul>
    </section>
  );
}

function One({ answer, mayOrder, onChanged }: { answer: AnswerView } & Omit<Props, 'answers'>) {
  const { t, language } = useSpeech();
  const [reply, setReply] = useState('');
  const { id, line, words, waits } = answer;
  const Mark = marks[answer.answer];
  const act = async (answered: Promise<Answer<AnswerView>>, ordered = false): Promise<void> => {
    const told = await answered;
    if (!told.ok) {
      say(sentences(told.failures, t('request.failed')), true);
      return;
    }
    onChanged(ordered);
  };
  const open = answer.doneAt === null;
  return (
    <li className={css.answer} data-open={open || undefined} data-answer={answer.answer}>
      <h4>
        <Mark size={14} aria-hidden />
        {t(`answer.is.${answer.answer}`)}
        {line && ` ${t('answer.atLine', { line: line.position, name: own(line.name, language) })}`}
      </h4>
      {answer.reason !== null && <p>{t(`lost.reason.${answer.reason}`)}</p>}
      {words !== '' && (
        <p>
          <q>{words}</q>
        </p>
      )}
      <p className={css.under}>
        {t('answer.by', { name: answer.name, at: dateTime(answer.at, language), from: answer.from })}
        {answer.revision !== null && ` · ${t('revision.one', { number: answer.revision })}`}
        {answer.document !== null && (
          <>
            {' · '}
            <code title={answer.document}>{answer.document.slice(0, 12)}</code>
          </>
        )}
      </p>
      {answer.order && (
        <p>
          <a href={`/orders/${answer.order.id}`}>{t('answer.order', { number: answer.order.number })}</a>
        </p>
      )}
      {waits.length > 0 && open && (
        <ul className={css.waits}>
          {waits.map(({ code, params }, at) => (
            <li key={at}>{sentence(language, code, params)}</li>
          ))}
        </ul>
      )}
      {answer.reply !== null && <p className={css.reply}>{answer.reply}</p>}
      {!open && answer.doneBy !== null && (
        <p className={css.under}>
          {t('answer.doneBy', { who: answer.doneBy, at: dateTime(answer.doneAt ?? '', language) })}
        </p>
      )}
      {open && (
        <div className={css.respond}>
          {answer.answer !== 'accepted' && (
            <textarea
              rows={2}
              aria-label={t('answer.reply')}
              placeholder={t('answer.reply')}
              value={reply}
              maxLength={4_000}
              onChange={(event) => setReply(event.target.value)}
            />
          )}
          <p className={css.acts}>
            {answer.answer !== 'accepted' && (
              <Button
                look="main"
                disabled={reply.trim() === ''}
                onClick={() =>
                  void act(ask('POST /answers/{id}/reply', { at: { id }, input: { words: reply.trim() } }))
                }
              >
                {t('answer.send')}
              </Button>
            )}
            {answer.answer === 'accepted' && mayOrder && (
              <Button
                look="main"
                onClick={() => void act(ask('POST /answers/{id}/order', { at: { id } }), true)}
              >
                {t('answer.makeOrder')}
              </Button>
            )}
            <Button
              onClick={() => void act(ask('POST /answers/{id}/reply', { at: { id }, input: { words: '' } }))}
            >
              {t('answer.done')}
            </Button>
          </p>
        </div>
      )}
    </li>
  );
}
