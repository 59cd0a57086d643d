import type { BuildPrice, LinePrice, WalkStep } from '../../core/pricing';
import { money, number, own, percent, type Translate } from '../../i18n';
import { classes } from '../../ui';
import { useSpeech } from '../speech';
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
            <td>{own(part.name, language)}</td>
            <td className={css.rate}>{part.quantity && part.quantity !== '1' ? `${number(part.quantity, language)} × ${amount(part.unitPrice ?? '0')}` : ''}</td>
            <td>{amount(part.amount)}</td>
          </tr>
        ))}
        {price.steps.map((step, index) => (
          <tr key={`${step.kind}${String(index)}`}>
            <td>{nameOf(step, t, language)}</td>
            <td className={css.rate}>{step.rate ? percent(step.rate, language) : ''}</td>
            <td>{amount(step.amount)}</td>
          </tr>
        ))}
        <tr className={css.net}><td>{t('walk.net')}</td><td /><td>{amount(price.unitNet)}</td></tr>
        {quantity !== 1 && <tr className={classes(css.net)}><td>{t('walk.total')}</td><td className={css.rate}>{t('walk.times', { quantity })}</td><td>{amount(price.net)}</td></tr>}
        {price.cost !== undefined && <tr><td>{t('walk.cost')}</td><td /><td>{amount(price.cost)}</td></tr>}
        {price.margin !== undefined && <tr><td>{t('walk.margin')}</td><td /><td>{percent(price.margin, language, 1)}</td></tr>}
      </tbody>
    </table>
  );
}

function nameOf(step: WalkStep, t: Translate, language: string): string {
  if (step.kind === 'surcharge') return t('walk.surcharge', { name: typeof step.name === 'object' ? own(step.name, language) : '' });
  if (step.kind === 'agreement') {
    const kind = typeof step.name === 'string' && ['direct', 'key', 'dealer', 'public'].includes(step.name) ? t(`class.${step.name as 'key'}`) : '';
    return t('walk.agreement', { name: kind });
  }
  return t(`walk.${step.kind}`);
}
