import { useRef, useState } from 'react';
import { Download, Upload } from 'lucide-react';
import type { DraftFileQuery } from '../../../contract';
import { Button, say } from '../../../ui';
import { Menu } from '../../../ui/Menu';
import { addressOf, send, sentences } from '../../api';
import { useSpeech } from '../../speech';

interface Props {
  draft: string;
  part: DraftFileQuery['part'];
  rule?: string;
  /** Formats in which it goes out. */
  out: readonly ('xlsx' | 'csv' | 'json' | 'dmn')[];
  /** Takes the rows of a file that somebody chose; nothing comes in where it is not there. */
  onRows?: (rows: string[][]) => void;
  /** By its marks alone, where there is little room. */
  compact?: boolean;
  /** Takes another kind of file. */
  onFile?: { accept: string; take: (file: File) => Promise<void> };
}

/** A part of the draft out as a file, and in from one. */
export function Exchange({ draft, part, rule, out, compact = false, onRows, onFile }: Props) {
  const { t } = useSpeech();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const take = async (file: File): Promise<void> => {
    setBusy(true);
    if (onFile?.accept.split(',').some((ending) => file.name.toLowerCase().endsWith(ending)))
      await onFile.take(file);
    else {
      const answer = await send('POST /read-rows', { file });
      if (answer.ok) onRows?.(answer.value.rows);
      else say(sentences(answer.failures, t('request.failed')), true);
    }
    setBusy(false);
  };
  const accept = [onRows ? '.xlsx,.csv' : '', onFile?.accept ?? ''].filter(Boolean).join(',');
  const items = out.map((format) => ({
    id: format,
    text: t(`draft.exchange.${format}`),
    href: addressOf('GET /drafts/{id}/as.{format}', {
      at: { id: draft, format },
      query: { part, ...(rule === undefined ? {} : { rule }) },
    }),
    download: true,
  }));
  return (
    <>
      <Menu label={t('draft.exchange.out')} items={items}>
        <Download size={14} aria-hidden /> {!compact && t('draft.exchange.out')}
      </Menu>
      {accept !== '' && (
        <>
          <Button
            look="plain"
            disabled={busy}
            aria-label={t('draft.exchange.in')}
            title={t('draft.exchange.in')}
            onClick={() => input.current?.click()}
          >
            <Upload size={14} aria-hidden /> {!compact && t('draft.exchange.in')}
          </Button>
          <input
            ref={input}
            type="file"
            hidden
            aria-label={t('draft.exchange.in')}
            accept={accept}
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
