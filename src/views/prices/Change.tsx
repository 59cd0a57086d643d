import { useCallback, useEffect, useRef, useState } from 'react';
import { ArrowLeft, Pencil, Redo2, Trash2, Undo2 } from 'lucide-react';
import type { ChangeRowView, PriceChangeView, PricesView } from '../../contract';
import { date } from '../../i18n';
import { Button, Dialog, DialogFoot, LinkButton, say, Tabs } from '../../ui';
import { addressOf, ask, sentences, type Answer, type Refusal } from '../api';
import { useStays } from '../parts/useStays';
import { Pager } from '../parts/Pager';
import { Speech, useSpeech } from '../speech';
import { ChangeFields } from './ChangeFields';
import { ChangeGrid } from './ChangeGrid';
import { ChangeMeans } from './ChangeMeans';
import { ChangeSumsRow } from './ChangeSumsRow';
import { EntryEditor } from './EntryEditor';
import type { SentRows, Shown } from './change-rows';
import { WhatIf } from './WhatIf';
import css from './change.module.css';

interface Props {
  language: string;
  first: PriceChangeView;
  prices: PricesView;
}

export default function Change({ language, first, prices }: Props) {
  return (
    <Speech language={language}>
      <Page first={first} prices={prices} />
    </Speech>
  );
}

const none: SentRows = { rows: [], out: [] };
const changedIn = ({ rows, out }: SentRows): number => rows.length + out.length;

