import { exact } from '../../../core/exact';
import { atQuantities } from '../../../core/pricing';
import type { BenchView } from '../../../contract';
import { money, number } from '../../../i18n';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import type { Bench } from '../session/useBench';
import css from './side.module.css';

/** What a piece would come to at other quantities, before the quantity of the line is changed. */
export default function AtQuantities({ bench, view }: { bench: Bench; view: BenchView }) {
  const { t, language } = useSpeech();
  const { line, price } = bench.picture;
  const { decimals } = view.tariff;
  const { quantity } = view.terms;
  const { cost, unitCost } = line;
  const known =
    cost === undefined || unitCost === undefined
      ? undefined
      : { unit: unitCost, once: exact(cost).minus(exact(unitCost).times(quantity)).toString() };
  const rows = atQuantities(price.parts, view.terms, decimals, known);
  const amount = (value: string): string => money(value, language, decimals);
  if (rows.length < 2 || rows.every(({ each }) => each === rows[0]?.each))
    return <p className={shared.quiet}>{t('bench.sameAtAny')}</p>;
  return (
    <table className={css.parts}>
      <caption className={css.quantities}>{t('bench.atQuantities')}</caption>
      <thead>
        <tr>
          <th scope="col">{t('bench.quantity')}</th>
          <th scope="col">{t('bench.each')}</th>
          <th scope="col">{t('bench.saves')}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ quantity: count, each, saves }) => (
          <tr key={count} aria-current={count === quantity || undefined}>
            <td>{number(String(count), language)}</td>
            <td>{amount(each)}</td>
            <td>{exact(saves).isZero() ? '' : amount(saves)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
