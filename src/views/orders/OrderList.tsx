import { ask } from '../api';
import type { OrderPage, OrderRow } from '../../contract';
import { date, moneyIn } from '../../i18n';
import { DataTable, ListPage, type Column } from '../../ui';
import { Pager } from '../parts/Pager';
import { usePage } from '../parts/usePage';
import { Speech, useSpeech } from '../speech';

interface Props {
  language: string;
  first: OrderPage;
}

export default function OrderList(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

function Page({ first }: Props) {
  const { t, language } = useSpeech();
  const { page, field, go } = usePage((query) => ask('GET /orders', { query }), first, {
    by: 'created',
    descending: true,
  });
  const columns: Column<OrderRow>[] = [
    {
      id: 'number',
      title: t('order.number'),
      kind: 'code',
      width: '110px',
      sort: (row) => row.number,
      cell: (row) => <a href={`/orders/${row.id}`}>{row.number}</a>,
    },
    { id: 'customer', title: t('order.customer'), sort: (row) => row.customer, cell: (row) => row.customer },
    {
      id: 'quote',
      title: t('order.quote'),
      kind: 'code',
      sort: (row) => row.quoteNumber,
      cell: (row) => row.quoteNumber,
    },
    {
      id: 'work',
      title: t('order.work'),
      kind: 'figure',
      sort: (row) => row.workOrders,
      cell: (row) => row.workOrders,
    },
    {
      id: 'promised',
      title: t('order.promised'),
      kind: 'figure',
      sort: (row) => row.promised,
      cell: (row) => date(row.promised, language),
    },
    {
      id: 'net',
      title: t('order.net'),
      kind: 'figure',
      sort: (row) => Number(row.net),
      cell: (row) => moneyIn(row.net, row.currency, language, row.decimals),
    },
  ];
  return (
    <ListPage
      title={t('order.title')}
      foot={<Pager page={page} onGo={go} />}
      find={first.count > 0 ? { label: t('order.find'), field } : undefined}
    >
      <DataTable
        label={t('order.title')}
        columns={columns}
        rows={page.rows}
        rowId={(row) => row.id}
        empty={first.count > 0 ? t('order.notFound', { text: field.value }) : t('order.none')}
      />
    </ListPage>
  );
}
