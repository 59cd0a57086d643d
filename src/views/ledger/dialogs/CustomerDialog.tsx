import { useState } from 'react';
import type { CustomerChange, CustomerFound, QuoteView } from '../../../contract';
import { moneyIn, own } from '../../../i18n';
import { Button, Dialog, DialogFoot } from '../../../ui';
import { ask, sentences } from '../../api';
import { useAnswer } from '../../parts/useAnswer';
import { CustomerField } from '../../parts/CustomerField';
import { useSpeech } from '../../speech';
import css from './paste.module.css';

interface Props {
  open: boolean;
  view: QuoteView;
  /** Makes the change; gives the sentence of a refusal. */
  onChange: (customerId: string) => Promise<string | null>;
  onClose: () => void;
}

/** Another customer for the quote: what it would change is shown line by line before it does. */
export function CustomerDialog({ open, view, onChange, onClose }: Props) {
  const { t, language } = useSpeech();
  const [customer, setCustomer] = useState<CustomerFound | null>(null);
  const question = open && customer ? [view.id, view.version, customer.id].join() : null;
  const { answer } = useAnswer<CustomerChange>(question, () =>
    ask('GET /quotes/{id}/customer', { at: { id: view.id }, query: { to: customer?.id ?? '' } }),
  );
  const seen = answer?.ok ? answer.value : null;
  const [refused, setRefused] = useState<{ of: string | null; sentence: string }>();
  const wrong =
    refused?.of === question
      ? refused.sentence
      : answer && !answer.ok
        ? sentences(answer.failures, t('request.failed'))
        : null;
  const go = async () => {
    if (!customer) return;
    const refusal = await onChange(customer.id);
    if (refusal === null) onClose();
    else setRefused({ of: question, sentence: refusal });
  };
  const [before, after] = [seen?.before, seen?.after];
  return (
    <Dialog title={t('customer.change')} closeText={t('frame.close')} open={open} onClose={onClose}>
      <div
        style={{
          display: 'grid',
          gap: 16,
          minWidth: 'min(560px, 80vw)',
          minHeight: 220,
          alignContent: 'start',
        }}
      >
        <CustomerField onMeant={setCustomer} />
        {seen && before && after && (
          <div className={css.rows} tabIndex={0} role="region" aria-label={t('customer.whatChanges')}>
            <p>
              {t('customer.comes', {
                class: t(`class.${seen.customer.class as 'key'}`),
                list: after.priceList,
              })}
              {seen.takenBack.length > 0 && (
                <span className={css.wrong}>
                  {' '}
                  {t('customer.takenBack', {
                    currency: after.currency,
                    lines: seen.takenBack
                      .map((at) => (at === 0 ? t('ledger.wholeQuote') : String(at)))
                      .join(', '),
                  })}
                </span>
              )}
            </p>
            <table>
              <tbody>
                {seen.lines.map((line) => (
                  <tr key={line.position}>
                    <td className={css.at}>{line.position}</td>
                    <td>
                      {own(line.name, language)}
                      {line.problems.map((problem) => (
                        <span key={problem.code} className={css.wrong}>
                          {' '}
                          {t(problem.code, problem.params)}
                        </span>
                      ))}
                    </td>
                    <td className={css.at}>
                      {moneyIn(line.before, before.currency, language, before.decimals)}
                    </td>
                    <td className={css.at}>
                      {moneyIn(line.after, after.currency, language, after.decimals)}
                    </td>
                  </tr>
                ))}
                <tr>
                  <td />
                  <th scope="row">{t('ledger.net')}</th>
                  <td className={css.at}>
                    {moneyIn(before.net, before.currency, language, before.decimals)}
                  </td>
                  <td className={css.at}>{moneyIn(after.net, after.currency, language, after.decimals)}</td>
                </tr>
              </tbody>
            </table>
          </div>
        )}
        {wrong && (
          <p className={css.wrong} role="alert">
            {wrong}
          </p>
        )}
      </div>
      <DialogFoot>
        <Button onClick={onClose}>{t('ledger.cancel')}</Button>
        <Button look="main" disabled={!seen} onClick={() => void go()}>
          {t('customer.go')}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
