import { useState } from 'react';
import { CheckCheck, FileDown, PackageOpen, Route, SlidersHorizontal, Trash2, TriangleAlert } from 'lucide-react';
import { ValidationError, type Schema } from 'yup';
import { discountPercent, quantity as quantitySchema, type Address, type LineView, type QuoteView } from '../../core/quoting';
import { date, hasText, money, moneyIn, number, own, percent, shift } from '../../i18n';
import { Button, Dialog, DialogFoot, Field, LinkButton, classes, say } from '../../ui';
import { ask, sentences, type Answer } from '../api';
import { Walk } from '../parts/Walk';
import { Speech, useSpeech } from '../speech';
import { EditCell } from './EditCell';
import css from './ledger.module.css';
import { StartDialog } from './StartDialog';

interface Props { language: string; view: QuoteView; models: { id: string; name: Record<string, string> }[] }

export default function Ledger(props: Props) {
  return <Speech language={props.language}><Page {...props} /></Speech>;
}

function Page({ view: first, models }: Props) {
  const { t, language } = useSpeech();
  const [view, setView] = useState(first);
  const [saving, setSaving] = useState(false);
  const [walkOf, setWalkOf] = useState<string>();
  const [accepting, setAccepting] = useState(false);
  const [starting, setStarting] = useState(false);
  const { currency, decimals, may } = view;
  const amount = (value: string) => money(value, language, decimals);

  /** Sends a change; a change against an older version brings the newer one and says whose it is. */
  const change = async (method: 'POST' | 'PATCH' | 'DELETE', path: string, body: object): Promise<Answer<QuoteView>> => {
    setSaving(true);
    const answer = await ask<QuoteView>(method, `/api/quotes/${view.id}${path}`, { version: view.version, ...body });
    if (answer.ok) setView(answer.value);
    else if (answer.status === 409) {
      const newer = await ask<QuoteView>('GET', `/api/quotes/${view.id}`);
      if (newer.ok) setView(newer.value);
      say(sentences(answer.failures, t('request.failed')), true);
    }
    setSaving(false);
    return answer;
  };
  const saveCell = async (line: LineView, body: object): Promise<string | null> => {
    const answer = await change('PATCH', `/lines/${line.id}`, body);
    return answer.ok ? null : sentences(answer.failures, t('request.failed'));
  };
  const checkWith = (schema: Schema) => (typed: string): string | null => {
    try {
      schema.validateSync(typed);
      return null;
    } catch (failure) {
      const code = failure instanceof ValidationError ? failure.message : '';
      return t(hasText(code) ? code : 'input.invalid');
    }
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
    const newer = await ask<QuoteView>('GET', `/api/quotes/${view.id}`);
    if (newer.ok) setView(newer.value);
    say(sentences(answer.failures, t('request.failed')), true);
  };

  const chosen = view.lines.find((line) => line.id === walkOf);
  const builds = view.lines.filter((line) => line.buildId && !line.alternative).length;
  return (
    <div className={css.page}>
      <header className={css.head}>
        <div>
          <div className={css.title}><h1>{view.customer.name}</h1><span className={css.number}>{view.number}</span><span>{view.title}</span></div>
          <p className={css.facts}>
            <span className={classes(css.state, view.revision.state === 'accepted' && css.accepted)}>{t(`state.${view.revision.state}`)}</span>
            <span>{t('ledger.revision', { number: view.revision.number })}</span><span>{t('ledger.valid', { date: date(view.revision.validUntil, language) })}</span><span>{view.owner}</span><span>{t(`class.${view.customer.class as 'key'}`)}</span>
          </p>
        </div>
        <div className={css.acts}>
          <span className={css.saved} role="status">{saving ? t('ledger.saving') : t('ledger.saved')}</span>
          {may.edit && <Button onClick={() => setStarting(true)}><SlidersHorizontal size={14} aria-hidden />{t('catalogue.configure')}</Button>}
          <LinkButton href={`/api/quotes/${view.id}/quotation.pdf`} download><FileDown size={14} aria-hidden />{t('ledger.pdf')}</LinkButton>
          {view.order && <LinkButton look="main" href={`/orders/${view.order.id}`}><PackageOpen size={14} aria-hidden />{t('ledger.order', { number: view.order.number })}</LinkButton>}
          {may.accept && <Button look="main" disabled={view.lines.length === 0} onClick={() => setAccepting(true)}><CheckCheck size={15} aria-hidden />{t('ledger.accept')}</Button>}
        </div>
      </header>
      <div className={css.body}>
        {view.lines.length === 0 ? <p className={css.empty}>{t('ledger.empty')}</p> : (
          <table className={css.table} aria-label={view.number}>
            <thead>
              <tr>
                <th scope="col">{t('ledger.line')}</th><th scope="col">{t('ledger.what')}</th><th scope="col" className={css.figure}>{t('ledger.quantity')}</th><th scope="col" className={css.figure}>{t('ledger.list')}</th>
                <th scope="col" className={css.figure}>{t('ledger.agreement')}</th><th scope="col" className={css.figure}>{t('ledger.discount')}</th><th scope="col" className={css.figure}>{t('ledger.unitNet')}</th><th scope="col" className={css.figure}>{t('ledger.net')} {currency}</th>
                {may.seeCosts && <th scope="col" className={css.figure}>{t('ledger.margin')}</th>}
                <td />
              </tr>
            </thead>
            <tbody>
              {view.lines.map((line) => (
                <tr key={line.id}>
                  <td className={css.figure}>{line.position}</td>
                  <td className={css.what}>
                    <span className={css.name}>{own(line.name, language)}{line.alternative && <i className={css.alternative}> {t('ledger.alternative')}</i>}</span>
                    {line.buildId ? <a className={css.code} href={`/bench/${line.buildId}`} title={may.edit ? t('ledger.edit') : t('ledger.open')}>{line.partNumber}</a> : <span className={css.code}>{line.partNumber}</span>}
                    {line.summary && <span className={css.summary}>{own(line.summary, language)}</span>}
                    {line.problems.map((problem) => <span key={problem.code} className={css.problem}><TriangleAlert size={13} aria-hidden />{t(problem.code, problem.params)}</span>)}
                    {line.warnings.map((warning) => <span key={warning.rule} className={css.warning}><TriangleAlert size={13} aria-hidden />{own(warning.text, language)}{warning.passed && <i> {t('ledger.passed', { who: warning.passed.by, reason: warning.passed.reason })}</i>}</span>)}
                    {line.special.map((part) => <span key={part.item} className={css.warning}>{t('ledger.specialPart', { text: part.text })}</span>)}
                  </td>
                  <td className={css.figure}><EditCell label={`${t('ledger.quantity')} ${String(line.position)}`} value={String(line.quantity)} disabled={!may.edit} check={checkWith(quantitySchema)} onSave={(typed) => saveCell(line, { quantity: typed })} /></td>
                  <td className={css.figure}>{amount(line.price.unitList)}</td>
                  <td className={css.figure}>{agreementOf(line, language)}</td>
                  <td className={css.figure}><EditCell label={`${t('ledger.discount')} ${String(line.position)}`} value={number(shift(line.discount, 2), language)} disabled={!may.edit} check={checkWith(discountPercent)} onSave={(typed) => saveCell(line, { discount: typed })} /></td>
                  <td className={css.figure}>{amount(line.price.unitNet)}</td>
                  <td className={css.figure}>{amount(line.price.net)}</td>
                  {may.seeCosts && <td className={css.figure}>{line.price.margin === undefined ? '' : percent(line.price.margin, language, 1)}</td>}
                  <td style={{ whiteSpace: 'nowrap' }}>
                    <Button look="plain" className={css.iconAct} aria-label={t('ledger.walkOf', { line: line.position })} title={t('ledger.walk')} aria-pressed={walkOf === line.id} onClick={() => setWalkOf(walkOf === line.id ? undefined : line.id)}><Route size={14} aria-hidden /></Button>
                    {may.edit && <Button look="plain" className={css.iconAct} aria-label={t('ledger.remove', { line: line.position })} title={t('ledger.remove', { line: line.position })} onClick={() => void remove(line)}><Trash2 size={14} aria-hidden /></Button>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {may.edit ? <AddItem onAdd={(sku, quantity) => change('POST', '/lines', { sku, quantity })} onOpen={openNumber} /> : <div />}
        <footer className={css.foot}>
          <div className={css.address}>
            {view.customer.addresses.map((address) => <AddressText key={address.kind} address={address} title={t(`ledger.${address.kind}`)} />)}
            <p><b>{t('ledger.contact')}</b>{view.customer.contactName}<br />{view.customer.contactEmail}</p>
          </div>
          <dl className={css.totals} aria-label={t('ledger.totals')}>
            <dt>{t('ledger.listTotal')}</dt><dd className={css.figure}>{amount(view.totals.list)}</dd>
            <dt>{t('ledger.reduction')}</dt><dd className={css.figure}>{amount(`-${view.totals.reduction}`)}</dd>
            <dt className={css.sum}>{t('ledger.net')} {currency}</dt><dd className={classes(css.figure, css.sum)} data-testid="net">{amount(view.totals.net)}</dd>
            {view.totals.cost !== undefined && <><dt>{t('ledger.cost')}</dt><dd className={css.figure}>{amount(view.totals.cost)}</dd></>}
            {view.totals.margin !== undefined && <><dt>{t('ledger.margin')}</dt><dd className={css.figure}>{percent(view.totals.margin, language, 1)}</dd></>}
          </dl>
        </footer>
      </div>
      {chosen && (
        <aside className={css.side} tabIndex={0} aria-label={t('ledger.walkOf', { line: chosen.position })}>
          <div className={css.sideHead}><h2>{t('ledger.walkOf', { line: chosen.position })}</h2><Button look="plain" onClick={() => setWalkOf(undefined)}>{t('bench.close')}</Button></div>
          <Walk price={chosen.price} parts={chosen.build} quantity={chosen.quantity} currency={currency} decimals={decimals} />
        </aside>
      )}
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

function agreementOf(line: LineView, language: string): string {
  const step = line.price.steps.find((each) => each.kind === 'agreement');
  return step?.rate ? percent(step.rate, language) : '';
}

function AddressText({ address, title }: { address: Address; title: string }) {
  return <p><b>{title}</b>{address.street}<br />{address.postcode} {address.town}, {address.country}</p>;
}

function AddItem({ onAdd, onOpen }: { onAdd: (sku: string, quantity: string) => Promise<Answer<QuoteView>>; onOpen: (partNumber: string) => Promise<string | null> }) {
  const { t } = useSpeech();
  const [sku, setSku] = useState('');
  const [quantity, setQuantity] = useState('1');
  const [error, setError] = useState<string>();
  const add = async () => {
    const answer = await onAdd(sku, quantity);
    if (!answer.ok) {
      const unfinished = answer.failures.some((failure) => failure.code === 'line.todo');
      setError((unfinished ? await onOpen(sku) : sentences(answer.failures, t('request.failed'))) ?? undefined);
      return;
    }
    setError(undefined);
    setSku('');
    setQuantity('1');
  };
  return (
    <form noValidate className={css.adding} onSubmit={(event) => { event.preventDefault(); void add(); }}>
      <Field label={t('ledger.addItem')} value={sku} onChange={(event) => setSku(event.target.value)} placeholder="SV-DELIV" />
      <Field label={t('ledger.addQuantity')} value={quantity} inputMode="numeric" onChange={(event) => setQuantity(event.target.value)} />
      <div><Button type="submit" disabled={sku.trim() === ''}>{t('ledger.add')}</Button></div>
      {error && <p className={css.addError} role="alert">{error}</p>}
    </form>
  );
}
