import type { RefObject } from 'react';
import type { State } from '../../../core/engine';
import type { BenchPicture } from '../../../core/builds';
import type { BenchView } from '../../../contract';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { foldedMark, unfoldedMark } from './marks';
import { SectionInSight } from './viewport';
import css from './sheet.module.css';

/** Above the rows: where one is, how many options are folded away, and the units. */
export function SheetTop({
  sheet,
  rows,
  preferences,
  onPrefer,
}: {
  sheet: RefObject<HTMLElement | null>;
  rows: State['rows'];
  preferences: BenchView['preferences'];
  onPrefer: (change: Partial<BenchView['preferences']>) => void;
}) {
  const { t } = useSpeech();
  const { foldBarred, units } = preferences;
  const barred = Object.values(rows).flatMap((row) =>
    row.shown ? (row.options ?? []).filter(({ standing, taken }) => standing === 'barred' && !taken) : [],
  ).length;
  return (
    <div className={css.top}>
      <SectionInSight sheet={sheet} />
      <button
        type="button"
        className={css.switch}
        aria-pressed={foldBarred}
        title="F6"
        onClick={() => onPrefer({ foldBarred: !foldBarred })}
      >
        {t('bench.fold', { count: barred })}
      </button>
      <button
        type="button"
        className={css.switch}
        title="F9"
        onClick={() => onPrefer({ units: units === 'metric' ? 'imperial' : 'metric' })}
      >
        {t(`bench.units.${units}`)}
      </button>
    </div>
  );
}

/** Opens and closes the sections of a build inside. */
export function Opener({
  name = '',
  folded,
  onToggle,
}: {
  name: string | undefined;
  folded: boolean;
  onToggle: () => void;
}) {
  const { t } = useSpeech();
  return (
    <button
      type="button"
      className={css.opener}
      aria-expanded={!folded}
      aria-label={t(folded ? 'bench.openInside' : 'bench.closeInside', { what: name })}
      onClick={onToggle}
    >
      {folded ? foldedMark : unfoldedMark}
    </button>
  );
}

/** The part number of a build inside, and how much of it is still to do. */
export function InsideNumber({
  place,
  sections,
  picture: { state, inside },
}: {
  place: string;
  sections: BenchView['outline']['sections'];
  picture: BenchPicture;
}) {
  const { t } = useSpeech();
  const todo = sections
    .filter((each) => each.place === place)
    .flatMap((each) => each.rows)
    .filter((id) => state.rows[id]?.shown && state.rows[id].todo).length;
  return (
    <span className={css.insideNumber}>
      {todo > 0 ? `${t('bench.todo', { count: todo })} · ` : ''}
      {inside[place]}
    </span>
  );
}

/** Why the server did not take what was decided here. */
export function Refusal({ sentence, onAgain }: { sentence: string; onAgain: (() => void) | undefined }) {
  const { t } = useSpeech();
  return (
    <p className={shared.rowError} role="alert">
      {t('bench.refusedRow', { why: sentence })}{' '}
      {onAgain && (
        <Button look="plain" onClick={onAgain}>
          {t('bench.saveAgain')}
        </Button>
      )}
    </p>
  );
}
