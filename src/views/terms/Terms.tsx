import { useCallback, useMemo, useState } from 'react';
import { FlaskConical, History } from 'lucide-react';
import { termKinds, type TermKindId } from '../../core/terms';
import type { TermRowView, TermsView } from '../../contract';
import { Button, Dialog, say } from '../../ui';
import type { Row } from '../../ui/grid';
import { addressOf, ask, sentences, type Refusal } from '../api';
import { DayField } from '../parts/DayField';
import { Exchange } from '../parts/grid/Exchange';
import { Side, SideGroup, SideLink } from '../parts/side/Side';
import { useStays } from '../parts/useStays';
import { Speech, useSpeech } from '../speech';
import { WhatIf } from '../prices/WhatIf';
import { TermAside } from './TermAside';
import { TermGrid } from './TermGrid';
import { hasWrongCells, rowOfTerm, takeTerms, termChanges, type SentTerms } from './term-rows';
import { useTermColumns } from './useTermColumns';
import shared from '../parts/side/room-page.module.css';
import css from './terms.module.css';

interface Props {
  language: string;
  first: TermsView;
}

export default function Terms({ language, first }: Props) {
  return (
    <Speech language={language}>
      <Page first={first} />
    </Speech>
  );
}

const groups: readonly (readonly TermKindId[])[] = [
  ['agreements', 'promotions', 'quantityDiscounts'],
  ['limits', 'policies', 'commission'],
  ['tax', 'freight', 'workCentres', 'lists', 'customers'],
];

