import { CircleDashed, Copy, Lock, LockOpen, Route, Trash2, TriangleAlert } from 'lucide-react';
import { fixed, minus, negative, ratio, textOf } from '../../core/exact';
import { quantity as quantitySchema, typedMoney, type LineView, type QuoteView } from '../../core/quoting';
import { date, money, own, percent } from '../../i18n';
import { Button, classes } from '../../ui';
import { useSpeech } from '../speech';
import { EditCell } from './EditCell';
import { FourCell } from './FourCell';
import css from './ledger.module.css';
import { ReachMark } from './ReachMark';
import { TermFields } from './TermFields';
import { sendableMoney, wrongWith, type Way } from './typed-amount';

export interface LineActs {
  onChange: (line: LineView, body: object) => Promise<string | null>;
  onRemove: (line: LineView) => void;
  onCopy: (line: LineView) => void;
  onWalk: (line: LineView) => void;
  /** Tells how the net of the line comes about. */
  onExplain: (line: LineView) => void;
}

interface Props extends LineActs {
  line: LineView;
  view: QuoteView;
  /** Some line has a share of the whole-quote discount, so there is a column for it. */
  shared: boolean;
  /** Its walk is open. */
  open: boolean;
}

/** What all granted steps take off together, as shares one after another. */
function granted(line: LineView, language: string): string {
  return line.price.steps.flatMap((step) => (['agreement', 'quantity', 'promotion'].includes(step.kind) && step.rate ? [percent(step.rate, language)] : [])).join(' + ');
}

const limitFor = ({ signOff }: QuoteView, { family }: LineView, by: 'discount' | 'margin') => {
  const own = signOff?.limits.filter((limit) => limit.by === by) ?? [];
  return own.find((limit) => limit.family === family) ?? own.find((limit) => limit.family === undefined);
};

