import type { ReactNode } from 'react';
import {
  ArrowUpDown,
  ChevronDown,
  ChevronRight,
  CircleDashed,
  Copy,
  Lock,
  LockOpen,
  Route,
  Trash2,
  TriangleAlert,
} from 'lucide-react';
import { runningIn } from '../../../core/pricing';
import { ofBuilds } from '../session/requote';
import { type LineView } from '../../../contract';
import { date, keysIn, money, own, percent, type Translate } from '../../../i18n';
import { Button, classes } from '../../../ui';
import { useSpeech } from '../../speech';
import { cellOf, type CellMeans, type Means } from './cells';
import type { Shown } from './columns';
import { EditCell } from './EditCell';
import css from './lines.module.css';
import { hasParts, type LedgerRow } from './rows';
import { TermFields } from './TermFields';
import { moneyOrNone, wrongMoney } from './typed-amount';
import { heldAt } from './held-at';

/** What can be done to a line in its row. */
export interface LineActs extends Pick<CellMeans, 'onChange' | 'onExplain' | 'onFill'> {
  onRemove: (line: LineView) => void;
  onCopy: (line: LineView) => void;
  onWalk: (line: LineView) => void;
  /** Takes an alternative in the place of the line that counts. */
  onInstead: (line: LineView) => void;
  /** Opens a line into its parts, or closes it. */
  onOpen: (line: LineView) => void;
  /** Marks a line for changing several together; from the last one marked, where all between are meant. */
  onMark: (line: LineView, allBetween: boolean) => void;
}

interface Props extends LineActs, Pick<CellMeans, 'means' | 'judged'> {
  row: Extract<LedgerRow, { is: 'line' }>;
  columns: readonly Shown[];
  /** Its walk is open. */
  walked: boolean;
  marked: boolean;
}

/**
 * The cells of a line of the Ledger: what it is, and its figures, of which one types those that are one's own
 * to say.
 */
export function LineCells({
  row,
  means,
  judged,
  columns,
  walked,
  marked,
  onChange,
  onExplain,
  onFill,
  onRemove,
  onCopy,
  onWalk,
  onInstead,
  onOpen,
  onMark,
}: Props): ReactNode {
  const { t, language } = useSpeech();
  const { may } = means;
  const { line } = row;
  const at = String(line.position);
  const cell: CellMeans = { line, means, judged, t, language, onChange, onExplain, onFill };
  return (
    <>
      <td className={classes(css.position, css.held)}>
        {may.edit && (
          <input
            type="checkbox"
            checked={marked}
            aria-label={t('marked.mark', { line: at })}
            onChange={() => undefined}
            onClick={(event) => onMark(line, event.shiftKey)}
          />
        )}
        <span
          data-handle
          className={classes(may.edit && css.handle)}
          title={may.edit ? t('ledger.drag') : undefined}
        >
          {at}
        </span>
      </td>
      <What row={row} means={means} onChange={onChange} onOpen={onOpen} />
      {columns.map((column) => (
        <td
          key={column.id}
          data-column={column.id}
          data-title={t(column.title)}
          className={classes(css.figure, column.held !== undefined && css.held)}
          {...heldAt(column)}
        >
          {cellOf(column.id, cell)}
        </td>
      ))}
      <Acts {...{ line, may, walked, onChange, onRemove, onCopy, onWalk, onInstead }} />
    </>
  );
}

/** What it is: its name, its number or the way to its build, and what is told of it. */
function What({
  row: { line, open },
  means,
  onChange,
  onOpen,
}: Pick<Props, 'row' | 'means' | 'onChange' | 'onOpen'>) {
  const { t, language } = useSpeech();
  const { may } = means;
  const at = String(line.position);
  const more = notesOn(line, t, language, means.decimals);
  return (
    <td className={classes(css.what, css.held, line.group !== null && css.inside)}>
      {hasParts(line) && (
        <button
          type="button"
          className={css.turn}
          aria-expanded={open}
          aria-label={t('ledger.partsOfLine', { line: at })}
          onClick={() => onOpen(line)}
        >
          {open ? <ChevronDown size={13} aria-hidden /> : <ChevronRight size={13} aria-hidden />}
        </button>
      )}
      <span className={css.name}>{own(line.name, language)}</span>
      {line.alternative && (
        <i className={css.alternative}>
          {' '}
          {line.insteadOf === undefined
            ? t('paper.alternativeAlone')
            : t('ledger.alternative', { line: line.insteadOf })}
        </i>
      )}
      {line.optional && <i className={css.alternative}> {t('ledger.optional')}</i>}
      <span className={css.second}>
        {line.buildId ? (
          <a
            className={css.code}
            data-waits={onBench(line) || undefined}
            href={`/bench/${line.buildId}`}
            title={may.edit ? t('ledger.edit') : t('ledger.open')}
          >
            {line.partNumber}
          </a>
        ) : (
          <span className={css.code}>{line.partNumber}</span>
        )}
        {line.recurs && (
          <TermFields line={line} disabled={!may.edit} onChange={(term) => onChange(line, { term })} />
        )}
        {more.length > 0 && (
          <span className={css.more} title={more.join('\n')}>
            {more.join(' · ')}
          </span>
        )}
      </span>
      {line.typedCost !== undefined && <OwnCost line={line} means={means} onChange={onChange} />}
      <Remarks line={line} />
    </td>
  );
}

