import { Button, Dialog, DialogFoot } from '../../../ui';
import { useSpeech } from '../../speech';

/** What would be lost, and what is done about it. */
export interface SureOf {
  is: 'leave' | 'drop';
  /** What it is called. */
  name: string;
  go: () => void;
}

/** Asks before something is lost that cannot be taken back. */
export function Sure({ sure, onClose }: { sure: SureOf; onClose: () => void }) {
  const { t } = useSpeech();
  const { is, name, go } = sure;
  return (
    <Dialog
      title={t(`paperHouse.sure.${is}.title`, { name })}
      closeText={t('frame.close')}
      open
      onClose={onClose}
    >
      <p>{t(`paperHouse.sure.${is}.says`, { name })}</p>
      <DialogFoot>
        <Button onClick={onClose}>{t(`paperHouse.sure.${is}.no`)}</Button>
        <Button
          look="main"
          onClick={() => {
            onClose();
            go();
          }}
        >
          {t(`paperHouse.sure.${is}.yes`)}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
