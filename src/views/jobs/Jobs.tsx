import { useRef, useState } from 'react';
import { Play } from 'lucide-react';
import { houseJobs, jobStates, type JobPage, type JobState as State, type JobView } from '../../contract';
import { dateTime } from '../../i18n';
import { Button, DataTable, ListPage, Tabs, say, type Column } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { Pager } from '../parts/Pager';
import { useWhileSeen } from '../parts/useSeen';
import { Speech, useSpeech } from '../speech';
import { JobAct, JobState } from '../parts/jobs/JobState';
import { whatOf } from '../parts/jobs/job-words';
import css from './jobs.module.css';

interface Props {
  language: string;
  first: JobPage;
}

export default function Jobs(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

/** Seconds between looks at what is under way. */
const between = 2;

function Page({ first }: Props) {
  const { t } = useSpeech();
  const { page, state, show, act } = useJobs(first);
  const columns = useColumns(act);
  const tabs = (['all', ...jobStates] as const).map((id) => ({
    id,
    text: id === 'all' ? t('job.all') : `${t(`job.is.${id}`)} ${String(page.counts[id])}`,
  }));
  return (
    <ListPage
      title={t('place.jobs')}
      foot={<Pager page={page} onGo={(to) => show(state, to)} />}
      act={
        <span className={css.begin}>
          {houseJobs.map((kind) => (
            <Button
              key={kind}
              title={t('job.begin')}
              onClick={() => void act(ask('POST /jobs', { input: { kind } }))}
            >
              <Play size={13} aria-hidden />
              {whatOf({ kind, subject: null }, t)}
            </Button>
          ))}
        </span>
      }
      filters={
        <div className={css.tabs}>
          <Tabs
            label={t('job.state')}
            tabs={tabs}
            chosen={state}
            onChoose={(id) => show(id, 0)}
            panel="jobs-listed"
          />
        </div>
      }
    >
      <div id="jobs-listed" role="tabpanel" aria-label={t('place.jobs')} className={css.listed}>
        <DataTable
          label={t('place.jobs')}
          columns={columns}
          rows={page.rows}
          rowId={(row) => row.id}
          empty={t('job.none')}
        />
      </div>
    </ListPage>
  );
}

/** The page of jobs in a state, looked at again now and then, and what is done with one of them. */
function useJobs(first: JobPage) {
  const { t } = useSpeech();
  const [page, setPage] = useState(first);
  const [state, setState] = useState<State | 'all'>('all');
  const turn = useRef(0);
  const look = async (of: State | 'all', at: number): Promise<void> => {
    const mine = ++turn.current;
    const answer = await ask('GET /jobs', { query: { state: of === 'all' ? undefined : of, page: at } });
    if (answer.ok && mine === turn.current) setPage(answer.value);
  };
  const show = (of: State | 'all', at: number): void => {
    setState(of);
    void look(of, at);
  };
  const act = async (answered: Promise<Answer<JobView>>): Promise<void> => {
    const answer = await answered;
    if (!answer.ok) say(sentences(answer.failures, t('request.failed')), true);
    await look(state, page.page);
  };
  useWhileSeen(() => void look(state, page.page), between);
  return { page, state, show, act };
}

function useColumns(act: (answered: Promise<Answer<JobView>>) => Promise<void>): Column<JobView>[] {
  const { t, language } = useSpeech();
  const moment = (iso: string | null) => (iso === null ? '' : dateTime(iso, language));
  return [
    { id: 'what', title: t('job.what'), width: '230px', cell: (job) => whatOf(job, t) },
    { id: 'state', title: t('job.state'), cell: (job) => <JobState job={job} /> },
    { id: 'by', title: t('job.by'), width: '140px', cell: (job) => job.by ?? t('job.house') },
    { id: 'asked', title: t('job.asked'), kind: 'figure', width: '140px', cell: (job) => moment(job.madeAt) },
    {
      id: 'ended',
      title: t('job.ended'),
      kind: 'figure',
      width: '140px',
      cell: (job) => moment(job.endedAt),
    },
    {
      id: 'tries',
      title: t('job.tries'),
      kind: 'figure',
      width: '70px',
      cell: (job) => `${String(job.tries)} / ${String(job.mostTries)}`,
    },
    {
      id: 'act',
      title: '',
      width: '130px',
      cell: (job) => (
        <JobAct
          job={job}
          onStop={() => void act(ask('POST /jobs/{id}/stop', { at: { id: job.id } }))}
          onAgain={() => void act(ask('POST /jobs/{id}/again', { at: { id: job.id } }))}
        />
      ),
    },
  ];
}
