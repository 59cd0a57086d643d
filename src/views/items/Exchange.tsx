import { useRef, useState } from 'react';
import { Download, Upload } from 'lucide-react';
import { Button, say } from '../../ui';
import { Menu } from '../../ui/Menu';
import { addressOf, send, sentences } from '../api';
import { useSpeech } from '../speech';

/** All items out as a file, and the rows of one in. */
export function Exchange({ onRows }: { onRows: (rows: string[][]) => void }) {
  const { t } = useSpeech();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const take = async (file: File): Promise<void> => {
    setBusy(true);
    const answer = await send('POST /read-rows', { file });
    setBusy(false);
    if (answer.ok) onRows(answer.value.rows);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  return (
    <>
      <Menu
        label={t('items.out')}
        items={(['xlsx', 'csv'] as const).map((format) => ({
          id: format,
          text: format.toUpperCase(),
          href: addressOf('GET /catalogue/items.{format}', { at: { format } }),
          download: true,
        }))}
      >
        <Download size={14} aria-hidden /> {t('items.out')}
      </Menu>
      <Button look="plain" disabled={busy} onClick={() => input.current?.click()}>
        <Upload size={14} aria-hidden /> {t('items.in')}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={t('items.in')}
        accept=".xlsx,.csv"
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file) void take(file);
          target.value = '';
        }}
      />
    </>
  );
}