/** What is wrong with a line, what warns of it, and what is made specially. */
function Remarks({ line }: { line: LineView }) {
  const { t, language } = useSpeech();
  return (
    <>
      {line.problems.map((problem) => (
        <span key={problem.code} className={css.problem}>
          <TriangleAlert size={13} aria-hidden />
          {t(problem.code, problem.params)}
        </span>
      ))}
      {line.warnings.map((warning) => (
        <span key={warning.rule} className={css.warning}>
          <TriangleAlert size={13} aria-hidden />
          {own(warning.text, language)}
          {warning.passed && (
            <i> {t('ledger.passed', { who: warning.passed.by, reason: warning.passed.reason })}</i>
          )}
        </span>
      ))}
      {line.special.map((part) => (
        <span key={part.item} className={css.warning}>
          {t('ledger.specialPart', { text: part.text })}
        </span>
      ))}
    </>
  );
}

type ActsProps = Pick<Props, 'onChange' | 'onRemove' | 'onCopy' | 'onInstead'> & {
  line: LineView;
  may: Means['may'];
};

/** What can be done to a line, at its end. */
function Acts({ line, may, walked, onWalk, ...acts }: ActsProps & Pick<Props, 'walked' | 'onWalk'>) {
  const { t } = useSpeech();
  return (
    <td className={css.lineActs}>
      <Button
        look="plain"
        className={css.iconAct}
        aria-label={t('ledger.walkOf', { line: line.position })}
        title={t('ledger.walk')}
        aria-pressed={walked}
        onClick={() => onWalk(line)}
      >
        <Route size={14} aria-hidden />
      </Button>
      {may.edit && <EditActs line={line} may={may} {...acts} />}
    </td>
  );
}

function EditActs({ line, may, onChange, onRemove, onCopy, onInstead }: ActsProps) {
  const { t, language } = useSpeech();
  const at = String(line.position);
  return (
    <>
      {may.discount && (
        <Button
          look="plain"
          className={css.iconAct}
          aria-label={t('ledger.lock', { line: at })}
          title={t(line.locked ? 'ledger.locked' : 'ledger.lock', { line: at })}
          aria-pressed={line.locked}
          onClick={() => void onChange(line, { locked: !line.locked })}
        >
          {line.locked ? <Lock size={14} aria-hidden /> : <LockOpen size={14} aria-hidden />}
        </Button>
      )}
      {line.alternative ? (
        <Button
          look="plain"
          className={css.iconAct}
          aria-label={t('ledger.takeInstead', { line: at, other: line.insteadOf ?? '–' })}
          title={t('ledger.takeInstead', { line: at, other: line.insteadOf ?? '–' })}
          onClick={() => onInstead(line)}
        >
          <ArrowUpDown size={14} aria-hidden />
        </Button>
      ) : (
        <Button
          look="plain"
          className={css.iconAct}
          aria-label={t('ledger.setAside', { line: at })}
          title={t('ledger.setAsideWhy')}
          aria-pressed={line.optional}
          onClick={() => void onChange(line, { optional: !line.optional })}
        >
          <CircleDashed size={14} aria-hidden />
        </Button>
      )}
      <Button
        look="plain"
        className={css.iconAct}
        aria-label={t('ledger.copy', { line: at })}
        title={`${t('ledger.copy', { line: at })} (${keysIn('Ctrl D', language)})`}
        onClick={() => onCopy(line)}
      >
        <Copy size={14} aria-hidden />
      </Button>
      <Button
        look="plain"
        className={css.iconAct}
        aria-label={t('ledger.remove', { line: at })}
        title={t('ledger.remove', { line: at })}
        onClick={() => onRemove(line)}
      >
        <Trash2 size={14} aria-hidden />
      </Button>
    </>
  );
}

/** What is told of a line beside its number: what recurs, what covers it, what was chosen. */
function notesOn(
  { recurs, price, covers, summary, sku, retired }: LineView,
  t: Translate,
  language: string,
  decimals: number,
): string[] {
  const days = (from: string, to: string) => ({ from: date(from, language), to: date(to, language) });
  return [
    ...(retired
      ? [
          retired.next === null
            ? t('line.inactive', { sku })
            : t('line.replaced', { sku, next: retired.next }),
        ]
      : []),
    ...(!recurs && price.recurring
      ? [t('ledger.termSet', days(price.recurring.from, price.recurring.to))]
      : []),
    ...runningIn(price).map(({ net, from, to }) =>
      t('ledger.subscribed', { net: money(net, language, decimals), ...days(from, to) }),
    ),
    ...(price.subscriptions && price.margin !== undefined
      ? [t('ledger.marginOfAll', { margin: percent(price.margin, language) })]
      : []),
    ...covers.map(({ name, from, to }) =>
      t('ledger.cover', { name: own(name, language), ...days(from, to) }),
    ),
    ...(summary ? [own(summary, language)] : []),
  ];
}

/** Whether it can be sold only once something is mended on the Bench. */
const onBench = ({ problems }: LineView): boolean => problems.some(({ code }) => ofBuilds.has(code));

/** What a piece costs of what is made up for this line. */
function OwnCost({
  line,
  means: { may, currency, decimals },
  onChange,
}: Pick<LineActs, 'onChange'> & { line: LineView; means: Means }) {
  const { t, language } = useSpeech();
  const { position, typedCost, price } = line;
  const shown = typedCost ?? price.unitCost;
  return (
    <span className={css.term}>
      <span>{t('ledger.costEach')}</span>
      <EditCell
        label={t('ledger.costOf', { line: position })}
        value={shown === undefined ? '' : money(shown, language, decimals)}
        disabled={!may.edit || !may.discount}
        strong={typedCost != null}
        check={(typed) => wrongMoney(typed, language, currency, t)}
        onSave={(typed) => onChange(line, { cost: moneyOrNone(typed, language, currency) })}
      />
    </span>
  );
}
