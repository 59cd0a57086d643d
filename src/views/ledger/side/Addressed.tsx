import type { Address, QuoteView } from '../../../contract';
import { useSpeech } from '../../speech';
import css from '../ledger.module.css';
import { About } from './About';
import type { HeadDialog } from '../Head';

interface Props {
  view: QuoteView;
  onMove: (kind: Address['kind']) => void;
  onContact: () => void;
  onDialog: (dialog: HeadDialog) => void;
  /** Gives the sentence of a refusal. */
  onValidUntil: (day: string) => Promise<string | null>;
}

/** Beneath the lines: to whom and where, until when, and by what list. */
export function Addressed({ view, onMove, onContact, onDialog, onValidUntil }: Props) {
  const { t } = useSpeech();
  const { may } = view;
  return (
    <div className={css.address}>
      {addressesOf(view).map(({ kind, street, postcode, town, country }) => (
        <p key={kind}>
          <Asked
            title={t(`ledger.${kind}`)}
            change={t('address.change', { which: t(`ledger.${kind}`) })}
            onAsk={may.edit ? () => onMove(kind) : undefined}
          />
          {street}
          <br />
          {postcode} {town}, {country}
        </p>
      ))}
      <p>
        <Asked
          title={t('ledger.contact')}
          change={t('contact.change')}
          onAsk={may.edit ? onContact : undefined}
        />
        {view.customer.contactName}
        <br />
        {view.customer.contactEmail}
        <br />
        {t('ledger.paid', { count: view.customer.paymentDays ?? 30 })}
      </p>
      <About view={view} onDialog={onDialog} onValidUntil={onValidUntil} />
    </div>
  );
}

/** A title by which what stands beneath it can be changed, where it may be. */
function Asked({ title, change, onAsk }: { title: string; change: string; onAsk: (() => void) | undefined }) {
  return (
    <b>
      {onAsk ? (
        <button type="button" className={css.asks} aria-label={change} title={change} onClick={onAsk}>
          {title}
        </button>
      ) : (
        title
      )}
    </b>
  );
}

/** Without one of its own, delivery goes to where the invoice goes. */
function addressesOf({ customer: { addresses } }: QuoteView): Address[] {
  const [first] = addresses;
  return first && !addresses.some(({ kind }) => kind === 'delivery')
    ? [...addresses, { ...first, kind: 'delivery' }]
    : addresses;
}
