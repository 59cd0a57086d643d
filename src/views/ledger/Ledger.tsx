import { useRef, useState, type RefObject } from 'react';
import type { Figure } from '../../core/pricing';
import type { Address, LedgerColumn, LineView, QuoteView } from '../../contract';
import { LinkButton, say } from '../../ui';
import { ask } from '../api';
import { useLive } from '../parts/useLive';
import { Speech, useSpeech } from '../speech';
import { Dialogs } from './Dialogs';
import { AddItem, type RefusedItem } from './grid/AddItem';
import { Lines, type LinesHandle } from './grid/Lines';
import { Marked } from './grid/Marked';
import { Head, type HeadDialog } from './Head';
import { useBeginInLines, useStepKeys } from './keys';
import css from './ledger.module.css';
import { useQuote, type QuoteActs } from './session/useQuote';
import { Addressed } from './side/Addressed';
import { Side } from './side/Side';
import { type SideView } from './side/side-view';
import { brokenIn, Totals } from './side/Totals';
import { isOlder, newestOf, told, useLedgerActs, type LedgerActs } from './useLedgerActs';

interface Props {
  language: string;
  view: QuoteView;
  models: { id: string; name: Record<string, string> }[];
  /** As the person has chosen them. */
  columns: LedgerColumn[] | null;
  /** What was to be added before the page's script ran, and was refused. */
  refusedItem?: RefusedItem | undefined;
  /** What is open beside the lines at first. */
  opens?: 'sent' | 'colleagues' | undefined;
}

