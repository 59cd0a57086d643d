import { useMemo } from 'react';
import type { RichWords } from '../../../ui/rich-text';
import { useSpeech } from '../../speech';

/** What the field of rich text says, in the language of its reader. */
export function useRichWords(): RichWords {
  const { t } = useSpeech();
  return useMemo(
    () => ({
      bold: t('composer.rich.bold'),
      italic: t('composer.rich.italic'),
      list: t('composer.rich.list'),
      ordered: t('composer.rich.ordered'),
      link: t('composer.rich.link'),
      unlink: t('composer.rich.unlink'),
      address: t('composer.rich.address'),
    }),
    [t],
  );
}