function Page({ first, prices }: Omit<Props, 'language'>) {
  const { t, language } = useSpeech();
  const change = useChange(first);
  const { view, shown, turn, changes } = change;
  const { head } = view;
  const [tab, setTab] = useState<'entries' | 'impact'>('entries');
  const [cursor, setCursor] = useState<ChangeRowView | null>(null);
  const [editing, setEditing] = useState<ChangeRowView | null>(null);
  const [dialog, setDialog] = useState<'edit' | 'drop' | 'publish' | 'withdraw' | null>(null);
  const unkept = changedIn(changes);
  useStays(unkept > 0);
  const list = shown.list ?? view.lists[0]?.code ?? '';
  const listOf = (code: string) => view.lists.find((each) => each.code === code) ?? view.lists[0];
  const editingList = editing && listOf(editing.list);
  const done =
    (said: string) =>
    (answer: Answer<PriceChangeView>): void => {
      setDialog(null);
      if (change.took(answer)) say(said);
    };
  return (
    <div className={css.page}>
      <header className={css.head}>
        <LinkButton look="plain" href="/prices" aria-label={t('change.back')}>
          <ArrowLeft size={15} aria-hidden />
        </LinkButton>
        <h1>{head.name}</h1>
        <span className={css.stand} data-stand={head.stand}>
          {t(`prices.stand.${head.stand}`, { from: date(head.inForce, language) })}
        </span>
        {head.stand === 'draft' && (
          <span>
            {t('prices.inForce')} {date(head.inForce, language)}
          </span>
        )}
        <span className={css.note}>{head.note}</span>
        {view.may.edit && (
          <>
            <Button look="plain" onClick={() => setDialog('edit')}>
              <Pencil size={14} aria-hidden />
              {t('change.edit')}
            </Button>
            <Button look="plain" onClick={() => setDialog('drop')}>
              <Trash2 size={14} aria-hidden />
              {t('change.drop')}
            </Button>
          </>
        )}
      </header>
      <div className={css.tabs}>
        <Tabs
          label={head.name}
          panel="change-panel"
          chosen={tab}
          tabs={[
            { id: 'entries', text: t('change.entries') },
            { id: 'impact', text: t('change.impact') },
          ]}
          onChoose={setTab}
        />
        <ChangeSumsRow sums={view.sums} only={shown.only} onOnly={(only) => change.show({ only, page: 0 })} />
      </div>
      <div
        id="change-panel"
        role="tabpanel"
        className={css.panel}
        data-aside={(tab === 'entries' && editing !== null) || undefined}
      >
        {tab === 'entries' ? (
          <>
            <div className={css.entries}>
              <ChangeMeans
                view={view}
                prices={prices}
                shown={shown}
                list={list}
                unkept={unkept > 0}
                onShow={change.show}
                onTook={change.took}
              />
              <ChangeGrid
                key={turn}
                views={view.rows}
                lists={view.lists}
                list={list}
                fixed={!view.may.edit}
                onChanges={change.setChanges}
                onCursor={setCursor}
              />
              <Pager page={view} onGo={(page) => change.show({ page })} />
            </div>
            {editing && editingList && (
              <EntryEditor
                key={`${editing.place} ${String(turn)}`}
                row={editing}
                list={editingList}
                onClose={() => setEditing(null)}
                onPut={async (cells) => {
                  const { list: of, sku, inside } = editing;
                  const others = changes.rows.filter(
                    (row) => row.list !== of || row.sku !== sku || row.inside !== inside,
                  );
                  if (await change.keep({ ...changes, rows: [...others, { list: of, sku, inside, cells }] }))
                    setEditing(null);
                }}
              />
            )}
          </>
        ) : (
          <Impact view={view} onSeen={change.again} />
        )}
      </div>
      <footer className={css.foot}>
        {tab === 'entries' && cursor && view.may.edit && (
          <Button look="plain" onClick={() => setEditing(cursor)}>
            <Pencil size={14} aria-hidden />
            {t('change.editRow', { sku: cursor.sku })}
          </Button>
        )}
        <span role="status">
          {unkept > 0 ? t('change.changedRows', { count: unkept }) : view.may.edit ? toPublish(view, t) : ''}
        </span>
        {view.may.edit && (
          <>
            {(['undo', 'redo'] as const).map((way) => (
              <Step
                key={way}
                way={way}
                steps={view.steps}
                unkept={unkept > 0}
                onStep={(to) => void change.step(to)}
              />
            ))}
            <Button disabled={unkept === 0} onClick={() => change.show({})}>
              {t('house.back')}
            </Button>
            <Button
              look={unkept > 0 ? 'main' : undefined}
              disabled={unkept === 0}
              onClick={() => void change.keep(changes)}
            >
              {t('change.keepRows')}
            </Button>
            <Button
              look={unkept > 0 ? undefined : 'main'}
              disabled={unkept > 0 || !view.may.publish || !view.impact?.seen}
              onClick={() => setDialog('publish')}
            >
              {t('change.publish')}
            </Button>
          </>
        )}
        {view.may.withdraw && <Button onClick={() => setDialog('withdraw')}>{t('change.withdraw')}</Button>}
      </footer>
      {dialog === 'edit' && (
        <ChangeFields
          title={t('change.edit')}
          act={t('change.keepRows')}
          first={head}
          today={prices.today}
          onClose={() => setDialog(null)}
          onKeep={async ({ name, inForce, note }) =>
            done(t('house.kept'))(
              await ask('PUT /prices/changes/{id}', {
                at: { id: head.id },
                input: { version: head.version, name, inForce, note },
              }),
            )
          }
        />
      )}
      {dialog === 'drop' && (
        <Asked
          question={t('change.dropAsk', { name: head.name, count: head.rows })}
          act={t('change.drop')}
          onClose={() => setDialog(null)}
          onYes={async () => {
            const answer = await ask('DELETE /prices/changes/{id}', {
              at: { id: head.id },
              input: { version: head.version },
            });
            if (answer.ok) window.location.assign('/prices');
            else say(sentences(answer.failures, t('request.failed')), true);
          }}
        />
      )}
      {dialog === 'publish' && (
        <Asked
          question={t('change.publishAsk', {
            name: head.name,
            from: date(head.inForce, language),
            count: head.rows,
          })}
          act={t('change.publish')}
          onClose={() => setDialog(null)}
          onYes={async () =>
            done(t('change.published', { from: date(head.inForce, language) }))(
              await ask('POST /prices/changes/{id}/publish', {
                at: { id: head.id },
                input: { version: head.version },
              }),
            )
          }
        />
      )}
      {dialog === 'withdraw' && (
        <Asked
          question={t('change.withdrawAsk', { name: head.name })}
          act={t('change.withdraw')}
          onClose={() => setDialog(null)}
          onYes={async () =>
            done(t('change.withdrawn'))(
              await ask('POST /prices/changes/{id}/withdraw', {
                at: { id: head.id },
                input: { version: head.version },
              }),
            )
          }
        />
      )}
    </div>
  );
}

/** What it still takes before it can be published. */
function toPublish(
  { sums, head, impact, may }: PriceChangeView,
  t: ReturnType<typeof useSpeech>['t'],
): string {
  if (sums.rows === 0) return t('change.toPublish.empty');
  if (sums.wrong > 0) return t('change.toPublish.wrong');
  if (!may.publish && head.stand === 'draft') return t('change.toPublish.past');
  return impact?.seen === true ? t('change.toPublish.ready') : t('change.toPublish.unseen');
}

function Impact({ view: { head, impact }, onSeen }: { view: PriceChangeView; onSeen: () => void }) {
  const { id, version, stand } = head;
  const look = useCallback(
    (_: string, query: object) => ask('GET /prices/changes/{id}/impact', { at: { id }, query }),
    [id],
  );
  return (
    <WhatIf
      begin={() => ask('POST /prices/changes/{id}/impact', { at: { id }, input: { version } })}
      look={look}
      file={(_, format, query) =>
        addressOf('GET /prices/changes/{id}/impact/as.{format}', { at: { id, format }, query })
      }
      there={impact && (impact.current || stand !== 'draft') ? impact.job : null}
      onSeen={onSeen}
    />
  );
}

