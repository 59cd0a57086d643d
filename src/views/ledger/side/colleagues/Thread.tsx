import { ArrowRightLeft, CircleHelp, Eye, StickyNote, X } from 'lucide-react';
import type { RequestView, ThreadEntry } from '../../../../contract';
import { dateTime, moneyIn, own } from '../../../../i18n';
import { Button } from '../../../../ui';
import { ask } from '../../../api';
import { useSpeech } from '../../../speech';
import { AnswerForm } from './AnswerForm';
import css from './colleagues.module.css';
import type { ColleaguesHere } from './useColleagues';

interface Props {
  name: string;
  thread: readonly ThreadEntry[];
  did: ColleaguesHere['did'];
  onChanged: () => void;
}

/** Some of what was said, asked and done, the newest first. */
export function Thread({ name, thread, did, onChanged }: Props) {
  if (thread.length === 0) return null;
  return (
    <section aria-label={name}>
      <h3>{name}</h3>
      <ul className={css.thread}>
        {thread.map((entry) => (
          <Entry key={entry.id} entry={entry} did={did} onChanged={onChanged} />
        ))}
      </ul>
    </section>
  );
}

const size = 14;

function Entry({ entry, did, onChanged }: { entry: ThreadEntry } & Pick<Props, 'did' | 'onChanged'>) {
  const { t, language } = useSpeech();
  const { id, by, at, words, handed, request, mayTakeBack } = entry;
  return (
    <li className={css.entry} data-state={request?.state}>
      <h4>
        <Mark entry={entry} />
        {request ? <Asked by={by} request={request} /> : handed ? t('colleague.handed', handed) : by}
        {mayTakeBack && (
          <Button
            look="plain"
            aria-label={t('colleague.takeBack')}
            title={t('colleague.takeBack')}
            onClick={() => void did(ask('DELETE /notes/{id}', { at: { id } }))}
          >
            <X size={12} aria-hidden />
          </Button>
        )}
      </h4>
      {words !== '' && <p className={css.words}>{words}</p>}
      <p className={css.under}>
        {handed && by !== handed.from ? `${by}, ` : ''}
        {dateTime(at, language)}
      </p>
      {request && <Answered id={id} request={request} did={did} onChanged={onChanged} />}
    </li>
  );
}

function Mark({ entry: { handed, request } }: { entry: ThreadEntry }) {
  if (handed) return <ArrowRightLeft size={size} aria-hidden />;
  if (request?.kind === 'technical') return <CircleHelp size={size} aria-hidden />;
  if (request) return <Eye size={size} aria-hidden />;
  return <StickyNote size={size} aria-hidden />;
}

/** Who asked whom, and about what. */
function Asked({ by, request: { kind, of, line, item } }: { by: string; request: RequestView }) {
  const { t, language } = useSpeech();
  const whom = 'name' in of ? of.name : t(`colleague.any.${of.role as 'modeller'}`);
  return (
    <span>
      {t(kind === 'technical' ? 'colleague.asksTechnical' : 'colleague.asksLook', { who: by, whom })}
      {line && ` ${t('answer.atLine', { line: line.position, name: own(line.name, language) })}`}
      {item && (
        <span className={css.quiet}>
          {' '}
          {t('colleague.insteadOf', { name: own(item.name, language) || item.sku })}
        </span>
      )}
    </span>
  );
}

/** The answer, or the place to write it; and what comes of it. */
function Answered({
  id,
  request,
  did,
  onChanged,
}: { id: string; request: RequestView } & Pick<Props, 'did' | 'onChanged'>) {
  const { t, language } = useSpeech();
  const { answer, part, usual, state, answeredBy, answeredAt } = request;
  const amount = (value: string) => moneyIn(value, usual?.currency ?? 'EUR', language, usual?.decimals ?? 2);
  if (request.mayAnswer) return <AnswerForm id={id} request={request} did={did} />;
  return (
    <>
      {answer !== null && (
        <div className={css.reply}>
          <p className={css.words}>{answer}</p>
          {part && (
            <p>
              <b>{t('special.word')}</b> {part.text}: {amount(part.price)}
              {part.cost !== undefined && (
                <span className={css.quiet}> ({t('colleague.atCost', { cost: amount(part.cost) })})</span>
              )}
              , {t('colleague.days', { count: part.days })}
            </p>
          )}
          <p className={css.under}>
            {answeredBy}, {dateTime(answeredAt ?? '', language)}
          </p>
        </div>
      )}
      <p className={css.acts}>
        {request.mayTake && (
          <Button
            look="main"
            onClick={() =>
              void did(ask('POST /requests/{id}/take', { at: { id } })).then((taken) => {
                if (taken) onChanged();
              })
            }
          >
            {t('colleague.take')}
          </Button>
        )}
        {request.mayClose && (
          <Button onClick={() => void did(ask('POST /requests/{id}/close', { at: { id } }))}>
            {t(state === 'open' ? 'colleague.withdraw' : 'colleague.close')}
          </Button>
        )}
        {state !== 'answered' && <span className={css.under}>{t(`colleague.is.${state}`)}</span>}
      </p>
    </>
  );
}
