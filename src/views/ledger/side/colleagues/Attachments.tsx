import { useState } from 'react';
import { X } from 'lucide-react';
import { attachmentKinds, type AttachmentKind } from '../../../../core/colleagues';
import type { AttachmentView } from '../../../../contract';
import { dateTime, number } from '../../../../i18n';
import { Button, Select } from '../../../../ui';
import { ask } from '../../../api';
import { BringFile } from '../../../parts/bring/BringFile';
import { useSpeech } from '../../../speech';
import css from './colleagues.module.css';
import type { ColleaguesHere } from './useColleagues';

interface Props {
  quote: string;
  files: readonly AttachmentView[];
  may: boolean;
  did: ColleaguesHere['did'];
}

/** What the customer gave along: drawings, their order; it can go with a mail again. */
export function Attachments({ quote, files, may, did }: Props) {
  const { t, language } = useSpeech();
  const [kind, setKind] = useState<AttachmentKind>('drawing');
  if (!may && files.length === 0) return null;
  return (
    <section aria-label={t('colleague.files')}>
      <h3>{t('colleague.files')}</h3>
      {files.length > 0 && (
        <ul className={css.list}>
          {files.map(({ file, name, size, by, at, kind: is }) => (
            <li key={file} className={css.file}>
              <a href={`/api/files/${file}`}>{name}</a>
              {may && (
                <Button
                  look="plain"
                  aria-label={t('colleague.detach', { name })}
                  title={t('colleague.detach', { name })}
                  onClick={() =>
                    void did(ask('DELETE /quotes/{id}/attachments/{file}', { at: { id: quote, file } }))
                  }
                >
                  <X size={14} aria-hidden />
                </Button>
              )}
              <span className={css.under}>
                {t(`colleague.fileIs.${is}`)} ·{' '}
                {t('mail.kb', { kb: number(String(Math.max(1, Math.round(size / 1024))), language) })} · {by},{' '}
                {dateTime(at, language)}
              </span>
            </li>
          ))}
        </ul>
      )}
      {may && (
        <div className={css.bring}>
          <Select
            label={t('colleague.fileKind')}
            value={kind}
            options={attachmentKinds.map((value) => ({ value, text: t(`colleague.fileIs.${value}`) }))}
            onChange={(event) => setKind(event.target.value as AttachmentKind)}
          />
          <BringFile
            label={t('colleague.attach')}
            onBrought={({ id: file }) =>
              void did(
                ask('POST /quotes/{id}/attachments', { at: { id: quote }, input: { file, kind, words: '' } }),
              )
            }
          />
        </div>
      )}
    </section>
  );
}
