import { useCallback, useEffect, useRef, useState } from 'react';
import type { Figure } from '../../core/pricing';
import type { Address, LedgerColumn, LineView, LineValue, QuoteView } from '../../contract';
import { moneyIn } from '../../i18n';
import { Button, Dialog, DialogFoot, LinkButton, say } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { Speech, useSpeech } from '../speech';
import { AddItem, type RefusedItem } from './grid/AddItem';
import { AddressDialog } from './dialogs/AddressDialog';
import { seesOf } from './grid/columns';
import { ColumnsDialog } from './dialogs/ColumnsDialog';
import { ContactDialog } from './dialogs/ContactDialog';
import { CustomerDialog } from './dialogs/CustomerDialog';
import { FreshenDialog } from './dialogs/FreshenDialog';
import { Head, type HeadDialog } from './Head';
import { About } from './side/About';
import css from './ledger.module.css';
import { Lines, type LinesHandle } from './grid/Lines';
import { LoseDialog } from './dialogs/LoseDialog';
import { Marked } from './grid/Marked';
import { PasteDialog } from './dialogs/PasteDialog';
import { Side } from './side/Side';
import { type SideView } from './side/side-view';
import type { SignOffActs } from './side/sign-off-acts';
import { StartDialog } from './dialogs/StartDialog';
import { brokenIn, Totals } from './side/Totals';
import { useQuote, type LineChange } from './session/useQuote';

interface Props {
  language: string;
  view: QuoteView;
  models: { id: string; name: Record<string, string> }[];
  /** As the person has chosen them. */
  columns: LedgerColumn[] | null;
  /** What was to be added before the page's script ran, and was refused. */
  refusedItem?: RefusedItem | undefined;
}

