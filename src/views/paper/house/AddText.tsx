import { usualBlock } from '../../../core/paper';
import { own } from '../../../i18n';
import { Select } from '../../../ui';
import { useSpeech } from '../../speech';
import type { Paper } from '../session/usePaper';
import css from './paper-house.module.css';

/** One more text of the house as a block of its own; or a text block taken out again. */
export function AddText({ paper }: { paper: Paper }) {
  const { t, language } = useSpeech();
  const { composition, session, view } = paper;
  const there = new Set(composition.blocks.map(({ key }) => key));
  const free = view.texts.filter(({ place, code }) => place === 'document' && !there.has(code));
  if (free.length === 0) return null;
  return (
    <div className={css.add}>
      <Select
        label={t('paperHouse.addText')}
        value=""
        options={[
          { value: '', text: t('paperHouse.choose') },
          ...free.map(({ code, name }) => ({ value: code, text: own(name, language) })),
        ]}
        onChange={(event) => {
          const code = event.target.value;
          if (code === '') return;
          session.change(
            (now) => ({
              ...now,
              blocks: [...now.blocks, { ...usualBlock('text'), key: code, text: code, on: true }],
            }),
            code,
          );
        }}
      />
    </div>
  );
}
