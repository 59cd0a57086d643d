import { FileDown } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import type { AskedJob, WhatIfDocument, WhatIfQuery, WhatIfView } from '../../contract';
import { exact } from '../../core/exact';
import { money } from '../../i18n';
import { Button, DataTable, LinkButton, say, Select, type Column } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { JobHere } from '../parts/jobs/JobHere';
import { useJob } from '../parts/jobs/useJob';
import { Pager } from '../parts/Pager';
import { useSpeech } from '../speech';
import { percentText } from './entry-words';
import css from './what-if.module.css';

interface Props {
  /** Begins to work it out. */
  begin: () => Promise<Answer<AskedJob>>;
  /** A page of what was worked out; refused where nothing was. */
  look: (job: string, query: Partial<WhatIfQuery>) => Promise<Answer<WhatIfView>>;
  /** The job whose work is there already. */
  there: string | null;
  /** Where it is to be had as a file. */
  file: (job: string, format: 'csv' | 'xlsx', query: Partial<WhatIfQuery>) => string;
  /** Called once something is shown. */
  onSeen?: () => void;
}

const verdicts = ['decide', 'other', 'same'] as const;
type Wanted = '' | (typeof verdicts)[number];

/**
 * What something would do to open quotes and to what was sold: worked out as a job, looked through document by
 * document.
 */
export function WhatIf({ begin, look, there, file, onSeen }: Props) {
  const { t, language } = useSpeech();
  const job = useJob();
  const [seen, setSeen] = useState<WhatIfView | null>(null);
  const [wanted, setWanted] = useState<Wanted>('');
  const [of, setOf] = useState(there);
  const show = useCallback(
    async (id: string, is: Wanted, page: number): Promise<void> => {
      const answer = await look(id, { page, ...(is === '' ? {} : { is }) });
      if (answer.ok) {
        setSeen(answer.value);
        onSeen?.();
      } else say(sentences(answer.failures, t('request.failed')), true);
    },
    [look, onSeen, t],
  );
  useEffect(() => {
    if (there !== null) void show(there, '', 0);
    // oxlint-disable-next-line react/exhaustive-deps -- it is looked at once; what is asked for later says so
  }, []);
  const state = job.job?.state;
  const id = job.job?.id ?? '';
  useEffect(() => {
    if (state !== 'done') return;
    void show(id, '', 0);
  }, [state, id, show]);
  const work = async (): Promise<void> => {
    setSeen(null);
    setWanted('');
    const asked = await begin();
    if (!asked.ok) {
      say(sentences(asked.failures, t('request.failed')), true);
      return;
    }
    setOf(asked.value.job);
    await job.begin(ask('GET /jobs/{id}', { at: { id: asked.value.job } }));
  };
  const columns = useColumns(language);
  return (
    <section className={css.whatIf}>
      <div className={css.acts}>
        <Button look={seen ? 'plain' : 'main'} onClick={() => void work()}>
          {t(seen ? 'change.again' : 'change.work')}
        </Button>
        {seen && (
          <span role="status">
            {t('change.counts', {
              decide: seen.counts.decide,
              other: seen.counts.other,
              same: seen.counts.same,
            })}
          </span>
        )}
        {seen && (
          <Select
            label={t('change.show')}
            value={wanted}
            options={[
              { value: '', text: t('change.showAll') },
              ...verdicts.map((is) => ({
                value: is,
                text: `${t(`change.is.${is}`)} (${String(seen.counts[is])})`,
              })),
            ]}
            onChange={({ target }) => {
              const next = verdicts.find((is) => is === target.value) ?? '';
              setWanted(next);
              void show(of ?? '', next, 0);
            }}
          />
        )}
        {seen &&
          (['csv', 'xlsx'] as const).map((format) => (
            <LinkButton
              key={format}
              look="plain"
              href={file(of ?? '', format, wanted === '' ? {} : { is: wanted })}
            >
              <FileDown size={14} aria-hidden /> {format.toUpperCase()}
            </LinkButton>
          ))}
      </div>
      {state !== 'done' && <JobHere here={job} />}
      {seen && (
        <>
          <Sums seen={seen} />
          <div className={css.documents}>
            <DataTable
              label={t('change.impact')}
              columns={columns}
              rows={seen.rows}
              rowId={({ at }) => `${at.is} ${at.id}`}
              empty={t('change.noDocuments')}
            />
          </div>
          <Pager page={seen} onGo={(page) => void show(of ?? '', wanted, page)} />
        </>
      )}
    </section>
  );
}

/** What all of it comes to, by currency. */
function Sums({ seen }: { seen: WhatIfView }) {
  const { t, language } = useSpeech();
  return (
    <dl className={css.sums}>
      {(['open', 'sold'] as const).flatMap((which) =>
        seen[which].map(({ currency, decimals, before, after }) => (
          <div key={`${which} ${currency}`}>
            <dt>{t(`change.${which}Sum`)}</dt>
            <dd>
              {money(before, language, decimals)} → <strong>{money(after, language, decimals)}</strong>{' '}
              {currency}
              <span className={css.quiet}>
                {' '}
                {exact(before).isZero()
                  ? ''
                  : percentText(exact(after).div(before).minus(1).toString(), language, true)}
              </span>
            </dd>
          </div>
        )),
      )}
    </dl>
  );
}

function useColumns(language: string): Column<WhatIfDocument>[] {
  const { t } = useSpeech();
  return useMemo(() => {
    const rank = { decide: 0, other: 1, same: 2 };
    const both = (before: string, after: string): string =>
      before === after ? after : `${before} → ${after}`;
    const roles = (names: readonly string[]): string =>
      names.map((role) => t(`role.${role}` as 'role.manager')).join(', ') || '–';
    const percent = (share: string | null): string => (share === null ? '–' : percentText(share, language));
    return [
      {
        id: 'is',
        title: t('change.what'),
        width: '140px',
        cell: ({ is }) => t(`change.is.${is}`),
        sort: ({ is }) => rank[is],
      },
      {
        id: 'at',
        title: t('change.where'),
        width: '26%',
        cell: ({ at }) => (
          <a
            href={at.is === 'quote' ? `/quotes/${at.id}` : `/orders/${at.id}`}
          >{`${at.number} ${at.title}`}</a>
        ),
        sort: ({ at }) => at.number,
      },
      {
        id: 'customer',
        title: t('change.customer'),
        cell: ({ customer }) => customer,
        sort: ({ customer }) => customer,
      },
      {
        id: 'owner',
        title: t('change.owner'),
        width: '130px',
        cell: ({ owner }) => owner,
        sort: ({ owner }) => owner,
      },
      {
        id: 'net',
        title: t('change.net'),
        kind: 'figure',
        width: '210px',
        cell: ({ net, decimals, currency }) =>
          `${both(money(net.before, language, decimals), money(net.after, language, decimals))} ${currency}`,
        sort: ({ net }) => Number(net.after) - Number(net.before),
      },
      {
        id: 'margin',
        title: t('change.margin'),
        kind: 'figure',
        width: '128px',
        cell: ({ margin }) => both(percent(margin.before), percent(margin.after)),
        sort: ({ margin }) => Number(margin.after ?? 0),
      },
      {
        id: 'signs',
        title: t('change.signs'),
        width: '170px',
        cell: ({ signs }) => both(roles(signs.before), roles(signs.after)),
      },
    ];
  }, [t, language]);
}