/** A line of the Ledger: what it is, and its figures, of which one types those that are one's own to say. */
export function LineRow({ line, view, shared, open, onChange, onRemove, onCopy, onWalk, onExplain }: Props) {
  const { t, language } = useSpeech();
  const { may, decimals } = view;
  const { price } = line;
  const at = String(line.position);
  const amount = (value: string) => money(value, language, decimals);
  const byHand = price.steps.find((step) => step.kind === 'discount');
  const settled = !may.edit || !line.discountable;
  const type = (typed: { by: Way; value: string } | null) => onChange(line, { hand: typed });
  const judged = view.signOff?.judged.filter((each) => each.line === line.id) ?? [];
  /** The scale of limits: of the figure as it is judged, or of what is being typed. */
  const scale = (by: 'discount' | 'margin') => {
    const here = judged.find((each) => each.by === by);
    const limit = here && limitFor(view, line, by);
    return here && limit && ((typed: string | undefined) => <ReachMark limit={limit} figure={typed ?? here.figure} />);
  };
  const four = (by: Way, value: string | undefined, label: string) => (
    <FourCell by={by} value={value} typed={line.hand} label={`${label} ${at}`} decimals={decimals} disabled={settled} onType={type} below={by === 'rate' ? scale('discount') : by === 'margin' ? scale('margin') : undefined} />
  );
  const off = byHand ? textOf(negative(fixed(byHand.amount))) : '0';
  const unitMargin = price.unitCost === undefined || price.unitNet === '0' ? undefined : ratio(minus(fixed(price.unitNet), fixed(price.unitCost)), fixed(price.unitNet));
  return (
    <tr className={classes(line.optional && css.aside)} data-line={line.id}>
      <td className={classes(css.figure, css.held)}>{at}</td>
      <td className={classes(css.what, css.held)}>
        <span className={css.name}>{own(line.name, language)}</span>{line.alternative && <i className={css.alternative}> {t('ledger.alternative')}</i>}{line.optional && <i className={css.alternative}> {t('ledger.optional')}</i>}{' '}
        {line.buildId ? <a className={css.code} href={`/bench/${line.buildId}`} title={may.edit ? t('ledger.edit') : t('ledger.open')}>{line.partNumber}</a> : <span className={css.code}>{line.partNumber}</span>}
        {line.summary && <span className={css.summary}>{own(line.summary, language)}</span>}
        {!line.recurs && price.recurring && <span className={css.term}>{t('ledger.termSet', { from: date(price.recurring.from, language), to: date(price.recurring.to, language) })}</span>}
        {line.recurs && <TermFields line={line} disabled={!may.edit} onChange={(term) => onChange(line, { term })} />}
        {line.problems.map((problem) => <span key={problem.code} className={css.problem}><TriangleAlert size={13} aria-hidden />{t(problem.code, problem.params)}</span>)}
        {line.warnings.map((warning) => <span key={warning.rule} className={css.warning}><TriangleAlert size={13} aria-hidden />{own(warning.text, language)}{warning.passed && <i> {t('ledger.passed', { who: warning.passed.by, reason: warning.passed.reason })}</i>}</span>)}
        {line.special.map((part) => <span key={part.item} className={css.warning}>{t('ledger.specialPart', { text: part.text })}</span>)}
      </td>
      <td className={css.figure}><EditCell label={`${t('ledger.quantity')} ${at}`} value={String(line.quantity)} disabled={!may.edit} check={(typed) => wrongWith(quantitySchema, typed, t)} onSave={(typed) => onChange(line, { quantity: typed })} narrow /></td>
      <td className={css.figure}>
        {line.typedPrice === undefined ? <span className={css.still}>{amount(price.unitList)}</span> : (
          <EditCell label={`${t('ledger.list')} ${at}`} value={line.typedPrice === null ? '' : amount(line.typedPrice)} disabled={!may.edit} strong check={(typed) => wrongWith(typedMoney, sendableMoney(typed, language), t)} onSave={(typed) => onChange(line, { price: sendableMoney(typed, language) })} />
        )}
        {price.per === 'line' && <span className={css.rateNote}>{t('ledger.forAll')}</span>}
      </td>
      <td className={classes(css.figure, css.wide)}><span className={css.still}>{granted(line, language)}</span></td>
      <td className={css.figure}>{four('rate', byHand?.rate ?? '0', t('ledger.discount'))}</td>
      <td className={classes(css.figure, css.wide)}>{four('amount', off, t('ledger.off'))}</td>
      <td className={css.figure}>{four('net', price.unitNet, t('ledger.unitNet'))}</td>
      {may.seeCosts && <td className={css.figure}>{four('margin', unitMargin, t('ledger.marginPercent'))}</td>}
      {shared && <td className={classes(css.figure, css.wide)}><span className={css.still}>{price.share === undefined ? '' : amount(textOf(negative(fixed(price.share))))}</span></td>}
      <td className={css.figure}>
        <button type="button" className={css.asks} onClick={() => onExplain(line)} aria-label={t('ledger.explainNet', { line: at, net: amount(price.net) })}>{amount(price.net)}</button>
      </td>
      <td className={css.lineActs}>
        <Button look="plain" className={css.iconAct} aria-label={t('ledger.walkOf', { line: at })} title={t('ledger.walk')} aria-pressed={open} onClick={() => onWalk(line)}><Route size={14} aria-hidden /></Button>
        {may.edit && <>
          <Button look="plain" className={css.iconAct} aria-label={t('ledger.lock', { line: at })} title={t(line.locked ? 'ledger.locked' : 'ledger.lock', { line: at })} aria-pressed={line.locked} onClick={() => void onChange(line, { locked: !line.locked })}>{line.locked ? <Lock size={14} aria-hidden /> : <LockOpen size={14} aria-hidden />}</Button>
          <Button look="plain" className={css.iconAct} aria-label={t('ledger.setAside', { line: at })} title={t('ledger.setAsideWhy')} aria-pressed={line.optional} onClick={() => void onChange(line, { optional: !line.optional })}><CircleDashed size={14} aria-hidden /></Button>
          <Button look="plain" className={css.iconAct} aria-label={t('ledger.copy', { line: at })} title={`${t('ledger.copy', { line: at })} (Ctrl D)`} onClick={() => onCopy(line)}><Copy size={14} aria-hidden /></Button>
          <Button look="plain" className={css.iconAct} aria-label={t('ledger.remove', { line: at })} title={t('ledger.remove', { line: at })} onClick={() => onRemove(line)}><Trash2 size={14} aria-hidden /></Button>
        </>}
      </td>
    </tr>
  );
}
