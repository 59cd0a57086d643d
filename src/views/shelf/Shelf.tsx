import { useRef, useState } from 'react';
import type { ShelfPage, ShelvedView } from '../../contract';
import { dateTime, number } from '../../i18n';
import { DataTable, ListPage, type Column } from '../../ui';
import { ask } from '../api';
import { Pager } from '../parts/Pager';
import { MakeAnew } from '../parts/sent/MakeAnew';
import { Speech, useSpeech } from '../speech';

interface Props {
  language: string;
  first: ShelfPage;
}

export default function Shelf(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

/** Everything that was made, found by customer, number or name; opened again, or made anew where it moved on. */
function Page({ first }: Props) {
  const { t } = useSpeech();
  const [page, setPage] = useState(first);
  const [find, setFind] = useState('');
  const latest = useRef(0);
  const look = async (to: { find?: string; page?: number } = {}): Promise<void> => {
    const turn = ++latest.current;
    const answer = await ask('GET /shelf', { query: { find: to.find ?? find, page: to.page ?? page.page } });
    if (answer.ok && turn === latest.current) setPage(answer.value);
  };
  return (
    <ListPage
      title={t('place.shelf')}
      find={{
        label: t('shelf.find'),
        field: {
          value: find,
          onChange: ({ target }) => {
            setFind(target.value);
            void look({ find: target.value, page: 0 });
          },
        },
      }}
      foot={<Pager page={page} onGo={(to) => void look({ page: to })} />}
    >
      <Rows page={page} onMade={() => void look({ page: 0 })} />
    </ListPage>
  );
}

function Rows({ page, onMade }: { page: ShelfPage; onMade: () => void }) {
  const { t, language } = useSpeech();
  const columns: Column<ShelvedView>[] = [
    {
      id: 'madeAt',
      title: t('shelf.madeAt'),
      width: '128px',
      kind: 'figure',
      cell: ({ madeAt }) => dateTime(madeAt, language),
    },
    { id: 'customer', title: t('shelf.customer'), width: '17%', cell: ({ customer }) => customer },
    {
      id: 'name',
      title: t('shelf.name'),
      cell: ({ id, name }) => <a href={`/api/shelf/${id}`}>{name}</a>,
    },
    { id: 'of', title: t('shelf.of'), width: '180px', cell: (row) => <MadeOf row={row} /> },
    {
      id: 'size',
      title: t('shelf.size'),
      width: '76px',
      kind: 'figure',
      cell: ({ size }) =>
        t('mail.kb', { kb: number(String(Math.max(1, Math.round(size / 1024))), language) }),
    },
    { id: 'by', title: t('shelf.by'), width: '12%', cell: ({ madeBy }) => madeBy },
    {
      id: 'sent',
      title: t('shelf.sent'),
      width: '80px',
      cell: ({ sent }) => (sent === 0 ? t('shelf.never') : t('shelf.times', { count: sent })),
    },
    {
      id: 'state',
      title: t('shelf.state'),
      width: '190px',
      cell: (row) => (row.movedOn ? <MakeAnew row={row} onMade={onMade} /> : ''),
    },
  ];
  return (
    <DataTable
      label={t('place.shelf')}
      columns={columns}
      rows={page.rows}
      rowId={({ id }) => id}
      empty={t('shelf.none')}
    />
  );
}

/** What it was made of, and the way there. */
function MadeOf({ row: { quote, build, schedule } }: { row: ShelvedView }) {
  const { t } = useSpeech();
  if (schedule) return <a href={`/schedules/${schedule.id}`}>{schedule.name}</a>;
  if (quote)
    return (
      <a href={`/quotes/${quote.id}${quote.revision === null ? '' : `?revision=${String(quote.revision)}`}`}>
        {quote.revision === null
          ? quote.number
          : t('shelf.revision', { number: quote.number, revision: quote.revision })}
      </a>
    );
  return build ? <a href={`/bench/${build.id}`}>{build.number}</a> : null;
}
