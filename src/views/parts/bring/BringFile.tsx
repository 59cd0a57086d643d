import { useRef, useState, type ClipboardEvent, type DragEvent } from 'react';
import { Upload } from 'lucide-react';
import { mostFileBytes } from '../../../core/exchange';
import type { FileKind, FileView } from '../../../contract';
import { Button, classes } from '../../../ui';
import { sentences } from '../../api';
import { useSpeech } from '../../speech';
import { sendFile, type Sending } from './sending';
import css from './bring.module.css';

interface Props {
  label: string;
  /** Kinds that can be used here; all where it is not said. */
  kinds?: readonly FileKind[];
  /** What is said where another kind was brought. */
  only?: string;
  onBrought: (file: FileView) => void;
}

interface Way {
  name: string;
  /** From 0 to 1; 1 while it is looked at. */
  far: number;
  wrong: string | null;
  file: File;
}

/** A place to bring a file to: by dropping, pasting or choosing it, with how far it is, a stop, and another try. */
export function BringFile(props: Props) {
  const { label } = props;
  const { t } = useSpeech();
  const { way, bring, stop } = useBringing(props);
  const [over, setOver] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const onDrop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    void bring(event.dataTransfer.files[0]);
  };
  const onPaste = (event: ClipboardEvent): void => {
    const [file] = event.clipboardData.files;
    if (!file) return;
    event.preventDefault();
    void bring(file);
  };
  return (
    <div
      role="group"
      aria-label={label}
      tabIndex={-1}
      className={classes(css.bring, over && css.over)}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
      onPaste={onPaste}
    >
      <input
        ref={field}
        type="file"
        aria-label={label}
        className={css.field}
        tabIndex={-1}
        onChange={(event) => {
          void bring(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {way && way.wrong === null ? (
        <Progress way={way} onStop={stop} />
      ) : (
        <div className={css.line}>
          <Button onClick={() => field.current?.click()}>
            <Upload size={14} aria-hidden />
            {t('files.bring')}
          </Button>
          <span className={css.hint}>{over ? t('files.taking') : t('files.drop')}</span>
        </div>
      )}
      {way && way.wrong !== null && (
        <p className={css.wrong} role="alert">
          {way.name}: {way.wrong}{' '}
          <button type="button" className={css.again} onClick={() => void bring(way.file)}>
            {t('files.again')}
          </button>
        </p>
      )}
    </div>
  );
}

/** A file on its way; another one that is brought takes its place. */
function useBringing({ kinds, only, onBrought }: Props) {
  const { t } = useSpeech();
  const [way, setWay] = useState<Way | null>(null);
  const sending = useRef<Sending | null>(null);
  const bring = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    sending.current?.stop();
    const { name } = file;
    const wrong = (text: string): void => setWay({ name, far: 0, wrong: text, file });
    if (file.size > mostFileBytes) {
      wrong(t('files.tooLarge', { most: mostFileBytes / 1024 / 1024 }));
      return;
    }
    setWay({ name, far: 0, wrong: null, file });
    const mine = sendFile(file, (far) => setWay({ name, far, wrong: null, file }));
    sending.current = mine;
    const answer = await mine.answer;
    if (sending.current !== mine) return;
    sending.current = null;
    if (!answer.ok)
      wrong(answer.status === 0 ? t('files.lost') : sentences(answer.failures, t('request.failed')));
    else if (kinds && !kinds.includes(answer.value.kind)) wrong(only ?? t('files.unknownKind'));
    else {
      setWay(null);
      onBrought(answer.value);
    }
  };
  const stop = (): void => {
    const running = sending.current;
    sending.current = null;
    running?.stop();
    setWay(null);
  };
  return { way, bring, stop };
}

function Progress({ way: { name, far }, onStop }: { way: Way; onStop: () => void }) {
  const { t } = useSpeech();
  const percent = Math.round(far * 100);
  return (
    <div className={css.line}>
      <progress aria-label={t('files.progress', { name })} max={100} value={percent} />
      <span className={css.hint}>
        {far < 1 ? t('files.bringing', { name, percent }) : t('files.working', { name })}
      </span>
      <Button look="plain" onClick={onStop}>
        {t('files.stop')}
      </Button>
    </div>
  );
}