/** Takes the last step back, or does it again; told with whose it was. */
function Step({
  way,
  steps,
  unkept,
  onStep,
}: {
  way: 'undo' | 'redo';
  steps: PriceChangeView['steps'];
  unkept: boolean;
  onStep: (way: 'undo' | 'redo') => void;
}) {
  const { t } = useSpeech();
  const step = steps[way];
  const Icon = way === 'undo' ? Undo2 : Redo2;
  const label = step
    ? t(`change.${way}Step`, { what: t(`change.step.${step.what}`), by: step.by })
    : t(`change.${way}`);
  return (
    <Button
      look="plain"
      aria-label={label}
      title={label}
      disabled={unkept || !step}
      onClick={() => onStep(way)}
    >
      <Icon size={16} aria-hidden />
    </Button>
  );
}

/** Asks once more before something that cannot be undone here. */
function Asked({
  question,
  act,
  onClose,
  onYes,
}: {
  question: string;
  act: string;
  onClose: () => void;
  onYes: () => Promise<void>;
}) {
  const { t } = useSpeech();
  const [busy, setBusy] = useState(false);
  return (
    <Dialog title={act} closeText={t('prices.close')} open onClose={onClose}>
      <p className={css.question}>{question}</p>
      <DialogFoot>
        <Button
          look="main"
          disabled={busy}
          onClick={() => {
            setBusy(true);
            void onYes().then(() => setBusy(false));
          }}
        >
          {act}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}

/** A price change as it is kept, which rows of it are shown, and what is done to these and not kept yet. */
function useChange(first: PriceChangeView) {
  const { t } = useSpeech();
  const [view, setView] = useState(first);
  const [shown, setShown] = useState<Shown>({ find: '', page: 0 });
  const [turn, setTurn] = useState(0);
  const [changes, setChanges] = useState<SentRows>(none);
  const last = useRef(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const { id } = first.head;
  const refuse = (failures: readonly Refusal[]): void => say(sentences(failures, t('request.failed')), true);
  const begin = (next: PriceChangeView): void => {
    setView(next);
    setChanges(none);
    setTurn((before) => before + 1);
  };
  const look = async (wanted: Shown): Promise<void> => {
    const mine = (last.current += 1);
    const { list, family, only, find, page } = wanted;
    const answer = await ask('GET /prices/changes/{id}', {
      at: { id },
      query: { list, family, only, find, page },
    });
    if (last.current !== mine) return;
    if (answer.ok) begin(answer.value);
    else refuse(answer.failures);
  };
  const show = (more: Partial<Shown>): void => {
    const next = { ...shown, ...more };
    setShown(next);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void look(next), more.find === undefined ? 0 : 150);
  };
  /** What was answered to something that changed it; another page of it is looked at as it was. */
  const took = (answer: Answer<PriceChangeView>): boolean => {
    if (!answer.ok) {
      refuse(answer.failures);
      if (answer.failures.some(({ code }) => code === 'change.stale')) void look(shown);
      return false;
    }
    void look(shown);
    return true;
  };
  return {
    view,
    shown,
    turn,
    changes,
    setChanges,
    show,
    took,
    /** Reads it anew where nothing would be lost. */
    again: useCallback(() => {
      void ask('GET /prices/changes/{id}', { at: { id } }).then((answer) => {
        if (answer.ok)
          setView((before) => ({
            ...before,
            head: answer.value.head,
            impact: answer.value.impact,
            may: answer.value.may,
          }));
      });
    }, [id]),
    step: async (way: 'undo' | 'redo'): Promise<void> => {
      const input = { version: view.head.version };
      const at = { id };
      took(
        way === 'undo'
          ? await ask('POST /prices/changes/{id}/undo', { at, input })
          : await ask('POST /prices/changes/{id}/redo', { at, input }),
      );
    },
    keep: async ({ rows, out }: SentRows): Promise<boolean> => {
      const answer = await ask('PUT /prices/changes/{id}/rows', {
        at: { id },
        input: { version: view.head.version, rows, out },
      });
      if (answer.ok) return took(answer);
      // Each refusal is told with the item that it is about.
      const named = answer.failures.map((each) => {
        const [, at] = /^rows\.(\d+)\./.exec(each.field ?? '') ?? [];
        const sku = at === undefined ? undefined : rows[Number(at)]?.sku;
        return sku === undefined ? each : { ...each, message: `${sku}: ${each.message}` };
      });
      refuse(named);
      return false;
    },
  };
}
