import { useMemo } from 'react';
import { TriangleAlert } from 'lucide-react';
import type { DraftCheck } from '../../../contract';
import type { Segment } from '../../../core/model';
import { own } from '../../../i18n';
import { Button } from '../../../ui';
import { Grid } from '../../../ui/grid';
import { CodeRail } from '../../bench/head/CodeRail';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useSpeech } from '../../speech';
import { FormulaBar } from '../grids/FormulaBar';
import { cellsOfSegment, segmentColumns, segmentOf } from '../grids/segment-columns';
import { useValueGrid, type ValueGrid } from '../grids/useValueGrid';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  /** What was found when the draft was examined last. */
  check: DraftCheck | null;
  onRow: (row: string) => void;
  onExamine: () => void;
}

/** The scheme of the part number: its segments, each with what it comes to, and the live number. */
export function Numbering({ draft, check, onRow, onExamine }: Props) {
  const words = useSpeech();
  const { t } = words;
  const gridWords = useGridWords();
  const { document, session, tried } = draft;
  const seen = tried?.seen;
  const plan = useMemo(
    (): ValueGrid<Segment[]> => ({
      columns: segmentColumns(words),
      cellsOf: (segments) => segments.map(cellsOfSegment),
      valueOf: (cells) => cells.map(segmentOf),
    }),
    [words],
  );
  const grid = useValueGrid(document.numbering, plan, (value) =>
    session.edit({ do: 'set', at: [], name: 'numbering', value }),
  );
  const nameOf = (id: string): string =>
    own([...document.features, ...document.parameters].find((row) => row.id === id)?.name, words.language) ||
    id;
  const same = (check?.findings ?? []).filter(
    ({ kind }) => kind === 'sameNumber' || kind === 'unreadableNumber',
  );
  return (
    <div className={css.numbering}>
      <FormulaBar
        draft={draft}
        grid={grid}
        feelOf={(column) => (column === 'when' ? { wanted: { is: 'yesno' } } : undefined)}
      />
      <Grid label={t('draft.part.numbering')} grid={grid} words={gridWords} className={css.grid} />
      <footer className={css.live}>
        <ol className={css.pieces} aria-label={t('draft.segment.pieces')}>
          {(seen?.segments ?? []).map((text, at) => (
            <li key={at} data-none={text === '' || undefined}>
              <span className={css.quiet}>{at + 1}</span>
              <span className={css.code}>{text === '' ? '–' : (text ?? '·')}</span>
            </li>
          ))}
        </ol>
        {seen && <CodeRail number={seen.picture.number} outline={seen.outline} onGo={onRow} />}
        {same.map(({ kind, at, number = '', rows = [] }) => (
          <p key={`${kind} ${at} ${number}`} className={css.wrong} role="alert">
            <TriangleAlert size={14} aria-hidden /> {t(`draft.check.kind.${kind}`, { number })}{' '}
            {rows.length > 0 && t('draft.segment.differ', { rows: rows.map(nameOf).join(', ') })}
          </p>
        ))}
        <div className={css.actsPlain}>
          <Button look="plain" onClick={onExamine}>
            {t('draft.segment.examine')}
          </Button>
          {check && same.length === 0 && <span className={css.quiet}>{t('draft.segment.none')}</span>}
        </div>
      </footer>
    </div>
  );
}
