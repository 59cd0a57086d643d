/** The drawing of a model: its shapes and dimensions as grids, and the picture of what is tried out beside them. */
import { useEffect, useMemo, useState } from 'react';
import { viewOf, type Scene } from '../../../core/drawing';
import type { Drawing as DrawingDocument } from '../../../core/model';
import { own } from '../../../i18n';
import { Button, Tabs } from '../../../ui';
import { Grid, type GridHandle } from '../../../ui/grid';
import { Drawing } from '../../bench/drawing/Drawing';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useSpeech } from '../../speech';
import { FormulaBar } from '../grids/FormulaBar';
import {
  dimensionColumns,
  drawnFeel,
  freshDimension,
  freshShape,
  shapeColumns,
} from '../grids/shape-columns';
import { useListGrid } from '../grids/useListGrid';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

/** The drawing of a draft; one that has none yet is given one first. */
export function Drawn({ draft }: { draft: Draft }) {
  const { t } = useSpeech();
  const { drawing, name } = draft.document;
  if (drawing) return <Sheets draft={draft} drawing={drawing} />;
  const begin = (): void => {
    const views = [
      { id: 'front', name: { en: 'Front', de: 'Vorn' }, from: 'front' },
      { id: 'above', name: { en: 'Above', de: 'Oben' }, from: 'above' },
    ];
    const layers = [{ id: 'BODY', name, looks: 'steel' }];
    draft.session.edit({
      do: 'set',
      at: [],
      name: 'drawing',
      value: { views, layers, shapes: [], dimensions: [] },
    });
  };
  return (
    <div className={css.empty}>
      <p>{t('draft.shape.none')}</p>
      <Button look="main" onClick={begin}>
        {t('draft.shape.begin')}
      </Button>
    </div>
  );
}

function Sheets({ draft, drawing }: { draft: Draft; drawing: DrawingDocument }) {
  const words = useSpeech();
  const { t, language } = words;
  const gridWords = useGridWords();
  const { views, layers } = drawing;
  const [tab, setTab] = useState<'shapes' | 'dimensions'>('shapes');
  const shapes = useMemo(
    () =>
      shapeColumns(
        layers.map(({ id, name }) => ({ id, text: own(name, language) || id })),
        words,
      ),
    [layers, language, words],
  );
  const dimensions = useMemo(
    () =>
      dimensionColumns(
        views.map(({ id, name }) => ({ id, text: own(name, language) || id })),
        words,
      ),
    [views, language, words],
  );
  const [newShape] = useState(() => freshShape(layers[0]?.id ?? 'BODY'));
  const [newDimension] = useState(() => freshDimension(views[0]?.id ?? 'front'));
  const shapeGrid = useListGrid(draft, 'drawing.shapes', shapes, newShape);
  const dimensionGrid = useListGrid(draft, 'drawing.dimensions', dimensions, newDimension);
  const grid = tab === 'shapes' ? shapeGrid : dimensionGrid;
  const marked = useMarked(grid, tab);
  const scene = draft.tried?.seen?.scene ?? null;
  const tabs = (['shapes', 'dimensions'] as const).map((id) => ({ id, text: t(`draft.shape.${id}`) }));
  return (
    <div className={css.drawn}>
      <Picture
        drawing={drawing}
        scene={scene}
        marked={marked.id}
        onMark={(id) => {
          setTab(drawing.shapes.some((each) => each.id === id) ? 'shapes' : 'dimensions');
          marked.mark(id);
        }}
      />
      <div className={css.list}>
        <Tabs
          label={t('draft.shape.lists')}
          tabs={tabs}
          chosen={tab}
          onChoose={(id) => setTab(id === 'shapes' ? 'shapes' : 'dimensions')}
          panel="drawn-list"
        />
        <div id="drawn-list" role="tabpanel" aria-label={t(`draft.shape.${tab}`)} className={css.withBar}>
          <FormulaBar key={tab} draft={draft} grid={grid} feelOf={drawnFeel} />
          <Grid
            key={tab}
            label={t(`draft.shape.${tab}`)}
            grid={grid}
            words={gridWords}
            className={css.grid}
          />
        </div>
      </div>
    </div>
  );
}

/** The row of the cursor, and how another comes to it, also from the other list. */
function useMarked(grid: GridHandle, tab: string): { id: string | undefined; mark: (id: string) => void } {
  const [wanted, setWanted] = useState<string | null>(null);
  const { session, rows } = grid;
  useEffect(() => {
    const row = wanted === null ? -1 : session.state().rows.findIndex(({ id }) => id === wanted);
    if (row < 0) return;
    session.act((state) => ({ ...state, cursor: { row, column: 0 }, anchor: { row, column: 0 } }));
  }, [wanted, session, tab]);
  return { id: rows[grid.state.cursor.row]?.id, mark: setWanted };
}

const room = { width: 620, height: 250 };

/** What is tried out, as it is drawn; what belongs to the marked row is lit up, and what is pointed at marks its row. */
function Picture({
  drawing,
  scene,
  marked,
  onMark,
}: {
  drawing: DrawingDocument;
  scene: Scene | null;
  marked: string | undefined;
  onMark: (id: string) => void;
}) {
  const { t, language } = useSpeech();
  const [from, setFrom] = useState(drawing.views[0]?.id ?? '');
  const view = drawing.views.find(({ id }) => id === from) ?? drawing.views[0];
  const seen = useMemo(() => (scene && view ? viewOf(scene, view.id, view.from) : null), [scene, view]);
  const tabs = drawing.views.map(({ id, name }) => ({ id, text: own(name, language) || id }));
  return (
    <section className={css.picture} aria-label={t('draft.part.drawing')}>
      <Tabs
        label={t('draft.part.drawing')}
        tabs={tabs}
        chosen={view?.id ?? ''}
        onChoose={setFrom}
        panel="drawn-picture"
      />
      <div id="drawn-picture" role="tabpanel" aria-label={own(view?.name, language)} className={css.paper}>
        {seen && seen.figures.length > 0 ? (
          <Drawing
            view={seen}
            language={language}
            label={own(view?.name, language)}
            write={(millimetres) => String(Math.round(millimetres))}
            room={room}
            {...(marked === undefined ? {} : { marked })}
            onMark={onMark}
          />
        ) : (
          <p className={css.quiet}>{t('draft.shape.nothing')}</p>
        )}
      </div>
    </section>
  );
}
