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
  const { t } = useSpeech();
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
        {seen && <WhatChanges seen={seen} />}
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

/** What another customer changes, line by line, and what is taken back since it is in another currency. */
function WhatChanges({ seen }: { seen: CustomerChange }) {
  const { t, language } = useSpeech();
  const { before, after, customer, lines, takenBack } = seen;
  const figures = (was: string, is: string) => (
    <>
      <td className={css.at}>{moneyIn(was, before.currency, language, before.decimals)}</td>
      <td className={css.at}>{moneyIn(is, after.currency, language, after.decimals)}</td>
    </>
  );
  return (
    <div className={css.rows} tabIndex={0} role="region" aria-label={t('customer.whatChanges')}>
      <p>
        {t('customer.comes', { class: t(`class.${customer.class as 'key'}`), list: after.priceList })}
        {takenBack.length > 0 && (
          <span className={css.wrong}>
            {' '}
            {t('customer.takenBack', {
              currency: after.currency,
              lines: takenBack.map((at) => (at === 0 ? t('ledger.wholeQuote') : String(at))).join(', '),
            })}
          </span>
        )}
      </p>
      <table>
        <tbody>
          {lines.map((line) => (
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
              {figures(line.before, line.after)}
            </tr>
          ))}
          <tr>
            <td />
            <th scope="row">{t('ledger.net')}</th>
            {figures(before.net, after.net)}
          </tr>
        </tbody>
      </table>
    </div>
  );
}
