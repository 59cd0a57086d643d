import { lazy, Suspense, useState } from 'react';
import type { CustomerFound } from '../../contract';
import { Button, Dialog, DialogFoot, Field } from '../../ui';
import { ask, sentences } from '../api';
import { CustomerField } from '../parts/CustomerField';
import { useSpeech } from '../speech';

// Every page has this dialog, and few ever make a customer: the form comes when it is asked for.
const NewCustomer = lazy(async () => ({ default: (await import('../parts/NewCustomer')).NewCustomer }));

/** Opens a quote: part of a name finds the customer; everything else comes along. */
export function NewQuote({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { t } = useSpeech();
  const [customer, setCustomer] = useState<CustomerFound | null>(null);
  const [title, setTitle] = useState('');
  const [error, setError] = useState<string>();
  const [making, setMaking] = useState<string>();
  const go = async () => {
    if (!customer) {
      setError(t('newQuote.noCustomer'));
      return;
    }
    await openFor(customer);
  };
  const openFor = async ({ id }: CustomerFound) => {
    const answer = await ask('POST /quotes', { input: { customerId: id, title } });
    if (answer.ok) window.location.assign(`/quotes/${answer.value.id}`);
    else setError(sentences(answer.failures, t('request.failed')));
  };
  return (
    <Dialog title={t('newQuote.title')} closeText={t('frame.close')} open={open} onClose={onClose}>
      {making !== undefined ? (
        <Suspense fallback={<p role="status">{t('newCustomer.loading')}</p>}>
          <NewCustomer
            name={making}
            onCancel={() => setMaking(undefined)}
            onMade={(made) => {
              setCustomer(made);
              setMaking(undefined);
              void openFor(made);
            }}
          />
        </Suspense>
      ) : (
        <form
          method="dialog"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void go();
          }}
          style={{ display: 'grid', gap: 16, minHeight: 240, alignContent: 'space-between' }}
        >
          <div style={{ display: 'grid', gap: 16 }}>
            <CustomerField
              error={error}
              onMeant={(meant) => {
                setCustomer(meant);
                setError(undefined);
              }}
              onNew={setMaking}
            />
            <Field
              label={t('newQuote.name')}
              hint={t('newQuote.nameHint')}
              value={title}
              maxLength={120}
              onChange={(event) => setTitle(event.target.value)}
            />
          </div>
          <DialogFoot>
            <Button onClick={onClose}>{t('newQuote.cancel')}</Button>
            <Button look="main" type="submit">
              {t('newQuote.open')}
            </Button>
          </DialogFoot>
        </form>
      )}
    </Dialog>
  );
}
