import { lazy, Suspense } from 'react';
import { textKinds, type BlockChoice } from '../../../core/paper';
import { useSpeech } from '../../speech';
import type { Paper } from '../session/usePaper';
import { AnnexSettings } from './AnnexSettings';
import { DrawingSettings } from './DrawingSettings';
import { LineSettings } from './LineSettings';
import css from '../paper.module.css';

// The editors of texts and formulas weigh; they come when somebody opens a block that has one.
const TextSettings = lazy(() => import('./TextSettings'));
const Condition = lazy(() => import('./Condition'));

/** What can be chosen of a block. */
export function BlockSettings({ block, paper }: { block: BlockChoice; paper: Paper }) {
  const { t } = useSpeech();
  return (
    <div className={css.settings} role="group" aria-label={t(`composer.block.${block.kind}`)}>
      {(block.kind === 'lines' || block.kind === 'optional' || block.kind === 'alternatives') && (
        <LineSettings paper={paper} block={block.key} />
      )}
      {block.kind === 'drawings' && <DrawingSettings paper={paper} />}
      {block.kind === 'annexes' && <AnnexSettings paper={paper} />}
      <Suspense fallback={<p className={css.quiet}>{t('frame.looking')}</p>}>
        {textKinds.includes(block.kind) && <TextSettings block={block} paper={paper} />}
        <Condition block={block} paper={paper} />
      </Suspense>
    </div>
  );
}
