import { useState } from 'react';
import type { MailPage, MailRowView, MailServerView, MailView } from '../../contract';
import { mailStates, type MailState } from '../../core/sending';
import { dateTime } from '../../i18n';
import { Button, DataTable, ListPage, Tabs, say, type Column } from '../../ui';
import { ask, sentences } from '../api';
import { MailMark } from '../parts/sent/MailMark';
import { Pager } from '../parts/Pager';
import { useLive } from '../parts/useLive';
import { Speech, useSpeech } from '../speech';
import { MailAside } from './MailAside';
import css from './outbox.module.css';

interface Props {
  language: string;
  first: MailPage;
  opened: MailView | null;
  server: MailServerView;
  mayStop: boolean;
}

export default function Outbox(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

function useMails(first: MailPage, begun: MailView | null) {
  const [page, setPage] = useState(first);
  const [state, setState] = useState<MailState | 'all'>('all');
  const [find, setFind] = useState('');
  const [opened, setOpened] = useState(begun);
  const look = async (
    to: { state?: MailState | 'all'; find?: string; page?: number } = {},
  ): Promise<void> => {
    const of = to.state ?? state;
    const answer = await ask('GET /mails', {
      query: { find: to.find ?? find, page: to.page ?? page.page, state: of === 'all' ? undefined : of },
    });
    if (answer.ok) setPage(answer.value);
  };
  const open = async (id: string): Promise<void> => {
    const answer = await ask('GET /mails/{id}', { at: { id } });
    if (answer.ok) setOpened(answer.value);
  };
  useLive(() => {
    void look();
    if (opened) void open(opened.id);
  });
  return {
    page,
    state,
    find,
    opened,
    open,
    close: () => setOpened(null),
    put: (mail: MailView) => {
      setOpened(mail);
      void look();
    },
    show: (of: MailState | 'all') => {
      setState(of);
      void look({ state: of, page: 0 });
    },
    type: (text: string) => {
      setFind(text);
      void look({ find: text, page: 0 });
    },
    go: (to: number) => void look({ page: to }),
  };
}

function Page({ first, opened: begun, server: atFirst, mayStop }: Props) {
  const { t } = useSpeech();
  const mails = useMails(first, begun);
  const [server, setServer] = useState(atFirst);
  const turn = async (): Promise<void> => {
    const answer = await ask('PUT /mail-server', { input: { down: !server.down } });
    if (answer.ok) setServer(answer.value);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const tabs = (['all', ...mailStates] as const).map((id) => ({
    id,
    text: id === 'all' ? t('mail.all') : t(`mail.is.${id}`),
  }));
  return (
    <div className={css.outbox} data-aside={mails.opened !== null || undefined}>
      <ListPage
        title={t('place.outbox')}
        find={{
          label: t('mail.find'),
          field: { value: mails.find, onChange: ({ target }) => mails.type(target.value) },
        }}
        foot={<Pager page={mails.page} onGo={mails.go} />}
        act={
          <span className={css.server}>
            {server.ours
              ? t(server.down ? 'mail.server.down' : 'mail.server.up')
              : t('mail.server.real', { at: server.at })}
            {server.ours && mayStop && (
              <Button onClick={() => void turn()}>
                {t(server.down ? 'mail.server.bringUp' : 'mail.server.takeDown')}
              </Button>
            )}
          </span>
        }
        filters={
          <Tabs
            label={t('mail.state')}
            tabs={tabs}
            chosen={mails.state}
            onChoose={(id) => mails.show(id)}
            panel="mails-listed"
          />
        }
      >
        <div id="mails-listed" role="tabpanel" aria-label={t('place.outbox')} className={css.listed}>
          <Rows page={mails.page} onOpen={(id) => void mails.open(id)} />
        </div>
      </ListPage>
      {mails.opened && (
        <MailAside key={mails.opened.id} mail={mails.opened} onChanged={mails.put} onClose={mails.close} />
      )}
    </div>
  );
}

function Rows({ page, onOpen }: { page: MailPage; onOpen: (id: string) => void }) {
  const { t, language } = useSpeech();
  const columns: Column<MailRowView>[] = [
    {
      id: 'when',
      title: t('mail.when'),
      width: '128px',
      kind: 'figure',
      cell: ({ madeAt }) => dateTime(madeAt, language),
    },
    {
      id: 'about',
      title: t('mail.about'),
      kind: 'code',
      width: '124px',
      cell: ({ quote, build }) =>
        quote ? (
          <a href={`/quotes/${quote.id}`}>{`${quote.number} R${String(quote.revision)}`}</a>
        ) : (
          (build?.partNumber ?? '')
        ),
    },
    { id: 'customer', title: t('quotes.customer'), cell: ({ customer }) => customer },
    {
      id: 'subject',
      title: t('mail.subject'),
      width: '30%',
      cell: ({ id, subject }) => (
        <button type="button" className={css.open} onClick={() => onOpen(id)}>
          {subject}
        </button>
      ),
    },
    {
      id: 'to',
      title: t('mail.to'),
      cell: ({ recipients }) =>
        recipients.map(({ name, address }) => (name === '' ? address : name)).join(', '),
    },
    { id: 'by', title: t('mail.by'), cell: ({ madeBy }) => madeBy },
    { id: 'state', title: t('mail.state'), width: '150px', cell: (mail) => <MailMark mail={mail} /> },
  ];
  return (
    <DataTable
      label={t('place.outbox')}
      columns={columns}
      rows={page.rows}
      rowId={({ id }) => id}
      empty={t('mail.none')}
    />
  );
}
