import { useMemo } from 'react';
import { richProblems, type BlockChoice, type RichText } from '../../../core/paper';
import { own, sentence } from '../../../i18n';
import { Button, Select } from '../../../ui';
import { RichTextField } from '../../../ui/rich-text';
import { useSpeech } from '../../speech';
import type { Paper } from '../session/usePaper';
import { useRichWords } from './rich-words';

/** The text of a block: the house's, or one of its own for this document alone. */
export default function TextSettings({ block, paper }: { block: BlockChoice; paper: Paper }) {
  const { t, language } = useSpeech();
  const { composition, session, view } = paper;
  const words = useRichWords();
  const house = view.texts.find(({ code }) => code === block.text);
  const of: RichText = house?.words[composition.language === 'de' ? 'de' : 'en'] ?? [];
  const shown = block.own ?? of;
  const problem = useMemo(() => {
    const [first] = richProblems(shown, 'document');
    return first && sentence(language, first.problem.code, first.problem.params);
  }, [shown, language]);
  return (
    <>
      <Select
        label={t('composer.text')}
        disabled={!view.mayEdit}
        value={block.text}
        options={[
          { value: '', text: t('composer.usualText') },
          ...view.texts
            .filter(({ place }) => place === 'document')
            .map(({ code, name }) => ({ value: code, text: own(name, language) })),
        ]}
        onChange={(event) => session.block(block.key, { text: event.target.value, own: null })}
      />
      <RichTextField
        label={t('composer.words')}
        value={shown}
        readOnly={!view.mayEdit}
        words={words}
        problem={problem}
        onChange={(value) => session.block(block.key, { own: value }, `text ${block.key}`)}
      />
      {block.own && view.mayEdit && (
        <Button onClick={() => session.block(block.key, { own: null })}>{t('composer.backToHouse')}</Button>
      )}
    </>
  );
}
