import type { ReactNode } from 'react';
import { Check, CornerUpLeft, TriangleAlert } from 'lucide-react';
import { own, number as written } from '../../../i18n';
import { unitText } from '../../parts/unit-text';
import { useSpeech } from '../../speech';
import css from './paste.module.css';
import { inParts, otherUnit, unitIn, type PastedRow } from './pasted-row';

interface Acts {
  /** Says how many of a row, where that was not clear. */
  onQuantity: (row: PastedRow, quantity: string) => void;
  /** Takes another number for a row. */
  onInstead: (row: PastedRow, number: string) => void;
}

/** The rows of a pasted list: what was read of each, and what is wrong and could be instead. */
export function PastedRows({ rows, ...acts }: Acts & { rows: readonly PastedRow[] }) {
  const { t, language } = useSpeech();
  return (
    <div className={css.rows} tabIndex={0} role="region" aria-label={t('paste.title')}>
      <table>
        <tbody>
          {rows.map((row) => (
            <tr key={row.at}>
              <td className={css.at}>{row.at}</td>
              <td className={css.number}>{row.number}</td>
              <td className={css.at}>
                {row.quantity === 0
                  ? '?'
                  : `${written(String(row.quantity), language)}${row.read.is === 'item' && row.read.unit !== 'pc' ? ` ${unitText(row.read.unit, t)}` : ''}`}
              </td>
              <td className={css.at}>{row.discount !== undefined && `${row.discount} %`}</td>
              <td>
                {row.read.is !== 'wrong' && <span>{own(row.read.name, language)} </span>}
                <Told row={row} {...acts} />
                {row.read.is === 'wrong' && row.read.nearest && (
                  <Nearest nearest={row.read.nearest} onTake={(number) => acts.onInstead(row, number)} />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What was found, or what is wrong. */
function Told({ row, onQuantity }: Pick<Acts, 'onQuantity'> & { row: PastedRow }) {
  const { t } = useSpeech();
  const { read: found, quantity, twoWays, unread } = row;
  if (twoWays) return <TwoWays ways={twoWays} onTake={(each) => onQuantity(row, each)} />;
  const one = () => onQuantity(row, '1');
  if (quantity === 0)
    return (
      <Wrong>
        {unread === undefined ? t('quantity.range') : t('paste.unread', { text: unread })}{' '}
        {found.is !== 'wrong' && (
          <button type="button" className={css.nearest} onClick={one}>
            {t('paste.takeOne')}
          </button>
        )}
      </Wrong>
    );
  if (found.is === 'wrong') return <Wrong>{t(found.code as 'line.unknownItem', found.params)}</Wrong>;
  if (otherUnit(row))
    return (
      <Wrong>
        {t('paste.otherUnit', { said: unitText(row.unit ?? '', t), unit: unitText(unitIn(row), t) })}
      </Wrong>
    );
  if (inParts(row)) return <Wrong>{t('quantity.byPiece', { sku: row.number })}</Wrong>;
  const Mark = found.is === 'item' ? Check : CornerUpLeft;
  return (
    <span className={css.found}>
      <Mark size={13} aria-hidden />
      {t(found.is === 'item' ? 'paste.found' : found.complete ? 'paste.readBack' : 'paste.incomplete')}
    </span>
  );
}

function Wrong({ children }: { children: ReactNode }) {
  return (
    <span className={css.wrong}>
      <TriangleAlert size={13} aria-hidden />
      {children}
    </span>
  );
}

/** A number that may be meant in two ways. */
function TwoWays({ ways, onTake }: { ways: readonly string[]; onTake: (way: string) => void }) {
  const { t, language } = useSpeech();
  return (
    <Wrong>
      {t('paste.howMany')}{' '}
      {[...ways].reverse().map((each) => (
        <button key={each} type="button" className={css.nearest} onClick={() => onTake(each)}>
          {written(each, language)}
        </button>
      ))}
    </Wrong>
  );
}

function Nearest({
  nearest,
  onTake,
}: {
  nearest: { number: string; name: Record<string, string> };
  onTake: (number: string) => void;
}) {
  const { t, language } = useSpeech();
  return (
    <button type="button" className={css.nearest} onClick={() => onTake(nearest.number)}>
      {t('paste.nearest', { number: nearest.number, name: own(nearest.name, language) })}
    </button>
  );
}