/** A quote in the making: its lines, what they come to, and what can be done with it. */
export default function Ledger(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

/** What is open beside and above the lines. */
function usePanes(first: QuoteView, lines: RefObject<LinesHandle | null>, opens: Props['opens']) {
  const { t } = useSpeech();
  // Whoever is asked to sign sees what for at once.
  const [side, setSide] = useState<SideView | undefined>(
    opens
      ? { is: opens, asked: [] }
      : first.signOff && first.signOff.mayAnswer.length > 0
        ? { is: 'signOff', asked: [] }
        : undefined,
  );
  const [dialog, setDialog] = useState<HeadDialog | 'contact'>();
  const [moving, setMoving] = useState<Address['kind'] | null>(null);
  return {
    side,
    setSide,
    toggle: (wanted: SideView) =>
      setSide(side && side.is === wanted.is && side.line === wanted.line ? undefined : wanted),
    explain: (figure: Figure) =>
      setSide({ is: 'walk', line: figure.of === 'line' ? figure.line : undefined, asked: [figure] }),
    dialog,
    setDialog,
    moving,
    setMoving,
    /** Nothing is asked about a quote that cannot go out yet: one is led to what stands in the way. */
    open: (wanted: HeadDialog, view: QuoteView): void => {
      const [broken] = wanted === 'send' || wanted === 'accept' ? brokenIn(view) : [];
      if (!broken) setDialog(wanted);
      else {
        lines.current?.go(broken.id);
        say(
          `${t('ledger.lineOf', { line: broken.position })}: ${broken.problems.map((problem) => t(problem.code, problem.params)).join(' ')}`,
          true,
        );
      }
    },
  };
}

type Panes = ReturnType<typeof usePanes>;

function Page({ view: first, models, columns: usual, refusedItem, opens }: Props) {
  const quote = useQuote(first);
  const { view, pending, trouble, change, changeLine, changeWhole } = quote;
  const acts = useLedgerActs(quote);
  const lines = useRef<LinesHandle>(null);
  const panes = usePanes(first, lines, opens);
  const { side, toggle, dialog, setDialog } = panes;
  const [columns, setColumns] = useState(usual);
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const markedLines = view.lines.filter((line) => marked.has(line.id));
  // What was marked and is gone, is marked no longer.
  if (markedLines.length < marked.size) setMarked(new Set(markedLines.map((line) => line.id)));
  // What a customer accepts makes another quote of it, and nobody types on what is settled.
  useLive((word) => {
    if (word !== 'gap' && word.kind === 'answer' && word.quote === view.id && pending === 0)
      void quote.refresh();
  });
  useStepKeys(view.may.edit, acts.step);
  useBeginInLines(lines, dialog, view.revision.shown);
  return (
    <div className={css.page}>
      <Head
        view={view}
        pending={pending}
        trouble={trouble}
        walkOpen={side?.is === 'walk' && side.line === undefined}
        revisionsOpen={side?.is === 'revisions'}
        onWalk={() => toggle({ is: 'walk', asked: [] })}
        onRevisions={() => toggle({ is: 'revisions', asked: [] })}
        onDeal={() => toggle({ is: 'deal', asked: [] })}
        onSent={() => toggle({ is: 'sent', asked: [] })}
        onSchedule={() => void acts.schedule()}
        onColleagues={() => toggle({ is: 'colleagues', asked: [] })}
        onSignOff={() => panes.setSide({ is: 'signOff', asked: [] })}
        onContact={() => setDialog('contact')}
        onStep={(way) => void acts.step(way)}
        onDialog={(wanted) => panes.open(wanted, view)}
        onRevise={() => void acts.revise()}
      />
      <div className={css.main}>
        <Body
          {...{ quote, acts, panes, lines, columns, marked, refusedItem }}
          begins={first.lines.length === 0}
          onMark={setMarked}
        />
        {view.may.edit && markedLines.length > 0 && (
          <MarkedLines quote={quote} acts={acts} lines={markedLines} onClear={() => setMarked(new Set())} />
        )}
        <Totals
          view={view}
          onType={changeWhole}
          onResale={async (resale) => acts.refused(await change('PATCH /quotes/{id}', { input: { resale } }))}
          onExplain={(what) => panes.explain({ of: 'quote', what })}
          onSignOff={() => toggle({ is: 'signOff', asked: [] })}
          onGo={(line) => lines.current?.go(line)}
        />
      </div>
      {side && (
        <Side
          view={view}
          side={side}
          onChange={panes.setSide}
          signing={acts.signing}
          onOtherwise={() => void quote.refresh()}
          onRates={(line, rates) => changeLine(line, { rates })}
          onLease={async (lease) => acts.refused(await change('PATCH /quotes/{id}', { input: { lease } }))}
        />
      )}
      <Dialogs
        {...{ quote, acts, dialog, models, columns }}
        moving={panes.moving}
        onColumns={(wanted) => {
          setColumns(wanted);
          void ask('PATCH /me', { input: { ledger: wanted } });
        }}
        onMoved={() => panes.setMoving(null)}
        onClose={() => setDialog(undefined)}
      />
    </div>
  );
}

interface BodyProps {
  quote: QuoteActs;
  acts: LedgerActs;
  panes: Panes;
  lines: RefObject<LinesHandle | null>;
  columns: LedgerColumn[] | null;
  marked: ReadonlySet<string>;
  refusedItem: RefusedItem | undefined;
  /** The page began without a line. */
  begins: boolean;
  onMark: (marked: ReadonlySet<string>) => void;
}

/** What scrolls: the lines, where the next one is added, and to whom it all goes. */
function Body({ quote, acts, panes, lines, columns, marked, refusedItem, begins, onMark }: BodyProps) {
  const { t } = useSpeech();
  const { view, change, changeLine, changeLines } = quote;
  const { side, toggle, setDialog } = panes;
  const scroller = useRef<HTMLDivElement>(null);
  return (
    <div className={css.body} ref={scroller} tabIndex={0} role="region" aria-label={t('ledger.lines')}>
      {isOlder(view) && (
        <p className={css.older} role="status">
          {t('revision.older', { number: view.revision.number })}{' '}
          <LinkButton href={`/quotes/${view.id}`}>
            {t('revision.toNewest', { number: newestOf(view) })}
          </LinkButton>
        </p>
      )}
      {view.lines.length === 0 ? (
        <p className={css.empty}>{t('ledger.empty')}</p>
      ) : (
        <Lines
          ref={lines}
          view={view}
          openLine={side?.line}
          columns={columns}
          marked={marked}
          onMark={onMark}
          scroller={scroller}
          onChange={changeLine}
          onRemove={(line) => void acts.remove([line])}
          onFill={(line, changes) => void acts.fill(line, changes)}
          onCopy={acts.copy}
          onInstead={acts.instead}
          onPlace={acts.place}
          onGroup={(some, group) => void changeLines(some, { group }).then(told)}
          onRename={acts.rename}
          onWalk={(line) => toggle({ is: 'walk', line: line.id, asked: [] })}
          onExplain={(line) => panes.explain({ of: 'line', line: line.id, what: 'net' })}
        />
      )}
      {view.may.edit && (
        <AddItem
          version={view.version}
          refused={refusedItem}
          begins={begins}
          onAdd={(sku, quantity) => change('POST /quotes/{id}/lines', { input: { sku, quantity } })}
          onOpen={acts.openBuild}
          onPaste={() => setDialog('paste')}
        />
      )}
      <Addressed
        view={view}
        onMove={panes.setMoving}
        onContact={() => setDialog('contact')}
        onDialog={(wanted) => panes.open(wanted, view)}
        onValidUntil={async (validUntil) =>
          acts.refused(await change('PATCH /quotes/{id}', { input: { validUntil } }))
        }
      />
    </div>
  );
}

/** What can be done with the marked lines at once. */
function MarkedLines({
  quote: { view, changeLines, fillLines },
  acts,
  lines,
  onClear,
}: Pick<BodyProps, 'quote' | 'acts'> & { lines: readonly LineView[]; onClear: () => void }) {
  return (
    <Marked
      view={view}
      lines={lines}
      onChange={(body) =>
        changeLines(
          lines.map((line) => line.id),
          body,
        )
      }
      onMonths={(months) =>
        fillLines(
          lines.flatMap((line) =>
            line.recurs ? [{ line: line.id, term: { ...line.recurs.term, months, days: 0 } }] : [],
          ),
        )
      }
      onAlternatives={(apart) => acts.alternatives(lines, apart)}
      onRemove={() => void acts.remove(lines)}
      onClear={onClear}
    />
  );
}
