import { useRef, useState } from 'react';
import { Plus } from 'lucide-react';
import type { SchedulePage, ScheduleRowView } from '../../contract';
import { dateTime } from '../../i18n';
import { Button, DataTable, Dialog, DialogFoot, ListPage, type Column } from '../../ui';
import { ask, sentences } from '../api';
import { Pager } from '../parts/Pager';
import { Speech, useSpeech } from '../speech';
import { HeadFields, whole, type Head } from './HeadFields';
import css from './schedules.module.css';

interface Props {
  language: string;
  first: SchedulePage;
  mayBegin: boolean;
}

export default function Schedules(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

/** All site schedules, the last changed first. */
function Page({ first, mayBegin }: Props) {
  const { t, language } = useSpeech();
  const [page, setPage] = useState(first);
  const [find, setFind] = useState('');
  const [beginning, setBeginning] = useState(false);
  const latest = useRef(0);
  const look = async (to: { find?: string; page?: number }): Promise<void> => {
    const turn = ++latest.current;
    const answer = await ask('GET /schedules', {
      query: { find: to.find ?? find, page: to.page ?? page.page },
    });
    if (answer.ok && turn === latest.current) setPage(answer.value);
  };
  const columns: Column<ScheduleRowView>[] = [
    {
      id: 'name',
      title: t('schedule.name'),
      cell: ({ id, name }) => <a href={`/schedules/${id}`}>{name}</a>,
    },
    { id: 'site', title: t('schedule.site'), width: '22%', cell: ({ site }) => site },
    { id: 'customer', title: t('schedule.customer'), width: '20%', cell: ({ customer }) => customer },
    {
      id: 'positions',
      title: t('schedule.positions'),
      width: '90px',
      kind: 'figure',
      cell: ({ positions }) => String(positions),
    },
    { id: 'owner', title: t('schedule.owner'), width: '14%', cell: ({ owner }) => owner },
    {
      id: 'changed',
      title: t('schedule.changed'),
      width: '128px',
      kind: 'figure',
      cell: ({ updatedAt }) => dateTime(updatedAt, language),
    },
  ];
  return (
    <>
      <ListPage
        title={t('place.schedules')}
        find={{
          label: t('schedule.find'),
          field: {
            value: find,
            onChange: ({ target }) => {
              setFind(target.value);
              void look({ find: target.value, page: 0 });
            },
          },
        }}
        act={
          mayBegin && (
            <Button look="main" onClick={() => setBeginning(true)}>
              <Plus size={15} aria-hidden />
              {t('schedule.new')}
            </Button>
          )
        }
        foot={<Pager page={page} onGo={(to) => void look({ page: to })} />}
      >
        <DataTable
          label={t('place.schedules')}
          columns={columns}
          rows={page.rows}
          rowId={({ id }) => id}
          empty={t('schedule.none')}
        />
      </ListPage>
      <Begin open={beginning} onClose={() => setBeginning(false)} />
    </>
  );
}

/** A new schedule, for a customer or for nobody yet. */
function Begin({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { t } = useSpeech();
  const [head, setHead] = useState<Head>({ name: '', site: '', customer: null, open: false });
  const [wrong, setWrong] = useState<string>();
  const begin = async (): Promise<void> => {
    const answer = await ask('POST /schedules', {
      input: { name: head.name, site: head.site, customer: head.customer?.id ?? null, quote: null },
    });
    if (answer.ok) window.location.assign(`/schedules/${answer.value.id}`);
    else setWrong(sentences(answer.failures, t('request.failed')));
  };
  return (
    <Dialog title={t('schedule.new')} closeText={t('frame.close')} open={open} onClose={onClose}>
      <form
        method="dialog"
        className={css.begin}
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
      >
        <HeadFields head={head} wrong={wrong} onChange={setHead} />
        <DialogFoot>
          <Button look="main" type="submit" disabled={!whole(head)}>
            {t('schedule.begin')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
