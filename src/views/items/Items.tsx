import { useEffect, useMemo, useState } from 'react';
import { ArrowRight, FolderPlus, Pencil } from 'lucide-react';
import type { FamilyView, ItemRowView, ItemsView } from '../../contract';
import { foundBy } from '../../core/finding';
import { own } from '../../i18n';
import { classes, Button, Field, LinkButton, say, useLatest } from '../../ui';
import { addressOf, ask, sentences, type Refusal } from '../api';
import { Side, SideEntry, SideGroup } from '../parts/side/Side';
import { JobHere } from '../parts/jobs/JobHere';
import { useJob, type JobHere as JobHereOf } from '../parts/jobs/useJob';
import { useStays } from '../parts/useStays';
import { Speech, useSpeech } from '../speech';
import { branchesOf, within } from './families';
import { Exchange } from '../parts/grid/Exchange';
import { FamilySheet } from './FamilySheet';
import { ItemRows } from './ItemRows';
import { hasWrong, noChanges, rowOf, sentRow, type RowChanges } from './item-rows';
import { takenFrom } from './item-sheet';
import { useItemColumns } from './useItemColumns';
import type { Row } from '../../ui/grid';
import shared from '../parts/side/room-page.module.css';
import css from './items.module.css';

interface Props {
  language: string;
  first: ItemsView;
}

export default function Items({ language, first }: Props) {
  return (
    <Speech language={language}>
      <Page first={first} />
    </Speech>
  );
}

/** Which items are shown. */
interface Filter {
  family: string | null;
  find: string;
  /** Those alone that are not kept yet. */
  only: boolean;
}

const textsOf = ({ sku, name }: ItemRowView): readonly string[] => [sku, ...Object.values(name)];

function Page({ first }: Pick<Props, 'first'>) {
  const { t } = useSpeech();
  const [view, setView] = useState(first);
  const [filter, setFilter] = useState<Filter>({ family: null, find: '', only: false });
  // What was done before the rows that are shown now, and what is done by now with these.
  const [held, setHeld] = useState({ changes: noChanges, turn: 0 });
  const [now, setNow] = useState(noChanges);
  const [cursor, setCursor] = useState<string | null>(null);
  useOpening(cursor);
  const [sheet, setSheet] = useState<string | null>(null);
  const items = useMemo(() => new Map(view.items.map((item) => [item.sku, item])), [view.items]);
  const rows = useMemo(() => shownRows(view, filter, held.changes), [view, filter, held.changes]);
  const changed = now.changed.size + now.gone.size;
  useStays(changed > 0);
  const show = (next: Filter): void => {
    setHeld({ changes: now, turn: held.turn + 1 });
    setFilter(next);
  };
  const begin = (next: ItemsView): void => {
    setView(next);
    setFilter((was) => ({ ...was, only: false }));
    setHeld({ changes: noChanges, turn: held.turn + 1 });
    setNow(noChanges);
  };
  const job = useJob();
  const keep = useKeeping(items, now, begin, job);
  const takeSheet = useSheet(view, items, (changes) => {
    setHeld({ changes, turn: held.turn + 1 });
    setNow(changes);
    setFilter({ family: null, find: '', only: true });
  });
  return (
    <div className={classes(shared.page, css.beside)} data-sheet={sheet !== null || undefined}>
      <FamilyTree
        families={view.families}
        chosen={filter.family}
        onChoose={(family) => show({ ...filter, family })}
        onSheet={setSheet}
      />
      <div className={shared.main}>
        <div className={shared.head}>
          <h1>{t('place.items')}</h1>
          <span className={shared.quiet}>{t('items.count', { count: rows.length })}</span>
          {(changed > 0 || filter.only) && (
            <label className={shared.check}>
              <input
                type="checkbox"
                checked={filter.only}
                onChange={(event) => show({ ...filter, only: event.target.checked })}
              />
              {t('items.only')}
            </label>
          )}
          <Exchange
            out={(format) => addressOf('GET /catalogue/items.{format}', { at: { format } })}
            onRows={(sheet) => takeSheet(sheet, now)}
          />
          <div className={css.find}>
            <Field
              label={t('items.find')}
              value={filter.find}
              onChange={(event) => show({ ...filter, find: event.target.value })}
            />
          </div>
        </div>
        <ItemRows
          key={held.turn}
          rows={rows}
          items={items}
          families={view.families}
          before={held.changes}
          family={filter.family}
          onChanges={setNow}
          onCursor={setCursor}
        />
        <div className={shared.foot}>
          {cursor !== null && (
            <LinkButton look="plain" href={pathOf(cursor)} title="Alt+Enter">
              {t('items.open', { sku: cursor })}
              <ArrowRight size={14} aria-hidden />
            </LinkButton>
          )}
          <span role="status" className={hasWrong(now) ? shared.wrong : shared.quiet}>
            {hasWrong(now) ? t('house.toMend') : changed > 0 ? t('items.changed', { count: changed }) : ''}
          </span>
          <JobHere here={job} />
          <Button disabled={changed === 0} onClick={() => begin(view)}>
            {t('house.back')}
          </Button>
          <Button look="main" disabled={changed === 0 || hasWrong(now)} onClick={() => void keep()}>
            {t('house.keep')}
          </Button>
        </div>
      </div>
      {sheet !== null && (
        <FamilySheet
          key={`${sheet} ${String(view.families.find(({ code }) => code === sheet)?.version)}`}
          code={sheet}
          families={view.families}
          onClose={() => setSheet(null)}
          onKept={(next, code) => {
            setView(next);
            setSheet(code);
          }}
        />
      )}
    </div>
  );
}

