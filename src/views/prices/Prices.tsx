import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Download, Percent } from 'lucide-react';
import type { EntriesPage, EntryView, ListHead, PricesView } from '../../contract';
import { date, money, own } from '../../i18n';
import { Button, DataTable, Field, say, Select, type Column } from '../../ui';
import { Menu } from '../../ui/Menu';
import { addressOf, ask, sentences } from '../api';
import { DayField } from '../parts/DayField';
import { Pager } from '../parts/Pager';
import { Speech, useSpeech } from '../speech';
import { ChangeFields } from './ChangeFields';
import { EntryAside } from './EntryAside';
import { PricesSide } from './PricesSide';
import { PutIn } from './PutIn';
import { entryText, marginText, shortText } from './entry-words';
import shared from '../parts/side/room-page.module.css';
import css from './prices.module.css';

interface Props {
  language: string;
  first: PricesView;
  entries: EntriesPage;
}

export default function Prices({ language, first, entries }: Props) {
  return (
    <Speech language={language}>
      <Page view={first} first={entries} />
    </Speech>
  );
}

/** Which entries are shown. */
interface Wanted {
  list: string;
  day: string;
  family: string;
  find: string;
  page: number;
}

const placeOf = ({ sku, inside }: EntryView): string => `${sku} ${inside}`;

function Page({ view, first }: { view: PricesView; first: EntriesPage }) {
  const { t } = useSpeech();
  const [wanted, setWanted] = useState<Wanted>({
    list: view.lists[0]?.code ?? '',
    day: view.today,
    family: '',
    find: '',
    page: 0,
  });
  const [entries, setEntries] = useState(first);
  const [marked, setMarked] = useState<ReadonlyMap<string, EntryView>>(new Map());
  const [open, setOpen] = useState<EntryView | null>(null);
  const [dialog, setDialog] = useState<'putIn' | 'begin' | null>(null);
  const look = useLooking(setEntries);
  const list = view.lists.find(({ code }) => code === wanted.list);
  const want = (more: Partial<Wanted>): void => {
    const next = { ...wanted, page: 0, ...more };
    setWanted(next);
    look(next);
    if (next.list !== wanted.list || next.day !== wanted.day) {
      setMarked(new Map());
      setOpen(null);
    }
  };
  const mark = (row: EntryView): void =>
    setMarked((before) => {
      const next = new Map(before);
      if (!next.delete(placeOf(row))) next.set(placeOf(row), row);
      return next;
    });
  const all = entries.rows.length > 0 && entries.rows.every((row) => marked.has(placeOf(row)));
  const markAll = (): void =>
    setMarked(all ? new Map() : new Map(entries.rows.map((row) => [placeOf(row), row])));
  if (!list) return null;
  return (
    <div className={shared.page} data-aside={open !== null || undefined}>
      <PricesSide
        view={view}
        chosen={wanted.list}
        onList={(code) => want({ list: code })}
        onBegin={() => setDialog('begin')}
      />
      <div className={shared.main}>
        <Head
          view={view}
          list={list}
          wanted={wanted}
          count={entries.count}
          marked={marked.size}
          onWant={want}
          onPutIn={() => setDialog('putIn')}
        />
        <div className={css.table}>
          <Entries
            narrow={open !== null}
            rows={entries.rows}
            list={list}
            marked={marked}
            all={all}
            onMark={mark}
            onMarkAll={markAll}
            onOpen={setOpen}
          />
        </div>
        <Pager page={entries} onGo={(page) => want({ page })} />
      </div>
      {open && <EntryAside key={placeOf(open)} entry={open} list={list} onClose={() => setOpen(null)} />}
      {dialog === 'putIn' && (
        <PutIn
          view={view}
          list={list}
          family={wanted.family === '' ? null : wanted.family}
          find={wanted.find}
          count={entries.count}
          marked={[...marked.values()]}
          onClose={() => setDialog(null)}
        />
      )}
      {dialog === 'begin' && (
        <ChangeFields
          title={t('prices.begin')}
          act={t('prices.beginIt')}
          first={{ name: '', note: '', inForce: view.today }}
          today={view.today}
          onClose={() => setDialog(null)}
          onKeep={async (named) => {
            const made = await ask('POST /prices/changes', { input: named });
            if (made.ok) window.location.assign(`/prices/changes/${made.value.id}`);
            else say(sentences(made.failures, t('request.failed')), true);
          }}
        />
      )}
    </div>
  );
}