export default function Ledger(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

function Page({ view: first, models, columns: usual, refusedItem }: Props) {
  const { t, language } = useSpeech();
  const { view, pending, trouble, change, changeLine, changeLines, fillLines, changeWhole, refresh } =
    useQuote(first);
  // Whoever is asked to sign sees what for at once.
  const [side, setSide] = useState<SideView | undefined>(
    first.signOff && first.signOff.mayAnswer.length > 0 ? { is: 'signOff', asked: [] } : undefined,
  );
  const [dialog, setDialog] = useState<HeadDialog | 'contact'>();
  const [moving, setMoving] = useState<Address['kind'] | null>(null);
  const [columns, setColumns] = useState(usual);
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const scroller = useRef<HTMLDivElement>(null);
  const lines = useRef<LinesHandle>(null);
  const { currency, decimals, may } = view;
  const close = () => setDialog(undefined);
  const askFor = (figure: Figure) =>
    setSide({ is: 'walk', line: figure.of === 'line' ? figure.line : undefined, asked: [figure] });
  const toggle = (wanted: SideView) =>
    setSide(side && side.is === wanted.is && side.line === wanted.line ? undefined : wanted);
  const refused = (answer: Answer<QuoteView>): string | null =>
    answer.ok ? null : sentences(answer.failures, t('request.failed'));
  const told = (refusal: string | null) => {
    if (refusal !== null) say(refusal, true);
  };
  const markedLines = view.lines.filter((line) => marked.has(line.id));
  // What was marked and is gone, is marked no longer.
  if (markedLines.length < marked.size) setMarked(new Set(markedLines.map((line) => line.id)));
  const signing: SignOffActs = {
    onAsk: async (reason) => refused(await change('POST /quotes/{id}/sign-offs', { input: { reason } })),
    onAnswer: async (id, body) =>
      refused(await change('PATCH /quotes/{id}/sign-offs/{signOff}', { at: { signOff: id }, input: body })),
    onTake: async (id) =>
      refused(await change('POST /quotes/{id}/sign-offs/{signOff}/take', { at: { signOff: id }, input: {} })),
  };
  const remove = async (lines: readonly LineView[]) => {
    const answer = await change('DELETE /quotes/{id}/lines/several', {
      input: { lines: lines.map((line) => line.id) },
    });
    if (answer.ok) say(t('ledger.removedBack'));
    else told(refused(answer));
  };
  const fill = async (from: LineView, changes: readonly LineChange[]) => {
    const start = view.lines.findIndex((line) => line.id === from.id);
    const rows = changes.flatMap((each, index): LineValue[] => {
      const line = view.lines[start + index];
      return line && Object.keys(each).length > 0
        ? [
            {
              line: line.id,
              ...(each.quantity === undefined ? {} : { quantity: Number(each.quantity) }),
              ...(each.hand === undefined ? {} : { hand: each.hand }),
            },
          ]
        : [];
    });
    const beyond = changes.length - (view.lines.length - start);
    const left = changes.filter((each) => Object.keys(each).length === 0).length;
    if (rows.length > 0) told(await fillLines(rows));
    if (beyond > 0 || left > 0)
      say(
        [
          ...(left > 0 ? [t('paste.wrongCells', { count: left })] : []),
          ...(beyond > 0 ? [t('paste.beyond', { count: beyond })] : []),
        ].join(' '),
        true,
      );
  };
  const choose = (wanted: LedgerColumn[] | null) => {
    setColumns(wanted);
    void ask('PATCH /me', { input: { ledger: wanted } });
  };
  /**
   * A part number that leaves something to choose opens on the Bench with all that it says; a model opens
   * anew.
   */
  const openBuild = async (from: { partNumber: string } | { modelId: string }): Promise<string | null> => {
    const answer = await ask('POST /builds', { input: { quoteId: view.id, ...from } });
    if (!answer.ok) return sentences(answer.failures, t('request.failed'));
    window.location.assign(`/bench/${answer.value.id}`);
    return null;
  };
  const accept = async () => {
    const answer = await ask('POST /quotes/{id}/accept', {
      at: { id: view.id },
      input: {
        version: view.version,
      },
    });
    close();
    if (answer.ok) {
      window.location.assign(`/orders/${answer.value.orderId}`);
      return;
    }
    await refresh();
    say(sentences(answer.failures, t('request.failed')), true);
  };
  const send = async () => {
    const answer = await change('POST /quotes/{id}/send', { input: {} });
    close();
    told(refused(answer));
  };
  const step = useCallback(
    async (way: 'undo' | 'redo') => {
      const answer = await change(`POST /quotes/{id}/${way}`, { input: {} });
      say(answer.ok ? t(`steps.${way}Done`) : sentences(answer.failures, t('request.failed')), !answer.ok);
    },
    [change, t],
  );
  // What is being typed is taken back by the field itself.
  const onKey = useRef(step);
  useEffect(() => {
    onKey.current = step;
  });
  useEffect(() => {
    if (!may.edit) return undefined;
    const keys = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const typing =
        target.matches('textarea, [data-typing], input:not([type="checkbox"]):not([aria-label])') ||
        target.closest('dialog') !== null;
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y') || typing) return;
      event.preventDefault();
      void onKey.current(event.shiftKey || key === 'y' ? 'redo' : 'undo');
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [may.edit]);
  // A page that opens on lines begins in them, unless a pane asks for something, and so does one that stands
  // otherwise after a dialog, such as sent; where a hand would have to type on glass, nothing is opened for it.
  useEffect(() => {
    const frame = requestAnimationFrame(() => {
      const at = document.activeElement;
      // A field that is locked has the keyboard for a moment more.
      const nowhere = at === document.body || (at instanceof HTMLInputElement && at.disabled);
      if (dialog === undefined && nowhere && window.matchMedia('(pointer: fine)').matches)
        lines.current?.begin();
    });
    return () => cancelAnimationFrame(frame);
  }, [dialog, view.revision.shown]);
  /** Nothing is asked about a quote that cannot go out yet: one is led to what stands in the way. */
  const openDialog = (wanted: HeadDialog): void => {
    const [broken] = wanted === 'send' || wanted === 'accept' ? brokenIn(view) : [];
    if (!broken) setDialog(wanted);
    else {
      lines.current?.go(broken.id);
      say(
        `${t('ledger.lineOf', { line: broken.position })}: ${broken.problems.map((problem) => t(problem.code, problem.params)).join(' ')}`,
        true,
      );
    }
  };
  const newest = view.revisions[0]?.number ?? view.revision.number;
  const older = view.revision.number !== newest;
  const revise = async () => {
    const answer = await change('POST /quotes/{id}/revisions', {
      input: older ? { from: view.revision.number } : {},
    });
    if (!answer.ok) told(refused(answer));
    else if (older) window.location.assign(`/quotes/${view.id}`);
  };
  const builds = view.lines.filter((line) => line.buildId && !line.alternative).length;
  const net = moneyIn(view.totals.net, currency, language, decimals);
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
        onSignOff={() => setSide({ is: 'signOff', asked: [] })}
        onContact={() => setDialog('contact')}
        onStep={(way) => void step(way)}
        onDialog={openDialog}
        onRevise={() => void revise()}
      />
      <div className={css.main}>
        <div className={css.body} ref={scroller} tabIndex={0} role="region" aria-label={t('ledger.lines')}>
          {older && (
            <p className={css.older} role="status">
              {t('revision.older', { number: view.revision.number })}{' '}
              <LinkButton href={`/quotes/${view.id}`}>
                {t('revision.toNewest', { number: newest })}
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
              onMark={setMarked}
              scroller={scroller}
              onChange={changeLine}
              onRemove={(line) => void remove([line])}
              onFill={(line, changes) => void fill(line, changes)}
              onCopy={(line) =>
                void change('POST /quotes/{id}/lines/{line}/copy', { at: { line: line.id }, input: {} })
              }
              onInstead={(line) =>
                void change('POST /quotes/{id}/lines/{line}/instead', {
                  at: { line: line.id },
                  input: {},
                }).then((answer) => told(refused(answer)))
              }
              onPlace={async (lines, to) => {
                await change('POST /quotes/{id}/lines/place', { input: { lines, to } });
              }}
              onGroup={(lines, group) => void changeLines(lines, { group }).then(told)}
              onRename={async (from, to) =>
                refused(await change('PATCH /quotes/{id}/groups', { input: { from, to } }))
              }
              onWalk={(line) => toggle({ is: 'walk', line: line.id, asked: [] })}
              onExplain={(line) => askFor({ of: 'line', line: line.id, what: 'net' })}
            />
          )}
          {may.edit && (
            <AddItem
              version={view.version}
              refused={refusedItem}
              begins={first.lines.length === 0}
              onAdd={(sku, quantity) => change('POST /quotes/{id}/lines', { input: { sku, quantity } })}
              onOpen={openBuild}
              onPaste={() => setDialog('paste')}
            />
          )}
          <div className={css.address}>
            {addressesOf(view).map((address) => (
              <AddressText
                key={address.kind}
                address={address}
                title={t(`ledger.${address.kind}`)}
                change={t('address.change', { which: t(`ledger.${address.kind}`) })}
                onChange={may.edit ? () => setMoving(address.kind) : undefined}
              />
            ))}
            <p>
              <b>
                {may.edit ? (
                  <button
                    type="button"
                    className={css.asks}
                    aria-label={t('contact.change')}
                    title={t('contact.change')}
                    onClick={() => setDialog('contact')}
                  >
                    {t('ledger.contact')}
                  </button>
                ) : (
                  t('ledger.contact')
                )}
              </b>
              {view.customer.contactName}
              <br />
              {view.customer.contactEmail}
              <br />
              {t('ledger.paid', { count: view.customer.paymentDays ?? 30 })}
            </p>
            <About
              view={view}
              onDialog={openDialog}
              onValidUntil={async (validUntil) =>
                refused(await change('PATCH /quotes/{id}', { input: { validUntil } }))
              }
            />
          </div>
        </div>
        {may.edit && markedLines.length > 0 && (
          <Marked
            view={view}
            lines={markedLines}
            onChange={(body) =>
              changeLines(
                markedLines.map((line) => line.id),
                body,
              )
            }
            onMonths={(months) =>
              fillLines(
                markedLines.flatMap((line) =>
                  line.recurs ? [{ line: line.id, term: { ...line.recurs.term, months, days: 0 } }] : [],
                ),
              )
            }
            onRivals={async (apart) =>
              refused(
                await change('POST /quotes/{id}/lines/rivals', {
                  input: { lines: markedLines.map((line) => line.id), apart },
                }),
              )
            }
            onRemove={() => void remove(markedLines)}
            onClear={() => setMarked(new Set())}
          />
        )}
        <Totals
          view={view}
          onType={changeWhole}
          onResale={async (resale) => refused(await change('PATCH /quotes/{id}', { input: { resale } }))}
          onExplain={(what) => askFor({ of: 'quote', what })}
          onSignOff={() => toggle({ is: 'signOff', asked: [] })}
          onGo={(line) => lines.current?.go(line)}
        />
      </div>
      {side && (
        <Side
          view={view}
          side={side}
          onChange={setSide}
          signing={signing}
          onRates={(line, rates) => changeLine(line, { rates })}
          onLease={async (lease) => refused(await change('PATCH /quotes/{id}', { input: { lease } }))}
        />
      )}
      <CustomerDialog
        open={dialog === 'customer'}
        view={view}
        onChange={async (customerId) =>
          refused(await change('POST /quotes/{id}/customer', { input: { customerId } }))
        }
        onClose={close}
      />
      <AddressDialog
        kind={moving}
        view={view}
        onChange={async (body) => refused(await change('POST /quotes/{id}/addresses', { input: body }))}
        onClose={() => setMoving(null)}
      />
      <ContactDialog
        open={dialog === 'contact'}
        view={view}
        onChange={async (body) => refused(await change('POST /quotes/{id}/contacts', { input: body }))}
        onClose={close}
      />
      <PasteDialog
        open={dialog === 'paste'}
        view={view}
        onAdd={(rows) => change('POST /quotes/{id}/lines/several', { input: { rows } })}
        onClose={close}
      />
      <StartDialog open={dialog === 'start'} view={view} models={models} onClose={close} />
      <FreshenDialog
        open={dialog === 'freshen'}
        view={view}
        onTake={async (lines) => refused(await change('POST /quotes/{id}/freshening', { input: { lines } }))}
        onClose={close}
      />
      <ColumnsDialog
        open={dialog === 'columns'}
        sees={seesOf(view)}
        columns={columns}
        onChange={choose}
        onClose={close}
      />
      <LoseDialog
        open={dialog === 'lose'}
        view={view}
        onLose={async (lost) => refused(await change('POST /quotes/{id}/lose', { input: lost }))}
        onClose={close}
      />
      <Dialog
        title={t('ledger.acceptTitle', { number: view.number })}
        closeText={t('frame.close')}
        open={dialog === 'accept'}
        onClose={close}
      >
        <p>{t('ledger.acceptText', { net, count: builds })}</p>
        <DialogFoot>
          <Button onClick={close}>{t('ledger.cancel')}</Button>
          <Button look="main" onClick={() => void accept()}>
            {t('ledger.acceptGo')}
          </Button>
        </DialogFoot>
      </Dialog>
      <Dialog
        title={t('revision.sendTitle', { number: view.number })}
        closeText={t('frame.close')}
        open={dialog === 'send'}
        onClose={close}
      >
        <p>{t('revision.sendText', { revision: view.revision.number, net })}</p>
        <DialogFoot>
          <Button onClick={close}>{t('ledger.cancel')}</Button>
          <Button look="main" onClick={() => void send()}>
            {t('revision.sendGo')}
          </Button>
        </DialogFoot>
      </Dialog>
    </div>
  );
}

/** Without one of its own, delivery goes to where the invoice goes. */
function addressesOf({ customer: { addresses } }: QuoteView): Address[] {
  const [first] = addresses;
  return first && !addresses.some(({ kind }) => kind === 'delivery')
    ? [...addresses, { ...first, kind: 'delivery' }]
    : addresses;
}

function AddressText({
  address,
  title,
  change,
  onChange,
}: {
  address: Address;
  title: string;
  change: string;
  onChange: (() => void) | undefined;
}) {
  return (
    <p>
      <b>
        {onChange ? (
          <button type="button" className={css.asks} aria-label={change} title={change} onClick={onChange}>
            {title}
          </button>
        ) : (
          title
        )}
      </b>
      {address.street}
      <br />
      {address.postcode} {address.town}, {address.country}
    </p>
  );
}
