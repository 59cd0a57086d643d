import { memo, useRef } from 'react';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { MoveOver } from '../panels/MoveOver';
import { WhyPanel } from '../panels/WhyPanel';
import { alertMark } from './marks';
import type { SheetProps } from './sheet-props';
import css from './sheet.module.css';
import { SheetTop } from './SheetParts';
import { SheetSection } from './SheetSection';
import { useSheet } from './useSheet';

/**
 * The sheet: every row of the model with its options, in sections, those of the builds inside behind the row
 * that brings them.
 */
export const Sheet = memo(function Sheet(props: SheetProps) {
  const { view, bench, words, frozen, clash, onPrefer, onTake, onMoved } = props;
  const { t } = useSpeech();
  const element = useRef<HTMLDivElement>(null);
  const sheet = useSheet(props, element);
  return (
    <div
      className={css.sheet}
      ref={element}
      role="region"
      aria-label={t('bench.sheet')}
      tabIndex={-1}
      onFocus={sheet.held}
    >
      <SheetTop sheet={element} rows={sheet.rows} preferences={view.preferences} onPrefer={onPrefer} />
      {frozen && (
        <p className={shared.note}>
          {alertMark}
          {t('bench.settledQuote')}
        </p>
      )}
      {!frozen && view.modelVersion.newest > view.modelVersion.number && (
        <MoveOver view={view} bench={bench} words={words} onMoved={onMoved} />
      )}
      {clash && (
        <WhyPanel
          clash
          title={t('bench.clashTitle')}
          why={clash}
          words={words}
          decimals={view.tariff.decimals}
          onTake={(way) => onTake(way.decisions)}
        />
      )}
      {sheet.sections.map((section) => (
        <SheetSection
          key={`${section.place ?? ''}/${section.id}`}
          section={section}
          sheet={sheet}
          props={props}
        />
      ))}
    </div>
  );
}, showsTheSame);

/** Whether nothing that the sheet draws has changed. */
function showsTheSame(before: SheetProps, after: SheetProps): boolean {
  for (const key of ['view', 'words', 'frozen', 'clash', 'asked', 'acts'] as const)
    if (before[key] !== after[key]) return false;
  for (const key of ['picture', 'moved', 'remarks', 'differences', 'scene', 'refusals'] as const)
    if (before.bench[key] !== after.bench[key] || before.later[key] !== after.later[key]) return false;
  return true;
}
