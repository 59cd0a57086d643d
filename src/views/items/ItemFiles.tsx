import { useState } from 'react';
import { FileText } from 'lucide-react';
import { pictureKinds, type FileView, type ItemView } from '../../contract';
import { own } from '../../i18n';
import { Button } from '../../ui';
import { addressOf } from '../api';
import { BringFile } from '../parts/bring/BringFile';
import { useSpeech } from '../speech';
import type { ItemDraft } from './useItem';
import css from './item.module.css';

/** Its picture and its data sheet. */
export function ItemFiles({ draft, view }: { draft: ItemDraft; view: ItemView }) {
  const { t, language } = useSpeech();
  const { item, change } = draft;
  const [names, setNames] = useState<Record<string, string>>(view.files);
  const take = (field: 'picture' | 'dataSheet', { id, name }: FileView): void => {
    setNames({ ...names, [id]: name });
    change({ [field]: id });
  };
  return (
    <>
      <div className={css.half}>
        <span className={css.quiet}>{t('items.field.picture')}</span>
        {item.picture === null ? (
          <BringFile
            label={t('items.field.picture')}
            kinds={pictureKinds}
            only={t('item.pictureOnly')}
            onBrought={(file) => take('picture', file)}
          />
        ) : (
          <div className={css.file}>
            <img
              src={addressOf('GET /files/{id}', { at: { id: item.picture }, query: { as: 'small' } })}
              alt={own(item.name, language)}
            />
            <Button onClick={() => change({ picture: null })}>{t('items.dropFile')}</Button>
          </div>
        )}
      </div>
      <div className={css.half}>
        <span className={css.quiet}>{t('items.field.dataSheet')}</span>
        {item.dataSheet === null ? (
          <BringFile
            label={t('items.field.dataSheet')}
            kinds={['pdf']}
            only={t('item.dataSheetOnly')}
            onBrought={(file) => take('dataSheet', file)}
          />
        ) : (
          <div className={css.file}>
            <a href={addressOf('GET /files/{id}', { at: { id: item.dataSheet }, query: {} })}>
              <FileText size={15} aria-hidden /> {names[item.dataSheet] ?? t('items.field.dataSheet')}
            </a>
            <Button onClick={() => change({ dataSheet: null })}>{t('items.dropFile')}</Button>
          </div>
        )}
      </div>
    </>
  );
}