/** Fetches what is wanted; of several that are on their way the last one counts. */
function useLooking(onEntries: (page: EntriesPage) => void): (wanted: Wanted) => void {
  const { t } = useSpeech();
  const last = useRef(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  return useCallback(
    ({ list, day, family, find, page }: Wanted) => {
      clearTimeout(timer.current);
      const mine = (last.current += 1);
      timer.current = setTimeout(() => {
        void ask('GET /prices/lists/{list}', {
          at: { list },
          query: { day, page, ...(find === '' ? {} : { find }), ...(family === '' ? {} : { family }) },
        }).then((answer) => {
          if (last.current !== mine) return;
          if (answer.ok) onEntries(answer.value);
          else say(sentences(answer.failures, t('request.failed')), true);
        });
      }, 120);
    },
    [onEntries, t],
  );
}

function Head({
  view,
  list,
  wanted,
  count,
  marked,
  onWant,
  onPutIn,
}: {
  view: PricesView;
  list: ListHead;
  wanted: Wanted;
  count: number;
  marked: number;
  onWant: (more: Partial<Wanted>) => void;
  onPutIn: () => void;
}) {
  const { t, language } = useSpeech();
  const { day, family, find } = wanted;
  return (
    <div className={shared.head}>
      <h1>{own(list.name, language)}</h1>
      <span className={shared.quiet} role="status">
        {t('prices.count', { count })}
        {marked > 0 && ` · ${t('prices.marked', { count: marked })}`}
      </span>
      <div className={css.day}>
        <span aria-hidden>{t('prices.on')}</span>
        <DayField label={t('prices.on')} value={day} onPick={(next) => onWant({ day: next || view.today })} />
      </div>
      <Select
        label={t('prices.family')}
        value={family}
        options={[
          { value: '', text: t('prices.allFamilies') },
          ...view.families.map(({ code, name }) => ({ value: code, text: own(name, language) })),
        ]}
        onChange={(event) => onWant({ family: event.target.value })}
      />
      <div className={css.find}>
        <Field
          label={t('prices.find')}
          value={find}
          maxLength={100}
          onChange={(event) => onWant({ find: event.target.value })}
        />
      </div>
      <Menu
        label={t('prices.out')}
        items={(['xlsx', 'csv'] as const).map((format) => ({
          id: format,
          text: format.toUpperCase(),
          href: addressOf('GET /prices/lists/{list}/as.{format}', {
            at: { list: list.code, format },
            query: { day, ...(find === '' ? {} : { find }), ...(family === '' ? {} : { family }) },
          }),
          download: true,
        }))}
      >
        <Download size={14} aria-hidden /> {t('prices.out')}
      </Menu>
      <Button look="main" onClick={onPutIn}>
        <Percent size={14} aria-hidden />
        {t('prices.change')}
      </Button>
    </div>
  );
}

function Entries({
  narrow,
  rows,
  list,
  marked,
  all,
  onMark,
  onMarkAll,
  onOpen,
}: {
  /** What the aside tells is left out. */
  narrow: boolean;
  rows: readonly EntryView[];
  list: ListHead;
  marked: ReadonlyMap<string, EntryView>;
  all: boolean;
  onMark: (row: EntryView) => void;
  onMarkAll: () => void;
  onOpen: (row: EntryView) => void;
}) {
  const words = useSpeech();
  const { t, language } = words;
  const { decimals } = list;
  const columns = useMemo((): Column<EntryView>[] => {
    const late: Column<EntryView>[] = [
      {
        id: 'from',
        title: t('prices.from'),
        width: '118px',
        cell: ({ from }) => date(from, language),
      },
      {
        id: 'next',
        title: t('prices.follows'),
        width: '168px',
        cell: ({ next }) =>
          next && (
            <a href={`/prices/changes/${next.change}`}>
              {t('prices.next', {
                from: date(next.from, language),
                price: entryText(next.entry, decimals, words),
              })}
            </a>
          ),
      },
    ];
    return [
      {
        id: 'mark',
        title: '',
        width: '32px',
        cell: (row) => (
          <input
            type="checkbox"
            aria-label={t('prices.mark', { sku: row.sku })}
            checked={marked.has(placeOf(row))}
            onChange={() => onMark(row)}
          />
        ),
      },
      {
        id: 'sku',
        title: t('prices.column.sku'),
        width: '118px',
        kind: 'code',
        cell: (row) => (
          <button type="button" className={css.open} onClick={() => onOpen(row)}>
            {row.sku}
          </button>
        ),
      },
      {
        id: 'name',
        title: t('prices.column.name'),
        cell: ({ name, inside, drafts }) => (
          <>
            {own(name, language)}
            {inside !== '' && <span className={shared.quiet}> {t('prices.inside', { bundle: inside })}</span>}
            {drafts.length > 0 && (
              <a
                className={css.drafted}
                href={`/prices/changes/${drafts[0] ?? ''}`}
                title={t('prices.drafted')}
                aria-label={t('prices.drafted')}
              >
                ●
              </a>
            )}
          </>
        ),
      },
      {
        id: 'now',
        title: `${t('prices.column.price')}, ${list.currency}`,
        kind: 'figure',
        width: '210px',
        cell: ({ now }) => (
          <span title={entryText(now, decimals, words)}>{shortText(now, decimals, words)}</span>
        ),
      },
      {
        id: 'cost',
        title: t('prices.column.cost'),
        kind: 'figure',
        width: '92px',
        cell: ({ cost }) => money(cost, language, decimals),
      },
      {
        id: 'margin',
        title: t('prices.column.margin'),
        kind: 'figure',
        width: '72px',
        cell: ({ now, cost }) => marginText(now, cost, language),
      },
      ...(narrow ? [] : late),
    ];
  }, [t, language, words, decimals, list.currency, marked, onMark, onOpen, narrow]);
  return (
    <>
      <label className={css.markAll}>
        <input type="checkbox" checked={all} onChange={onMarkAll} /> {t('prices.markAll')}
      </label>
      <DataTable
        label={own(list.name, language)}
        columns={columns}
        rows={rows}
        rowId={placeOf}
        empty={t('prices.none')}
      />
    </>
  );
}