function Page({ first }: Pick<Props, 'first'>) {
  const { t, language } = useSpeech();
  const [view, setView] = useState(first);
  const { kind } = view;
  const { dated, tried } = termKinds[kind];
  const [past, setPast] = useState(false);
  const [from, setFrom] = useState(view.today);
  // The rows that the grid began with, and what it shows by now.
  const [begun, setBegun] = useState({ turn: 0, rows: rowsOf(first) });
  const [now, setNow] = useState<readonly Row[]>(begun.rows);
  const [cursor, setCursor] = useState<TermRowView | null>(null);
  const [aside, setAside] = useState(false);
  const [trying, setTrying] = useState<SentTerms | null>(null);
  const columns = useTermColumns(kind, view.choices);
  const changes = useMemo(() => termChanges(kind, view.rows, now), [kind, view.rows, now]);
  const changed = changes.rows.length + changes.gone.length;
  const wrong = useMemo(() => hasWrongCells(now), [now]);
  useStays(changed > 0);
  const show = (rows: readonly Row[]): void => {
    setBegun(({ turn }) => ({ turn: turn + 1, rows }));
    setNow(rows);
  };
  const took = (next: TermsView): void => {
    setView(next);
    show(rowsOf(next));
  };
  const refuse = (failures: readonly Refusal[]): void =>
    say(
      sentences(
        failures.map((each) => named(each, changes, view)),
        t('request.failed'),
      ),
      true,
    );
  const look = async (withPast: boolean): Promise<void> => {
    const answer = await ask('GET /terms/{kind}', { at: { kind }, query: { past: withPast ? 'yes' : 'no' } });
    if (answer.ok) took(answer.value);
    else refuse(answer.failures);
  };
  const keep = async (): Promise<void> => {
    const answer = await ask('PUT /terms/{kind}', { at: { kind }, input: { from, ...changes } });
    if (!answer.ok) {
      refuse(answer.failures);
      return;
    }
    say(t('house.kept'));
    if (past) await look(true);
    else took(answer.value);
  };
  const take = (sheet: string[][]): void => {
    const taken = takeTerms(kind, sheet, columns, now, {
      language,
      twoWays: (one, other) => t('cell.twoWays', { one, other }),
    });
    if (!taken) {
      say(t('terms.noTitles'), true);
      return;
    }
    const { fresh, different, same, unknown } = taken;
    show(taken.rows);
    say(
      [
        t('terms.came', { fresh, different, same }),
        ...(unknown.length > 0 ? [t('terms.unknownTitles', { titles: unknown.join(', ') })] : []),
      ].join(' '),
    );
  };
  return (
    <div className={shared.page} data-aside={(aside && cursor !== null) || undefined}>
      <Side label={t('place.terms')}>
        {groups.map((group, at) => (
          <SideGroup key={at} title={at === 0 ? t('terms.kinds') : ''}>
            {group.map((each) => (
              <SideLink key={each} chosen={each === kind} href={`/terms/${each}`}>
                {t(`terms.kind.${each}`)}
              </SideLink>
            ))}
          </SideGroup>
        ))}
      </Side>
      <div className={shared.main}>
        <div className={shared.head}>
          <div className={css.title}>
            <h1>{t(`terms.kind.${kind}`)}</h1>
            <p className={shared.quiet}>{t(`terms.says.${kind}`)}</p>
          </div>
          {dated && (
            <label className={shared.check}>
              <input
                type="checkbox"
                checked={past}
                disabled={changed > 0}
                onChange={(event) => {
                  setPast(event.target.checked);
                  void look(event.target.checked);
                }}
              />
              {t('terms.past')}
            </label>
          )}
          <Exchange
            out={(format) => addressOf('GET /terms/{kind}/as.{format}', { at: { kind, format } })}
            onRows={take}
          />
          <Button look="plain" aria-pressed={aside} onClick={() => setAside(!aside)}>
            <History size={14} aria-hidden />
            {t('terms.history')}
          </Button>
          {tried && (
            <Button disabled={wrong} onClick={() => setTrying(changes)}>
              <FlaskConical size={14} aria-hidden />
              {t('terms.try')}
            </Button>
          )}
        </div>
        <TermGrid key={begun.turn} view={view} rows={begun.rows} onRows={setNow} onCursor={setCursor} />
        <div className={shared.foot}>
          {dated && (
            <div className={css.day}>
              <span aria-hidden>{t('terms.changesFrom')}</span>
              <DayField
                label={t('terms.changesFrom')}
                value={from}
                min={view.today}
                onPick={(day) => setFrom(day || view.today)}
              />
            </div>
          )}
          <span role="status" className={wrong ? shared.wrong : shared.quiet}>
            {wrong ? t('house.toMend') : changed > 0 ? t('terms.changed', { count: changed }) : ''}
          </span>
          <Button disabled={changed === 0} onClick={() => show(rowsOf(view))}>
            {t('house.back')}
          </Button>
          <Button look="main" disabled={changed === 0 || wrong} onClick={() => void keep()}>
            {t('house.keep')}
          </Button>
        </div>
      </div>
      {aside && cursor && <TermAside view={view} row={cursor} />}
      {trying && (
        <Dialog title={t('terms.tried')} closeText={t('prices.close')} open onClose={() => setTrying(null)}>
          <div className={css.trying}>
            <Trial kind={kind} from={from} changes={trying} />
          </div>
        </Dialog>
      )}
    </div>
  );
}

const rowsOf = (view: TermsView): readonly Row[] => view.rows.map((row) => rowOfTerm(view.kind, row));

/** A refusal with what its row is called. */
function named(failure: Refusal, { rows, gone }: SentTerms, view: TermsView): Refusal {
  const [, of, at] = /^(rows|gone)\.(\d+)/.exec(failure.field ?? '') ?? [];
  if (at === undefined) return failure;
  const cells =
    of === 'rows' ? rows[Number(at)]?.cells : view.rows.find(({ id }) => id === gone[Number(at)]?.id)?.cells;
  const name = cells?.en ?? cells?.name ?? cells?.code ?? cells?.country ?? cells?.role;
  return name ? { ...failure, message: `${name}: ${failure.message}` } : failure;
}

/** Tries what is changed on open quotes, before it is kept. */
function Trial({ kind, from, changes }: { kind: TermKindId; from: string; changes: SentTerms }) {
  const look = useCallback(
    (job: string, query: object) => ask('GET /terms/tried/{job}', { at: { job }, query }),
    [],
  );
  return (
    <WhatIf
      begin={() => ask('POST /terms/{kind}/try', { at: { kind }, input: { from, ...changes } })}
      look={look}
      file={(job, format, query) =>
        addressOf('GET /terms/tried/{job}/as.{format}', { at: { job, format }, query })
      }
      there={null}
    />
  );
}
