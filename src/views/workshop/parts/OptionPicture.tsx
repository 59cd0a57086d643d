import { useState } from 'react';
import { Image, X } from 'lucide-react';
import { pictureKinds } from '../../../contract';
import type { ModelDocument } from '../../../core/model';
import { Button, Dialog } from '../../../ui';
import { addressOf } from '../../api';
import { BringFile } from '../../parts/bring/BringFile';
import { useSpeech } from '../../speech';
import { partName } from '../change-words';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

/** The picture of the option that a line of the outline is; nothing for another line. */
export function OptionPicture({ draft, line }: { draft: Draft; line: string | undefined }) {
  const words = useSpeech();
  const { t } = words;
  const [open, setOpen] = useState(false);
  const { document, session } = draft;
  const at = optionAt(document, line);
  if (!at) return null;
  const picture = document.features
    .find(({ id }) => id === at[1])
    ?.options.find(({ id }) => id === at[3])?.picture;
  const set = (value?: string): void => {
    session.edit({ do: 'set', at, name: 'picture', ...(value === undefined ? {} : { value }) });
    setOpen(false);
  };
  const name = partName(document, at, words);
  return (
    <span className={css.thumb}>
      {picture !== undefined && (
        <img
          src={addressOf('GET /files/{id}', { at: { id: picture }, query: { as: 'small' } })}
          alt={t('draft.picture.of', { name })}
        />
      )}
      <Button look="plain" onClick={() => setOpen(true)}>
        <Image size={14} aria-hidden /> {t('draft.picture.choose')}
      </Button>
      <Dialog
        title={t('draft.picture.of', { name })}
        closeText={t('frame.close')}
        open={open}
        onClose={() => setOpen(false)}
      >
        <BringFile
          label={t('draft.picture.of', { name })}
          kinds={pictureKinds}
          only={t('files.only')}
          onBrought={({ id }) => set(id)}
        />
        {picture !== undefined && (
          <Button look="plain" onClick={() => set()}>
            <X size={14} aria-hidden /> {t('draft.picture.none')}
          </Button>
        )}
      </Dialog>
    </span>
  );
}

/** The way to the option of a line such as "rows/surface/plate". */
function optionAt({ features }: ModelDocument, line: string | undefined): string[] | null {
  const [rows, feature = '', option] = (line ?? '').split('/');
  return rows === 'rows' && option !== undefined && features.some(({ id }) => id === feature)
    ? ['features', feature, 'options', option]
    : null;
}