/** The rows of a filter, as they were changed; what is new stays in sight. */
function shownRows(view: ItemsView, { family, find, only }: Filter, { changed, gone }: RowChanges): Row[] {
  if (only) return [...changed.values()];
  const codes = family === null ? null : within(view.families, family);
  const found = foundBy(view.items, find, textsOf).filter(
    (item) => (codes === null || codes.has(item.family)) && !gone.has(item.sku),
  );
  const known = new Set(view.items.map(({ sku }) => sku));
  return [
    ...found.map((item) => changed.get(item.sku) ?? rowOf(item)),
    ...[...changed.values()].filter(({ id }) => !known.has(id)),
  ];
}

/** Takes the rows of a sheet as changes that are not kept yet, and says what they come to. */
function useSheet(
  view: ItemsView,
  items: ReadonlyMap<string, ItemRowView>,
  onTaken: (changes: RowChanges) => void,
): (sheet: string[][], before: RowChanges) => void {
  const { t, language } = useSpeech();
  const columns = useItemColumns(view.families);
  return (sheet, before) => {
    const taken = takenFrom(sheet, columns, items, before, {
      twice: (sku) => t('item.twice', { sku }),
      twoWays: (one, other) => t('items.twoWays', { one, other }),
      language,
    });
    if (typeof taken === 'string') {
      say(t(`items.sheet.${taken}`), true);
      return;
    }
    const { changes, fresh, different, same, unknown } = taken;
    onTaken(changes);
    say(
      [
        t('items.sheet.came', { fresh, different, same }),
        ...(unknown.length > 0 ? [t('items.sheet.unknown', { titles: unknown.join(', ') })] : []),
      ].join(' '),
    );
  };
}

const pathOf = (sku: string): string => `/items/${encodeURIComponent(sku)}`;

/** Opens the item of the row with the cursor by a key. */
function useOpening(sku: string | null): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (!event.altKey || event.key !== 'Enter' || sku === null) return;
      event.preventDefault();
      window.location.assign(pathOf(sku));
    };
    window.addEventListener('keydown', press, { capture: true });
    return () => window.removeEventListener('keydown', press, { capture: true });
  }, [sku]);
}

/** So many rows are kept while somebody waits; more in the background. */
const mostAtOnce = 1000;

