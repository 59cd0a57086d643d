import type { QuoteView, ThreadEntry } from '../../../../contract';
import { useSpeech } from '../../../speech';
import { Attachments } from './Attachments';
import css from './colleagues.module.css';
import { FollowUps } from './FollowUps';
import { Thread } from './Thread';
import { useColleagues } from './useColleagues';
import { Write } from './Write';

interface Props {
  view: QuoteView;
  /** The quote is another by it: it was handed over, or a special part was put into one of its builds. */
  onChanged: () => void;
}

/** It is the person's turn: to answer, or to do something with an answer. */
const waits = ({ request }: ThreadEntry): boolean =>
  request !== null && (request.mayAnswer || (request.mayClose && request.state === 'answered'));

/** What colleagues tell and ask one another about a quote; nothing of it is seen outside. */
export function Colleagues({ view: quote, onChanged }: Props) {
  const { t } = useSpeech();
  const here = useColleagues(quote.id);
  const { view } = here;
  if (!view) return <p className={css.quiet}>{t('colleague.loading')}</p>;
  const waiting = view.thread.filter(waits);
  return (
    <div className={css.colleagues}>
      <Thread name={t('colleague.waiting')} thread={waiting} did={here.did} onChanged={onChanged} />
      <Write quote={quote} view={view} did={here.did} onChanged={onChanged} />
      <FollowUps followUps={view.followUps} did={here.did} />
      <Attachments quote={quote.id} files={view.files} may={view.may.keep} did={here.did} />
      {view.thread.length === 0 && <p className={css.quiet}>{t('colleague.nothing')}</p>}
      <Thread
        name={t('colleague.thread')}
        thread={view.thread.filter((entry) => !waiting.includes(entry))}
        did={here.did}
        onChanged={onChanged}
      />
    </div>
  );
}
