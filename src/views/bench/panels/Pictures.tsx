import { useState } from 'react';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import type { BenchView } from '../../../contract';
import type { Feature, Parameter } from '../../../core/model';
import { Button, Dialog } from '../../../ui';
import { addressOf } from '../../api';
import { useSpeech } from '../../speech';
import type { Words } from '../words';
import { pictureOf } from './pictured';
import css from './pictures.module.css';

interface Props {
  row: Feature | Parameter;
  facts: BenchView['facts'];
  words: Words;
}

/** The pictures of the options of a row; one that is pressed is looked at large, and the next by its keys. */
export function Pictures({ row, facts, words }: Props) {
  const { t } = useSpeech();
  const [large, setLarge] = useState<number | null>(null);
  const shown = ('options' in row ? row.options : []).flatMap((option) => {
    const picture = pictureOf(option, facts);
    return picture === undefined ? [] : [{ id: option.id, picture, name: words.option(row.id, option.id) }];
  });
  const at = large === null ? undefined : shown[large];
  const turn = (by: number): void => setLarge(((large ?? 0) + by + shown.length) % shown.length);
  return (
    <>
      <ul className={css.pictures} aria-label={t('bench.pictures')}>
        {shown.map(({ id, picture, name }, index) => (
          <li key={id}>
            <button type="button" onClick={() => setLarge(index)} title={t('bench.lookAt', { name })}>
              <img
                src={addressOf('GET /files/{id}', { at: { id: picture }, query: { as: 'small' } })}
                alt=""
              />
              <span>{name}</span>
            </button>
          </li>
        ))}
      </ul>
      {at && (
        <Dialog title={at.name} closeText={t('bench.close')} open onClose={() => setLarge(null)}>
          <figure
            className={css.large}
            onKeyDown={({ key }) => {
              if (key === 'ArrowRight') turn(1);
              if (key === 'ArrowLeft') turn(-1);
            }}
          >
            <img
              src={addressOf('GET /files/{id}', { at: { id: at.picture }, query: { as: 'whole' } })}
              alt={at.name}
            />
            {shown.length > 1 && (
              <figcaption>
                <Button look="plain" aria-label={t('bench.pictureBefore')} onClick={() => turn(-1)}>
                  <ChevronLeft size={18} aria-hidden />
                </Button>
                {t('bench.pictureOf', { place: (large ?? 0) + 1, count: shown.length })}
                <Button look="plain" aria-label={t('bench.pictureAfter')} data-first onClick={() => turn(1)}>
                  <ChevronRight size={18} aria-hidden />
                </Button>
              </figcaption>
            )}
          </figure>
        </Dialog>
      )}
    </>
  );
}
