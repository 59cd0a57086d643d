import { triedAt } from '../../core/prices';
import type { PriceEntry } from '../../core/pricing';
import { money, number } from '../../i18n';
import { useSpeech } from '../speech';
import { percentText } from './entry-words';
import css from './prices.module.css';

/** Quantities at which an entry is tried: usual ones, and where a tier begins or ends. */
function quantitiesOf(entry: PriceEntry): string[] {
  const tiers =
    entry.method === 'bracket'
      ? entry.brackets
      : entry.method === 'graduated' || entry.method === 'usage'
        ? entry.slices
        : [];
  const own = tiers.flatMap(({ from, below }) => [from, ...(below === undefined ? [] : [below])]);
  return [...new Set(['1', '5', '10', '50', ...own])]
    .filter((each) => Number(each) > 0)
    .sort((a, b) => Number(a) - Number(b))
    .slice(0, 12);
}

interface Props {
  entry: PriceEntry;
  /** Of one piece; empty where it is not known. */
  cost: string;
  decimals: number;
}

/** What so many list at. */
export function Tried({ entry, cost, decimals }: Props) {
  const { t, language } = useSpeech();
  const rows = triedAt(entry, quantitiesOf(entry), cost === '' ? undefined : cost);
  return (
    <table className={css.tried} aria-label={t('prices.tried')}>
      <thead>
        <tr>
          <th scope="col">{t('prices.quantity')}</th>
          <th scope="col">{t('prices.amount')}</th>
          <th scope="col">{t('prices.one')}</th>
          <th scope="col">{t('prices.margin')}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ quantity, amount, each, margin }) => (
          <tr key={quantity}>
            <th scope="row">{number(quantity, language)}</th>
            <td>{amount === null ? '–' : money(amount, language, decimals)}</td>
            <td>{each === null || amount === null ? '–' : money(each, language, decimals)}</td>
            <td>{margin === null ? '–' : percentText(margin, language)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
