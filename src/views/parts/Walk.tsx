import type { BuildPrice, LinePrice } from '../../core/pricing';
import { money, number, own, percent } from '../../i18n';
import { useSpeech } from '../speech';
import { stepName } from './step-name';
import css from './walk.module.css';

interface Props {
  price: LinePrice;
  parts?: BuildPrice | undefined;
  quantity: number;
  currency: string;
  decimals: number;
}

/** From list price to net, step by step, each with its reason; a build's list price opens into its parts. */
export function Walk({ price, parts, quantity, currency, decimals }: Props) {
  const { t, language } = useSpeech();
  const amount = (value: string) => money(value, language, decimals);
  return (
    <table className={css.walk}>
      <caption className={css.quiet} style={{ textAlign: 'right' }}>{currency}</caption>
      <tbody>
        {parts?.parts.filter((part) => part.kind !== 'surcharge').map((part) => (
          <tr key={part.id} className={css.part}>
            <td>{own(part.name, language)} {part.quantity && part.quantity !== '1' && <span className={css.rate}>{number(part.quantity, language)} × {amount(part.unitPrice ?? '0')}</span>}</td>
            <td>{amount(part.amount)}</td>
          </tr>
        ))}
        {price.steps.map((step, index) => (
          <tr key={`${step.kind}${String(index)}`}>
            <td>{stepName(step, t, language)} {step.rate && <span className={css.rate}>{percent(step.rate, language)}</span>}</td>
            <td>{step.kind === 'rounding' ? number(step.amount, language, 6) : amount(step.amount)}</td>
          </tr>
        ))}
        <tr className={css.net}><td>{t('walk.net')}</td><td>{amount(price.unitNet)}</td></tr>
        {price.once && <tr className={css.net}><td>{t('walk.once')}</td><td>{amount(price.once.net)}</td></tr>}
        {(quantity !== 1 || price.once) && <tr className={css.net}><td>{t('walk.total')} <span className={css.rate}>{t('walk.times', { quantity })}</span></td><td>{amount(price.net)}</td></tr>}
        {price.cost !== undefined && <tr><td>{t('walk.cost')}</td><td>{amount(price.cost)}</td></tr>}
        {price.margin !== undefined && <tr><td>{t('walk.margin')}</td><td>{percent(price.margin, language, 1)}</td></tr>}
      </tbody>
    </table>
  );
}
