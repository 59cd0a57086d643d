import { pictureKinds } from '../../../contract';
import { Button } from '../../../ui';
import { addressOf } from '../../api';
import { BringFile } from '../../parts/bring/BringFile';
import { useSpeech } from '../../speech';
import css from './paper-house.module.css';

/** The picture on the letter head: the house's own, or another one for this template. */
export function Mark({ mark, onMark }: { mark: string | null; onMark: (mark: string | null) => void }) {
  const { t } = useSpeech();
  return (
    <div className={css.mark}>
      <span className={css.quiet}>{t('paperHouse.mark')}</span>
      {mark === null ? (
        <BringFile
          label={t('paperHouse.mark')}
          kinds={pictureKinds}
          only={t('paperHouse.markOnly')}
          onBrought={({ id }) => onMark(id)}
        />
      ) : (
        <>
          <img
            src={addressOf('GET /files/{id}', { at: { id: mark }, query: { as: 'small' } })}
            alt={t('paperHouse.mark')}
          />
          <Button onClick={() => onMark(null)}>{t('paperHouse.houseMark')}</Button>
        </>
      )}
    </div>
  );
}