/** Sends what was done: rows all or none, and then what is taken away one by one. */
function useKeeping(
  items: ReadonlyMap<string, ItemRowView>,
  { changed, gone }: RowChanges,
  begin: (view: ItemsView) => void,
  job: JobHereOf,
): () => Promise<void> {
  const { t } = useSpeech();
  const state = job.job?.state;
  // What was kept in the background is shown once it is.
  const shown = useLatest(begin);
  useEffect(() => {
    if (state !== 'done') return;
    void ask('GET /catalogue/items').then((answer) => {
      if (answer.ok) shown.current(answer.value);
    });
  }, [state, shown]);
  const tell = (failures: readonly Refusal[], nameOf: (failure: Refusal) => string): void =>
    say(
      sentences(
        failures.map((each) => ({ ...each, message: `${nameOf(each)}${each.message}` })),
        t('request.failed'),
      ),
      true,
    );
  return async () => {
    let view: ItemsView | null = null;
    const rows = [...changed.values()].map((row) => sentRow(row, items.get(row.id)));
    if (rows.length > mostAtOnce && gone.size === 0) {
      const asked = await ask('POST /catalogue/items/job', { input: { rows } });
      if (asked.ok) await job.begin(ask('GET /jobs/{id}', { at: { id: asked.value.job } }));
      else tell(asked.failures, () => '');
      return;
    }
    if (rows.length > 0) {
      const answer = await ask('PUT /catalogue/items', { input: { rows } });
      if (!answer.ok) {
        tell(answer.failures, ({ field = '' }) => {
          const [, at] = /^rows\.(\d+)\./.exec(field) ?? [];
          const sku = at === undefined ? undefined : rows[Number(at)]?.sku;
          return sku === undefined ? '' : `${sku}: `;
        });
        return;
      }
      view = answer.value;
    }
    const refused: Refusal[] = [];
    for (const sku of gone) {
      const version = items.get(sku)?.version ?? 0;
      const answer = await ask('DELETE /catalogue/items/{sku}', { at: { sku }, input: { version } });
      if (answer.ok) view = answer.value;
      else refused.push(...answer.failures);
    }
    if (view === null && refused.length > 0) {
      const again = await ask('GET /catalogue/items');
      if (again.ok) view = again.value;
    }
    if (view) begin(view);
    if (refused.length > 0) tell(refused, () => '');
    else say(t('house.kept'));
  };
}

/** The families as a tree, each with how many items are in it, and the ways to change them. */
function FamilyTree({
  families,
  chosen,
  onChoose,
  onSheet,
}: {
  families: readonly FamilyView[];
  chosen: string | null;
  onChoose: (family: string | null) => void;
  onSheet: (code: string) => void;
}) {
  const { t, language } = useSpeech();
  const branches = useMemo(() => branchesOf(families), [families]);
  const all = families.reduce((sum, { items }) => sum + items, 0);
  return (
    <Side label={t('items.families')}>
      <SideGroup
        title={t('items.families')}
        act={
          <>
            {chosen !== null && (
              <Button
                look="plain"
                aria-label={t('items.changeFamily', {
                  family: own(families.find(({ code }) => code === chosen)?.name ?? {}, language),
                })}
                title={t('items.changeThis')}
                onClick={() => onSheet(chosen)}
              >
                <Pencil size={14} aria-hidden />
              </Button>
            )}
            <Button
              look="plain"
              aria-label={t('items.addFamily')}
              title={t('items.addFamily')}
              onClick={() => onSheet('')}
            >
              <FolderPlus size={15} aria-hidden />
            </Button>
          </>
        }
      >
        <SideEntry chosen={chosen === null} count={all} onChoose={() => onChoose(null)}>
          {t('items.all')}
        </SideEntry>
        {branches.map(({ family, depth, count }) => (
          <SideEntry
            key={family.code}
            depth={depth}
            chosen={chosen === family.code}
            count={count}
            onChoose={() => onChoose(family.code)}
          >
            {own(family.name, language)}
          </SideEntry>
        ))}
      </SideGroup>
    </Side>
  );
}
