import { ask } from '../api';
import { useState } from 'react';
import { Plus } from 'lucide-react';
import type { QuotePage, QuoteRow } from '../../contract';
import { dateTime, moneyIn } from '../../i18n';
import { Button, DataTable, ListPage, type Column } from '../../ui';
import { Speech, useSpeech } from '../speech';
import { Pager } from '../parts/Pager';
import { usePage } from '../parts/usePage';
import { NewQuote } from './NewQuote';

interface Props {
  language: string;
  first: QuotePage;
  mayQuote: boolean;
}

export default function QuoteList(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

function Page({ first, mayQuote }: Props) {
  const { t, language } = useSpeech();
  const [open, setOpen] = useState(false);
  const { page, field, order, onOrder, go } = usePage((query) => ask('GET /quotes', { query }), first, {
    by: 'changed',
    descending: true,
  });
  const columns: Column<QuoteRow>[] = [
    {
      id: 'number',
      title: t('quotes.number'),
      kind: 'code',
      width: '110px',
      sort: (row) => row.number,
      cell: (row) => <a href={`/quotes/${row.id}`}>{row.number}</a>,
    },
    { id: 'customer', title: t('quotes.customer'), sort: (row) => row.customer, cell: (row) => row.customer },
    { id: 'title', title: t('quotes.what'), sort: (row) => row.title, cell: (row) => row.title },
    { id: 'owner', title: t('quotes.owner'), sort: (row) => row.owner, cell: (row) => row.owner },
    {
      id: 'state',
      title: t('quotes.state'),
      sort: (row) => row.state,
      cell: (row) => t(`state.${row.state}`),
    },
    {
      id: 'lines',
      title: t('quotes.lines'),
      kind: 'figure',
      width: '60px',
      sort: (row) => row.lines,
      cell: (row) => row.lines,
    },
    {
      id: 'net',
      title: t('quotes.net'),
      kind: 'figure',
      width: '150px',
      sort: (row) => Number(row.net),
      cell: (row) => moneyIn(row.net, row.currency, language, row.decimals),
    },
    {
      id: 'changed',
      title: t('quotes.changed'),
      kind: 'figure',
      width: '140px',
      sort: (row) => row.updatedAt,
      cell: (row) => dateTime(row.updatedAt, language),
    },
  ];
  return (
    <ListPage
      title={t('quotes.title')}
      foot={<Pager page={page} onGo={go} />}
      find={first.count > 0 ? { label: t('quotes.find'), field } : undefined}
      act={
        mayQuote && (
          <Button look="main" onClick={() => setOpen(true)}>
            <Plus size={15} aria-hidden />
            {t('desk.newQuote')}
          </Button>
        )
      }
    >
      <DataTable
        label={t('quotes.title')}
        columns={columns}
        rows={page.rows}
        order={{ ...order, onOrder }}
        rowId={(row) => row.id}
        empty={first.count > 0 ? t('quotes.notFound', { text: field.value }) : t('quotes.none')}
      />
      <NewQuote open={open} onClose={() => setOpen(false)} />
    </ListPage>
  );
}
