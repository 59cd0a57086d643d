import { useRef, useState } from 'react';
import { Download, Upload } from 'lucide-react';
import { Button, say } from '../../../ui';
import { Menu } from '../../../ui/Menu';
import { send, sentences } from '../../api';
import { useSpeech } from '../../speech';

interface Props {
  /** The address of a file of all rows. */
  out: (format: 'xlsx' | 'csv') => string;
  /** Takes the rows of a file that is brought; nothing where none can be. */
  onRows: ((rows: string[][]) => void) | null;
}

/** All rows out as a file, and the rows of one in. */
export function Exchange({ out, onRows }: Props) {
  const { t } = useSpeech();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const take = async (file: File): Promise<void> => {
    setBusy(true);
    const answer = await send('POST /read-rows', { file });
    setBusy(false);
    if (answer.ok) onRows?.(answer.value.rows);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  return (
    <>
      <Menu
        label={t('grid.takeOut')}
        items={(['xlsx', 'csv'] as const).map((format) => ({
          id: format,
          text: format.toUpperCase(),
          href: out(format),
          download: true,
        }))}
      >
        <Download size={14} aria-hidden /> {t('grid.takeOut')}
      </Menu>
      {onRows && (
        <>
          <Button look="plain" disabled={busy} onClick={() => input.current?.click()}>
            <Upload size={14} aria-hidden /> {t('grid.takeIn')}
          </Button>
          <input
            ref={input}
            type="file"
            hidden
            aria-label={t('grid.takeIn')}
            accept=".xlsx,.csv"
            onChange={({ target }) => {
              const [file] = target.files ?? [];
              if (file) void take(file);
              target.value = '';
            }}
          />
        </>
      )}
    </>
  );
}
