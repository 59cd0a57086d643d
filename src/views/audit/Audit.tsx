import { useRef, useState } from 'react';
import { Download } from 'lucide-react';
import type { AuditPage, AuditView } from '../../contract';
import { hasText, instant } from '../../i18n';
import { detailsText } from '../../i18n/audit';
import { Button, DataTable, Field, LinkButton, ListPage, Select, type Column } from '../../ui';
import { addressOf, ask } from '../api';
import { DayField } from '../parts/DayField';
import { JobHere } from '../parts/jobs/JobHere';
import { useJob } from '../parts/jobs/useJob';
import { Pager } from '../parts/Pager';
import { pause } from '../parts/pause';
import { Speech, useSpeech } from '../speech';
import css from './audit.module.css';

interface Props {
  language: string;
  first: AuditPage;
  people: readonly { id: string; name: string }[];
}

export default function Audit(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

/** What is looked for; empty where all are meant. */
interface Wanted {
  person: string;
  subject: string;
  from: string;
  to: string;
}

const everything: Wanted = { person: '', subject: '', from: '', to: '' };

function Page({ first, people }: Props) {
  const { t } = useSpeech();
  const { page, wanted, want, go } = useAudit(first);
  const file = useJob();
  return (
    <ListPage
      title={t('place.audit')}
      foot={<Pager page={page} onGo={go} />}
      act={
        <Button
          onClick={() =>
            void file.begin(ask('POST /audit/file', { input: { ...given(wanted), subject: wanted.subject } }))
          }
        >
          <Download size={14} aria-hidden />
          {t('audit.file')}
        </Button>
      }
      filters={
        <>
          <Filters wanted={wanted} people={people} onWant={want} />
          <JobHere here={file}>
            {({ outcome }) => (
              <LinkButton
                href={addressOf('GET /files/{id}', { at: { id: String(outcome?.file) } })}
                download={String(outcome?.name)}
              >
                {t('audit.get')}
              </LinkButton>
            )}
          </JobHere>
        </>
      }
    >
      <DataTable
        label={t('place.audit')}
        columns={useColumns()}
        rows={page.rows}
        rowId={(row) => row.id}
        empty={t('audit.none')}
      />
    </ListPage>
  );
}

const given = (wanted: Wanted): Partial<Wanted> =>
  Object.fromEntries(Object.entries(wanted).filter(([, value]) => value !== ''));

/** The page of what is wanted; asked after a pause in typing, and what comes late is dropped. */
function useAudit(first: AuditPage) {
  const [page, setPage] = useState(first);
  const [wanted, setWanted] = useState(everything);
  const turn = useRef(0);
  const look = async (of: Wanted, at: number, after: number): Promise<void> => {
    const mine = ++turn.current;
    await new Promise((resolve) => setTimeout(resolve, after));
    if (mine !== turn.current) return;
    const answer = await ask('GET /audit', { query: { ...given(of), page: at } });
    if (answer.ok && mine === turn.current) setPage(answer.value);
  };
  const want = (change: Partial<Wanted>): void => {
    const next = { ...wanted, ...change };
    setWanted(next);
    void look(next, 0, pause);
  };
  return { page, wanted, want, go: (to: number) => void look(wanted, to, 0) };
}

function Filters({
  wanted,
  people,
  onWant,
}: {
  wanted: Wanted;
  people: Props['people'];
  onWant: (change: Partial<Wanted>) => void;
}) {
  const { t } = useSpeech();
  const day = (which: 'from' | 'to') => (
    <div className={css.day}>
      <span>{t(`audit.${which}`)}</span>
      <DayField
        label={t(`audit.${which}`)}
        value={wanted[which]}
        onPick={(picked) => onWant({ [which]: picked })}
      />
    </div>
  );
  return (
    <div className={css.filters} role="search">
      <Field
        label={t('audit.begins')}
        autoFocus
        value={wanted.subject}
        onChange={(event) => onWant({ subject: event.target.value })}
      />
      <Select
        label={t('audit.person')}
        options={[
          { value: '', text: t('audit.everybody') },
          ...people.map(({ id, name }) => ({ value: id, text: name })),
        ]}
        value={wanted.person}
        onChange={(event) => onWant({ person: event.target.value })}
      />
      {day('from')}
      {day('to')}
    </div>
  );
}

function useColumns(): Column<AuditView>[] {
  const { t, language } = useSpeech();
  const did = (action: string): string => {
    const key = `audit.did.${action.replace('.', '-')}`;
    return hasText(key) ? t(key) : action;
  };
  return [
    { id: 'at', title: t('audit.at'), width: '170px', cell: (row) => instant(row.at, language) },
    { id: 'by', title: t('audit.by'), width: '160px', cell: (row) => row.by ?? t('job.house') },
    { id: 'action', title: t('audit.action'), width: '220px', cell: (row) => did(row.action) },
    { id: 'subject', title: t('audit.subject'), kind: 'code', width: '150px', cell: (row) => row.subject },
    {
      id: 'details',
      title: t('audit.details'),
      cell: (row) => {
        const text = detailsText(row.details);
        return (
          <span className={css.details} title={text}>
            {text}
          </span>
        );
      },
    },
  ];
}
