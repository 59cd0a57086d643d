import type { Address, LedgerColumn } from '../../contract';
import { moneyIn } from '../../i18n';
import { Button, Dialog, DialogFoot, LinkButton } from '../../ui';
import { useSpeech } from '../speech';
import { AddressDialog } from './dialogs/AddressDialog';
import { ColumnsDialog } from './dialogs/ColumnsDialog';
import { ContactDialog } from './dialogs/ContactDialog';
import { CustomerDialog } from './dialogs/CustomerDialog';
import { FreshenDialog } from './dialogs/FreshenDialog';
import { LoseDialog } from './dialogs/LoseDialog';
import { PasteDialog } from './dialogs/PasteDialog';
import { StartDialog } from './dialogs/StartDialog';
import { seesOf } from './grid/columns';
import type { HeadDialog } from './Head';
import type { QuoteActs } from './session/useQuote';
import type { LedgerActs } from './useLedgerActs';

interface Props {
  quote: QuoteActs;
  acts: LedgerActs;
  /** The one that is open. */
  dialog: HeadDialog | 'contact' | undefined;
  /** The address that is being changed. */
  moving: Address['kind'] | null;
  models: { id: string; name: Record<string, string> }[];
  columns: readonly LedgerColumn[] | null;
  onColumns: (columns: LedgerColumn[] | null) => void;
  onMoved: () => void;
  onClose: () => void;
}

/** Everything that is asked about a quote before it is done. */
export function Dialogs({
  quote,
  acts,
  dialog,
  moving,
  models,
  columns,
  onColumns,
  onMoved,
  onClose,
}: Props) {
  const { view, change } = quote;
  const { refused } = acts;
  const of = (name: Props['dialog']) => ({ open: dialog === name, view, onClose });
  return (
    <>
      <CustomerDialog
        {...of('customer')}
        onChange={async (customerId) =>
          refused(await change('POST /quotes/{id}/customer', { input: { customerId } }))
        }
      />
      <AddressDialog
        kind={moving}
        view={view}
        onChange={async (body) => refused(await change('POST /quotes/{id}/addresses', { input: body }))}
        onClose={onMoved}
      />
      <ContactDialog
        {...of('contact')}
        onChange={async (body) => refused(await change('POST /quotes/{id}/contacts', { input: body }))}
      />
      <PasteDialog
        {...of('paste')}
        onAdd={(rows) => change('POST /quotes/{id}/lines/several', { input: { rows } })}
      />
      <StartDialog {...of('start')} models={models} />
      <FreshenDialog
        {...of('freshen')}
        onTake={async (lines) => refused(await change('POST /quotes/{id}/freshening', { input: { lines } }))}
      />
      <ColumnsDialog
        open={dialog === 'columns'}
        sees={seesOf(view)}
        columns={columns}
        onChange={onColumns}
        onClose={onClose}
      />
      <LoseDialog
        {...of('lose')}
        onLose={async (lost) => refused(await change('POST /quotes/{id}/lose', { input: lost }))}
      />
      <AcceptDialog {...of('accept')} onGo={acts.accept} />
      <SendDialog {...of('send')} onGo={acts.send} />
    </>
  );
}

interface GoProps {
  open: boolean;
  view: QuoteActs['view'];
  onGo: () => Promise<void>;
  onClose: () => void;
}

const netOf = ({ totals, currency, decimals }: GoProps['view'], language: string): string =>
  moneyIn(totals.net, currency, language, decimals);

function AcceptDialog({ open, view, onGo, onClose }: GoProps) {
  const { t, language } = useSpeech();
  const count = view.lines.filter((line) => line.buildId && !line.alternative).length;
  return (
    <Dialog
      title={t('ledger.acceptTitle', { number: view.number })}
      closeText={t('frame.close')}
      open={open}
      onClose={onClose}
    >
      <p>{t('ledger.acceptText', { net: netOf(view, language), count })}</p>
      <Foot go={t('ledger.acceptGo')} onGo={onGo} onClose={onClose} />
    </Dialog>
  );
}

function SendDialog({ open, view, onGo, onClose }: GoProps) {
  const { t, language } = useSpeech();
  return (
    <Dialog
      title={t('revision.sendTitle', { number: view.number })}
      closeText={t('frame.close')}
      open={open}
      onClose={onClose}
    >
      <p>{t('revision.sendText', { revision: view.revision.number, net: netOf(view, language) })}</p>
      <DialogFoot>
        <Button onClick={onClose}>{t('ledger.cancel')}</Button>
        <Button onClick={() => void onGo().then(onClose)}>{t('revision.sendGo')}</Button>
        <LinkButton look="main" href={`/quotes/${view.id}/send`}>
          {t('revision.sendMail')}
        </LinkButton>
      </DialogFoot>
    </Dialog>
  );
}

/** Done or not, the dialog closes then. */
function Foot({ go, onGo, onClose }: Pick<GoProps, 'onGo' | 'onClose'> & { go: string }) {
  const { t } = useSpeech();
  return (
    <DialogFoot>
      <Button onClick={onClose}>{t('ledger.cancel')}</Button>
      <Button look="main" onClick={() => void onGo().then(onClose)}>
        {go}
      </Button>
    </DialogFoot>
  );
}
