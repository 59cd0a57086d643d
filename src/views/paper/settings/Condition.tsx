import { paperScope, type BlockChoice } from '../../../core/paper';
import { FormulaField } from '../../parts/formula-field/FormulaField';
import { useSpeech } from '../../speech';
import type { Paper } from '../session/usePaper';

const yesno = { is: 'yesno' } as const;

/** When a block stands in the document. */
export default function Condition({ block, paper }: { block: BlockChoice; paper: Paper }) {
  const { t } = useSpeech();
  return (
    <FormulaField
      label={t('composer.when')}
      value={block.when}
      scope={paperScope('document')}
      wanted={yesno}
      readOnly={!paper.view.mayEdit}
      onChange={(when) => paper.session.block(block.key, { when }, `when ${block.key}`)}
    />
  );
}
