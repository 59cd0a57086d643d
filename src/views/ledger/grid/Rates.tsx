import type { LineView, RatesInput } from '../../../contract';
import { number } from '../../../i18n';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import css from '../side/deal.module.css';
import { EditCell } from './EditCell';
import { sendableMoney, wrongBy } from './typed-amount';

interface Props {
  line: LineView;
  currency: string;
  mayEdit: boolean;
  /** null goes back to those of the list; gives the sentence of a refusal. */
  onChange: (rates: RatesInput | null) => Promise<string | null>;
}

/** What each piece costs by how many there are; agreed for one line, where one may. */
export function Rates({ line, currency, mayEdit, onChange }: Props) {
  const { t, language } = useSpeech();
  const rates = line.usage;
  if (!rates) return null;
  const now: RatesInput = {
    each: rates.slices.map(({ rate }) => rate),
    ...(rates.least === undefined ? {} : { least: rates.least }),
  };
  const cell = (label: string, value: string, change: (typed: string) => RatesInput) => (
    <EditCell
      label={label}
      value={number(value, language, 6)}
      disabled={!mayEdit}
      strong={rates.typed}
      check={(typed) => wrongBy('amount', typed, language, currency, t)}
      onSave={(typed) => onChange(change(sendableMoney(typed, language, currency)))}
    />
  );
  return (
    <section className={css.rates} aria-label={t('rates.title')}>
      <h3>
        {t('rates.title')} <span className={css.quiet}>{t(rates.typed ? 'rates.typed' : 'rates.list')}</span>
      </h3>
      <table>
        <tbody>
          {rates.slices.map(({ from, below, rate }, index) => {
            const tier =
              below === undefined
                ? t('rates.from', { from: number(from, language) })
                : t('rates.to', { below: number(below, language) });
            return (
              <tr key={from}>
                <td>{tier}</td>
                <td>
                  {cell(t('rates.of', { tier }), rate, (typed) => ({
                    ...now,
                    each: now.each.map((each, at) => (at === index ? typed : each)),
                  }))}
                </td>
              </tr>
            );
          })}
          {rates.least !== undefined && (
            <tr>
              <td>{t('rates.least')}</td>
              <td>{cell(t('rates.least'), rates.least, (typed) => ({ ...now, least: typed }))}</td>
            </tr>
          )}
        </tbody>
      </table>
      {rates.typed && mayEdit && <Button onClick={() => void onChange(null)}>{t('rates.back')}</Button>}
    </section>
  );
}
