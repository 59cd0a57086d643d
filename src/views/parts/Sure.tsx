import { Button, Dialog, DialogFoot } from '../../ui';
import { useSpeech } from '../speech';

interface Props {
  title: string;
  /** What would be lost, and what stays. */
  says: string;
  no: string;
  yes: string;
  onYes: () => void;
  onClose: () => void;
}

/** Asks before something is lost that cannot be taken back. */
export function Sure({ title, says, no, yes, onYes, onClose }: Props) {
  const { t } = useSpeech();
  return (
    <Dialog title={title} closeText={t('frame.close')} open onClose={onClose}>
      <p>{says}</p>
      <DialogFoot>
        <Button onClick={onClose}>{no}</Button>
        <Button
          look="main"
          onClick={() => {
            onClose();
            onYes();
          }}
        >
          {yes}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
