import type { ComparedLine, Comparison, SideLine } from '../../../core/quotes';
import type { QuoteView, RevisionView } from '../../../contract';
import { date, money, moneyIn, own } from '../../../i18n';
import { Dialog } from '../../../ui';
import { ask, sentences } from '../../api';
import { useAnswer } from '../../parts/useAnswer';
import { useSpeech } from '../../speech';
import css from './compare.module.css';

interface CompareProps {
  view: QuoteView;
  pair: { before: number; after: number } | null;
  onChange: (pair: { before: number; after: number }) => void;
  onClose: () => void;
}

/** Two revisions beside each other: lines, builds and figures. */
export function CompareDialog({ view, pair, onChange, onClose }: CompareProps) {
  const { t } = useSpeech();
  const question = pair && [view.id, view.version, pair.before, pair.after].join();
  const { answer } = useAnswer<Comparison>(question, () =>
    ask('GET /quotes/{id}/revisions', {
      at: { id: view.id },
      query: { before: pair?.before ?? 0, after: pair?.after ?? 0 },
    }),
  );
  const wrong = answer && !answer.ok ? sentences(answer.failures, t('request.failed')) : null;
  const pick = (side: 'before' | 'after') =>
    pair && (
      <select
        aria-label={t(side === 'before' ? 'revision.left' : 'revision.right')}
        value={pair[side]}
        onChange={(event) => onChange({ ...pair, [side]: Number(event.target.value) })}
      >
        {view.revisions.map(({ number }: RevisionView) => (
          <option key={number} value={number}>
            {t('revision.one', { number })}
          </option>
        ))}
      </select>
    );
  return (
    <Dialog title={t('revision.compare')} closeText={t('frame.close')} open={pair !== null} onClose={onClose}>
      <div className={css.compare}>
        <div className={css.scroll} tabIndex={0} role="region" aria-label={t('revision.compare')}>
          <table className={css.table}>
            <thead>
              <tr>
                <td />
                <td />
                <th scope="col" className={css.at}>
                  {pick('before')}
                </th>
                <th scope="col" className={css.at}>
                  {pick('after')}
                </th>
              </tr>
            </thead>
            {answer?.ok && <Differences seen={answer.value} />}
          </table>
        </div>
        {wrong && (
          <p className={css.wrong} role="alert">
            {wrong}
          </p>
        )}
      </div>
    </Dialog>
  );
}

/** Everything that is otherwise, and what both come to. */
function Differences({ seen }: { seen: Comparison }) {
  const { t, language } = useSpeech();
  const { before, after } = seen;
  const differing = seen.lines.filter((line) => line.is !== 'same');
  const recurs = before.totals.recurring !== '0' || after.totals.recurring !== '0';
  const total = (of: 'net' | 'firstYear' | 'recurring') => (
    <tr className={css.sum}>
      <td />
      <th scope="row">{t(`ledger.figure.${of}`)}</th>
      {[before, after].map(({ totals, currency, decimals }, at) => (
        <td key={at} className={css.at}>
          {moneyIn(totals[of], currency, language, decimals)}
        </td>
      ))}
    </tr>
  );
  return (
    <tbody>
      {differing.length === 0 && (
        <tr>
          <td />
          <td colSpan={3}>{t('revision.same')}</td>
        </tr>
      )}
      {differing.map((line) => (
        <Compared
          key={line.is === 'removed' ? line.before.origin : line.after.origin}
          line={line}
          seen={seen}
        />
      ))}
      {before.validUntil !== after.validUntil && (
        <tr>
          <td />
          <th scope="row">{t('ledger.validUntil')}</th>
          <td className={css.at}>{date(before.validUntil, language)}</td>
          <td className={css.at}>{date(after.validUntil, language)}</td>
        </tr>
      )}
      {before.customer !== after.customer && (
        <tr>
          <td />
          <th scope="row">{t('quotes.customer')}</th>
          <td>{before.customer}</td>
          <td>{after.customer}</td>
        </tr>
      )}
      {recurs && (
        <>
          {total('recurring')}
          {total('firstYear')}
        </>
      )}
      {total('net')}
    </tbody>
  );
}

function Compared({ line, seen }: { line: ComparedLine; seen: Comparison }) {
  const { t, language } = useSpeech();
  const [before, after] = [
    line.is === 'added' ? undefined : line.before,
    line.is === 'removed' ? undefined : line.after,
  ];
  const shown = (side: SideLine | undefined, decimals: number, other: SideLine | undefined) =>
    side && (
      <>
        {money(side.net, language, decimals)}
        {(!other || side.quantity !== other.quantity || side.unitNet !== other.unitNet) && (
          <span className={css.under}>
            {side.quantity} × {money(side.unitNet, language, decimals)}
          </span>
        )}
        {other && side.counts !== other.counts && (
          <span className={css.under}>{t(side.counts ? 'revision.counts' : 'revision.aside')}</span>
        )}
      </>
    );
  const text = (texts: Record<string, string> | undefined) =>
    texts ? own(texts, language) : t('revision.nothing');
  const shownLine = after ?? before;
  return (
    <tr>
      <td className={css.at}>{shownLine?.position}</td>
      <td>
        <span className={line.is === 'removed' ? css.gone : undefined}>{own(shownLine?.name, language)}</span>
        {line.is === 'added' && <span className={css.word}>{t('revision.added')}</span>}
        {line.is === 'removed' && <span className={css.word}>{t('revision.removed')}</span>}
        {before && after && before.partNumber !== after.partNumber && (
          <span className={css.under}>
            {before.partNumber} → {after.partNumber}
          </span>
        )}
        {(line.is === 'changed' || line.is === 'same') &&
          line.choices.map(({ row, name, before: was, after: is }) => (
            <span key={row} className={css.under}>
              {own(name, language)}: {text(was)} → {text(is)}
            </span>
          ))}
      </td>
      <td className={css.at}>{shown(before, seen.before.decimals, after)}</td>
      <td className={css.at}>{shown(after, seen.after.decimals, before)}</td>
    </tr>
  );
}
