import { ArrowLeft } from 'lucide-react';
import type { Explanation, Figure, Operand } from '../../../core/pricing';
import { exact } from '../../../core/exact';
import { money, number, percent } from '../../../i18n';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import { stepName } from '../../parts/step-name';
import css from './explained.module.css';

interface Props {
  explanation: Explanation;
  /** "Net of line 3". */
  nameOf: (figure: Figure) => string;
  shown: (amount: string, figure: Figure) => string;
  decimals: number;
  onAsk: (figure: Figure) => void;
  /** To the figure that one came from. */
  onBack?: (() => void) | undefined;
}

/**
 * How a figure came about: each figure that it is made of with what is done to it, so that one can follow
 * with a pencil.
 */
export function Explained({ explanation, nameOf, shown, decimals, onAsk, onBack }: Props) {
  const { t, language } = useSpeech();
  const { figure, value, of, over, rounded, spread } = explanation;
  /** Money as money, and whatever has more digits with all of them. */
  const plain = (amount: string) =>
    (amount.split('.')[1] ?? '').length <= decimals
      ? money(amount, language, decimals)
      : number(amount, language, 12);
  const factor = (amount: string) => number(amount, language, 12);
  const named = (operand: Operand) =>
    operand.is === 'figure' ? (
      <button type="button" className={css.door} onClick={() => onAsk(operand.figure)}>
        {nameOf(operand.figure)}
      </button>
    ) : operand.is === 'step' ? (
      stepName(operand.step, t, language)
    ) : operand.is === 'taxed' ? (
      t('ledger.taxedOf', { rate: percent(operand.rate, language), net: plain(operand.net) })
    ) : (
      t(`ledger.operand.${operand.is}`)
    );
  const times = ({ times: many = '1', per = '1' }: Operand): string =>
    [
      ...(['1', '-1'].includes(many) ? [] : [`× ${factor(many)}`]),
      ...(per === '1' ? [] : [`÷ ${factor(per)}`]),
    ].join(' ');
  const comes = ({ value: each, times: many = '1', per = '1' }: Operand) =>
    exact(each).times(many).div(per).toString();
  return (
    <section className={css.explained} aria-label={t('ledger.explained', { what: nameOf(figure) })}>
      <div className={css.head}>
        {onBack && (
          <Button
            look="plain"
            aria-label={t('ledger.explainBack')}
            title={t('ledger.explainBack')}
            onClick={onBack}
          >
            <ArrowLeft size={14} aria-hidden />
          </Button>
        )}
        <h3>{nameOf(figure)}</h3>
        <b className={css.value}>{shown(value, figure)}</b>
      </div>
      <table className={css.of}>
        <tbody>
          {of.map((operand, index) => (
            // The same figure may be there more than once.
            <tr key={index}>
              <td>
                {operand.times === '-1' ? '− ' : index > 0 && !operand.value.startsWith('-') ? '+ ' : ''}
                {named(operand)}
                {times(operand) && (
                  <span className={css.factor}>
                    {plain(operand.value)} {times(operand)}
                  </span>
                )}
              </td>
              <td>{plain(comes(operand.times === '-1' ? { ...operand, times: '1' } : operand))}</td>
            </tr>
          ))}
          {over && (
            <tr>
              <td>÷ {named(over)}</td>
              <td>{plain(over.value)}</td>
            </tr>
          )}
        </tbody>
      </table>
      {of.length === 0 && <p className={css.quiet}>{t('ledger.explainNone')}</p>}
      {rounded !== undefined && (
        <p className={css.quiet}>
          {t(spread ? 'ledger.explainSpread' : 'ledger.explainRounded', { decimals: rounded })}
        </p>
      )}
      {over && <p className={css.quiet}>{t('ledger.explainShare')}</p>}
    </section>
  );
}
