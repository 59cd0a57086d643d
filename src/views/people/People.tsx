import { useState } from 'react';
import { UserPlus } from 'lucide-react';
import type { PeopleView, PeopleWithLink, PersonView } from '../../contract';
import { Button, DataTable, ListPage, Tabs, say, type Column } from '../../ui';
import { useMedia } from '../../ui/useMedia';
import { ask, sentences } from '../api';
import { Speech, useSpeech, type InWords } from '../speech';
import { deputyText, signsInText } from './person-state';
import { PersonSheet } from './PersonSheet';
import { Roles } from './Roles';
import type { Send } from './send';
import css from './people.module.css';

interface Props {
  language: string;
  first: PeopleView;
  /** ISO. */
  today: string;
  /** Whoever looks. */
  own: string;
}

export default function People(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

/** Nobody, somebody new, or somebody by their id. */
type Open = null | { id: string | null };

function Page({ first, today, own }: Props) {
  const { t } = useSpeech();
  const { view, link, take, forget } = usePeople(first);
  const [tab, setTab] = useState<'people' | 'roles'>('people');
  const [open, setOpen] = useState<Open>(null);
  const show = (id: string | null): void => {
    setOpen({ id });
    setTab('people');
    forget();
  };
  return (
    <ListPage
      title={t('place.people')}
      act={
        <span className={css.begin}>
          <Button onClick={() => show(null)}>
            <UserPlus size={14} aria-hidden />
            {t('people.add')}
          </Button>
        </span>
      }
      filters={
        <div className={css.tabs}>
          <Tabs
            label={t('people.parts')}
            panel="people-part"
            chosen={tab}
            onChoose={setTab}
            tabs={(['people', 'roles'] as const).map((id) => ({ id, text: t(`people.tab.${id}`) }))}
          />
        </div>
      }
    >
      <div id="people-part" role="tabpanel" aria-label={t(`people.tab.${tab}`)} className={css.part}>
        {tab === 'roles' ? (
          <Roles />
        ) : (
          <div className={css.sides} data-open={open !== null || undefined}>
            <List view={view} today={today} open={open} onOpen={show} />
            {open && (
              <PersonSheet
                key={open.id ?? ''}
                {...{ view, today, own, link }}
                id={open.id}
                onClose={() => setOpen(null)}
                onSent={async (sent) => {
                  const answer = await take(sent);
                  if (answer.ok && 'person' in answer.value) setOpen({ id: answer.value.person });
                  return answer;
                }}
              />
            )}
          </div>
        )}
      </div>
    </ListPage>
  );
}

/** All people as they were last told, and the link that was made last. */
function usePeople(first: PeopleView) {
  const { t } = useSpeech();
  const [view, setView] = useState(first);
  const [link, setLink] = useState<PeopleWithLink | null>(null);
  const take: Send = async (sent) => {
    const answer = await sent;
    if (answer.ok) {
      setView(answer.value);
      if ('link' in answer.value) setLink(answer.value);
      say(t('house.kept'));
      return answer;
    }
    say(sentences(answer.failures, t('request.failed')), true);
    if (answer.failures.some(({ code }) => code === 'people.stale')) {
      const now = await ask('GET /people');
      if (now.ok) setView(now.value);
    }
    return answer;
  };
  return { view, link, take, forget: () => setLink(null) };
}

function List({
  view,
  today,
  open,
  onOpen,
}: {
  view: PeopleView;
  today: string;
  open: Open;
  onOpen: (id: string) => void;
}) {
  const words = useSpeech();
  const { t } = words;
  const narrow = useMedia('(width < 1500px)') && open !== null;
  return (
    <DataTable
      label={t('place.people')}
      columns={columnsOf(today, open, onOpen, words).filter(
        ({ id }) => !narrow || (id !== 'email' && id !== 'drafts'),
      )}
      rows={view.people}
      rowId={({ id }) => id}
      empty=""
    />
  );
}

function columnsOf(
  today: string,
  open: Open,
  onOpen: (id: string) => void,
  words: InWords,
): Column<PersonView>[] {
  const { t } = words;
  return [
    {
      id: 'name',
      title: t('house.name'),
      width: '170px',
      sort: ({ name }) => name,
      cell: ({ id, name, asideAt }) => (
        <button
          type="button"
          className={css.name}
          data-aside={asideAt !== null || undefined}
          aria-current={open?.id === id || undefined}
          onClick={() => onOpen(id)}
        >
          {name}
        </button>
      ),
    },
    {
      id: 'role',
      title: t('people.role'),
      width: '150px',
      sort: ({ role }) => t(`role.${role}`),
      cell: ({ role, dealer }) => (dealer ? `${t(`role.${role}`)}, ${dealer.name}` : t(`role.${role}`)),
    },
    {
      id: 'email',
      title: t('house.email'),
      kind: 'code',
      width: '230px',
      sort: ({ email }) => email,
      cell: ({ email }) => email,
    },
    { id: 'state', title: t('people.signsIn'), width: '190px', cell: (person) => signsInText(person, words) },
    { id: 'deputy', title: t('people.deputy'), cell: (person) => deputyText(person, today, words) },
    {
      id: 'drafts',
      title: t('people.drafts'),
      kind: 'figure',
      width: '90px',
      sort: ({ drafts }) => drafts,
      cell: ({ drafts }) => (drafts === 0 ? '' : String(drafts)),
    },
  ];
}
