import { useCallback, useEffect, useMemo, useState } from 'react';
import type { DraftView, ImpactView } from '../../../contract';
import { number } from '../../../i18n';
import { Button, DataTable, say, Select, type Column } from '../../../ui';
import { ask, sentences } from '../../api';
import { JobHere } from '../../parts/jobs/JobHere';
import { useJob } from '../../parts/jobs/useJob';
import { Pager } from '../../parts/Pager';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import { Exchange } from './Exchange';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  view: DraftView;
}

type ImpactRow = ImpactView['rows'][number];
const verdicts = ['lost', 'decide', 'other', 'same'] as const;
type Wanted = '' | (typeof verdicts)[number];

/** What a draft would change out there: worked out as a job, looked through by what becomes of each build. */
export function Impact({ draft, view }: Props) {
  const { t, language } = useSpeech();
  const job = useJob();
  const [seen, setSeen] = useState<ImpactView | null>(null);
  const [wanted, setWanted] = useState<Wanted>('');
  const { session } = draft;
  const work = async (): Promise<void> => {
    setSeen(null);
    await session.settled();
    const begun = await ask('POST /drafts/{id}/impact', {
      at: { id: view.id },
      input: { version: session.seen().version },
    });
    if (!begun.ok) {
      say(sentences(begun.failures, t('request.failed')), true);
      return;
    }
    // What was worked out already is shown, whoever asked for it and however long ago.
    const there = await ask('GET /drafts/{id}/impact', { at: { id: view.id }, query: { page: 0 } });
    if (there.ok) {
      setWanted('');
      setSeen(there.value);
    } else await job.begin(ask('GET /jobs/{id}', { at: { id: begun.value.job } }));
  };
  const state = job.job?.state;
  const look = useCallback(
    async (is: Wanted, page: number): Promise<void> => {
      const answer = await ask('GET /drafts/{id}/impact', {
        at: { id: view.id },
        query: { page, ...(is === '' ? {} : { is }) },
      });
      if (answer.ok) setSeen(answer.value);
      else say(sentences(answer.failures, t('request.failed')), true);
    },
    [view.id, t],
  );
  useEffect(() => {
    if (state !== 'done') return;
    // oxlint-disable-next-line react/set-state-in-effect -- it is asked for, and comes later
    void look('', 0);
  }, [state, look]);
  const columns = useMemo((): Column<ImpactRow>[] => {
    const rank = { lost: 0, decide: 1, other: 2, same: 3 };
    const both = (before: string, after: string): string =>
      before === after ? after : `${before} → ${after}`;
    return [
      {
        id: 'is',
        title: t('draft.release.what'),
        width: '12ch',
        cell: ({ is }) => t(`draft.release.is.${is}`),
        sort: ({ is }) => rank[is],
      },
      {
        id: 'at',
        title: t('draft.release.where'),
        cell: ({ at }) =>
          at.is === 'saved' ? (
            `${at.title} (${at.number})`
          ) : (
            <a
              href={at.is === 'quote' ? `/quotes/${at.id}` : `/orders/${at.id}`}
            >{`${at.number} ${at.title}`}</a>
          ),
        sort: ({ at }) => at.number,
      },
      {
        id: 'owner',
        title: t('draft.release.owner'),
        width: '18ch',
        cell: ({ owner }) => owner,
        sort: ({ owner }) => owner,
      },
      { id: 'rows', title: t('draft.release.rows'), cell: ({ rows, why }) => [...rows, ...why].join(', ') },
      {
        id: 'price',
        title: t('draft.release.price'),
        kind: 'figure',
        width: '22ch',
        cell: ({ price }) => both(number(price.before, language), number(price.after, language)),
        sort: ({ price }) => Number(price.after) - Number(price.before),
      },
      {
        id: 'number',
        title: t('draft.release.partNumber'),
        kind: 'code',
        width: '26ch',
        cell: ({ number: { before, after } }) => both(before, after),
      },
      {
        id: 'days',
        title: t('draft.release.days'),
        kind: 'figure',
        width: '9ch',
        cell: ({ leadDays }) => both(String(leadDays.before ?? '–'), String(leadDays.after ?? '–')),
      },
    ];
  }, [t, language]);
  return (
    <section className={css.block}>
      <h2 className={css.heading}>{t('draft.release.impact')}</h2>
      <div className={css.acts}>
        <Button disabled={draft.saving === 'refused'} onClick={() => void work()}>
          {t('draft.release.work')}
        </Button>
        {seen && <span className={css.quiet}>{t('draft.release.counts', { ...texts(seen.counts) })}</span>}
        {seen && (
          <Select
            label={t('draft.release.show')}
            value={wanted}
            options={[
              { value: '', text: t('draft.release.all') },
              ...verdicts.map((is) => ({
                value: is,
                text: `${t(`draft.release.is.${is}`)} (${String(seen.counts[is])})`,
              })),
            ]}
            onChange={({ target }) => {
              const next = verdicts.find((is) => is === target.value) ?? '';
              setWanted(next);
              void look(next, 0);
            }}
          />
        )}
        {seen && seen.count > 0 && <Exchange draft={view.id} part="impact" out={['xlsx', 'csv']} />}
      </div>
      {state !== 'done' && <JobHere here={job} />}
      {seen && (
        <div className={css.impact}>
          <DataTable
            label={t('draft.release.impact')}
            columns={columns}
            rows={seen.rows}
            rowId={({ build }) => build}
            empty={t('draft.release.noBuilds')}
          />
          <Pager page={seen} onGo={(page) => void look(wanted, page)} />
        </div>
      )}
    </section>
  );
}

const texts = (counts: ImpactView['counts']): Record<string, string> =>
  Object.fromEntries(Object.entries(counts).map(([name, count]) => [name, String(count)]));
