import { useState } from 'react';
import { ChartNoAxesColumn, CheckCheck, FileDown, PackageOpen, SlidersHorizontal } from 'lucide-react';
import type { Figure } from '../../core/pricing';
import type { Address, LineView, QuoteView } from '../../core/quoting';
import { date, moneyIn } from '../../i18n';
import { Button, Dialog, DialogFoot, LinkButton, classes, say } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { Speech, useSpeech } from '../speech';
import { AddItem } from './AddItem';
import { CustomerDialog } from './CustomerDialog';
import css from './ledger.module.css';
import { Lines } from './Lines';
import { PasteDialog } from './PasteDialog';
import { Side, type SideView } from './Side';
import type { SignOffActs } from './SignOff';
import { StartDialog } from './StartDialog';
import { Totals } from './Totals';
import { useQuote } from './useQuote';

interface Props { language: string; view: QuoteView; models: { id: string; name: Record<string, string> }[] }

export default function Ledger(props: Props) {
  return <Speech language={props.language}><Page {...props} /></Speech>;
}

function Page({ view: first, models }: Props) {
  const { t, language } = useSpeech();
  const { view, saving, change, changeLine, changeWhole, refresh } = useQuote(first);
  // Whoever is asked to sign sees what for at once.
  const [side, setSide] = useState<SideView | undefined>(first.signOff && first.signOff.mayAnswer.length > 0 ? { is: 'signOff', asked: [] } : undefined);
  const [accepting, setAccepting] = useState(false);
  const [starting, setStarting] = useState(false);
  const [pasting, setPasting] = useState(false);
  const [moving, setMoving] = useState(false);
  const { currency, decimals, may } = view;
  const askFor = (figure: Figure) => setSide({ is: 'walk', line: figure.of === 'line' ? figure.line : undefined, asked: [figure] });
  const toggle = (wanted: SideView) => setSide(side && side.is === wanted.is && side.line === wanted.line ? undefined : wanted);
  const quoteWalkOpen = side?.is === 'walk' && side.line === undefined;
  const refused = (answer: Answer<QuoteView>): string | null => (answer.ok ? null : sentences(answer.failures, t('request.failed')));
  const signing: SignOffActs = {
    onAsk: async (reason) => refused(await change('POST', '/sign-offs', { reason })),
    onAnswer: async (id, body) => refused(await change('PATCH', `/sign-offs/${id}`, body)),
    onTake: async (id) => refused(await change('POST', `/sign-offs/${id}/take`, {})),
  };
  const remove = async (line: LineView) => {
    const answer = await change('DELETE', `/lines/${line.id}`, {});
    if (answer.ok) say(t('ledger.removed'));
  };
  /** A part number that leaves something to choose opens on the Bench with all that it says. */
  const openNumber = async (partNumber: string): Promise<string | null> => {
    const answer = await ask<{ id: string }>('POST', '/api/builds', { quoteId: view.id, partNumber });
    if (!answer.ok) return sentences(answer.failures, t('request.failed'));
    window.location.assign(`/bench/${answer.value.id}`);
    return null;
  };
  const accept = async () => {
    const answer = await ask<{ orderId: string }>('POST', `/api/quotes/${view.id}/accept`, { version: view.version });
    setAccepting(false);
    if (answer.ok) {
      window.location.assign(`/orders/${answer.value.orderId}`);
      return;
    }
    await refresh();
    say(sentences(answer.failures, t('request.failed')), true);
  };

  const unsigned = view.signOff?.needs.some((need) => !need.held) ?? false;
  const builds = view.lines.filter((line) => line.buildId && !line.alternative).length;
  return (
    <div className={css.page}>
      <header className={css.head}>
        <div>
          <div className={css.title}><h1>{view.customer.name}</h1><span className={css.number}>{view.number}</span><span>{view.title}</span></div>
          <p className={css.facts}>
            <span className={classes(css.state, view.revision.state === 'accepted' && css.accepted)}>{t(`state.${view.revision.shown}`)}</span>
            <span>{t('ledger.revision', { number: view.revision.number })}</span><span>{t('ledger.valid', { date: date(view.revision.validUntil, language) })}</span><span>{view.owner}</span><span>{t(`class.${view.customer.class as 'key'}`)}</span>{may.edit && <button type="button" className={css.asks} onClick={() => setMoving(true)}>{t('customer.change')}</button>}
          </p>
        </div>
        <div className={css.acts}>
          <span className={css.saved} role="status">{saving ? t('ledger.saving') : t('ledger.saved')}</span>
          {may.edit && <Button onClick={() => setStarting(true)}><SlidersHorizontal size={14} aria-hidden />{t('catalogue.configure')}</Button>}
          <Button aria-pressed={quoteWalkOpen} onClick={() => toggle({ is: 'walk', asked: [] })}><ChartNoAxesColumn size={14} aria-hidden />{t('ledger.walk')}</Button>
          <LinkButton href={`/api/quotes/${view.id}/quotation.pdf`} download><FileDown size={14} aria-hidden />{t('ledger.pdf')}</LinkButton>
          {view.order && <LinkButton look="main" href={`/orders/${view.order.id}`}><PackageOpen size={14} aria-hidden />{t('ledger.order', { number: view.order.number })}</LinkButton>}
          {may.accept && <Button look="main" disabled={view.lines.length === 0 || unsigned} title={unsigned ? t('signOff.first') : undefined} onClick={() => setAccepting(true)}><CheckCheck size={15} aria-hidden />{t('ledger.accept')}</Button>}
        </div>
      </header>
      <div className={css.main}>
        <div className={css.body} tabIndex={0} role="region" aria-label={t('ledger.lines')}>
          {view.lines.length === 0 ? <p className={css.empty}>{t('ledger.empty')}</p> : (
            <Lines
              view={view} openLine={side?.line} onChange={changeLine} onRemove={(line) => void remove(line)}
              onCopy={(line) => void change('POST', `/lines/${line.id}/copy`, {})} onPlace={async (line, to) => { await change('POST', '/lines/place', { lines: [line.id], to }); }}
              onWalk={(line) => toggle({ is: 'walk', line: line.id, asked: [] })} onExplain={(line) => askFor({ of: 'line', line: line.id, what: 'net' })}
            />
          )}
          {may.edit && <AddItem onAdd={(sku, quantity) => change('POST', '/lines', { sku, quantity })} onOpen={openNumber} onPaste={() => setPasting(true)} />}
          <div className={css.address}>
            {view.customer.addresses.map((address) => <AddressText key={address.kind} address={address} title={t(`ledger.${address.kind}`)} />)}
            <p><b>{t('ledger.contact')}</b>{view.customer.contactName}<br />{view.customer.contactEmail}</p>
          </div>
        </div>
        <Totals view={view} onType={(whole) => changeWhole({ whole })} onExplain={(what) => askFor({ of: 'quote', what })} onSignOff={() => toggle({ is: 'signOff', asked: [] })} />
      </div>
      {side && <Side view={view} side={side} onChange={setSide} signing={signing} />}
      <CustomerDialog open={moving} view={view} onChange={async (customerId) => refused(await change('POST', '/customer', { customerId }))} onClose={() => setMoving(false)} />
      <PasteDialog open={pasting} view={view} onAdd={(rows) => change('POST', '/lines/several', { rows })} onClose={() => setPasting(false)} />
      <StartDialog open={starting} view={view} models={models} onClose={() => setStarting(false)} />
      <Dialog title={t('ledger.acceptTitle', { number: view.number })} closeText={t('frame.close')} open={accepting} onClose={() => setAccepting(false)}>
        <p>{t('ledger.acceptText', { net: moneyIn(view.totals.net, currency, language, decimals), count: builds })}</p>
        <DialogFoot>
          <Button onClick={() => setAccepting(false)}>{t('ledger.cancel')}</Button>
          <Button look="main" onClick={() => void accept()}>{t('ledger.acceptGo')}</Button>
        </DialogFoot>
      </Dialog>
    </div>
  );
}

function AddressText({ address, title }: { address: Address; title: string }) {
  return <p><b>{title}</b>{address.street}<br />{address.postcode} {address.town}, {address.country}</p>;
}
