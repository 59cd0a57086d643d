import { useMemo } from 'react';
import { X } from 'lucide-react';
import { viewOf, type Scene, type View } from '../../core/drawing';
import type { Drawing as DrawingPart } from '../../core/model';
import { useSpeech } from '../speech';
import { Drawing } from './Drawing';
import css from './help.module.css';
import type { Words } from './words';

const room = { width: 560, height: 150 };

/** What a row means: its words, and where on the build it is. */
export function Help({ row, text, scene, drawing, words, onClose }: { row: string; text: string; scene: Scene | null; drawing: DrawingPart | undefined; words: Words; onClose: () => void }) {
  const { t, language } = useSpeech();
  const view = useMemo(() => (scene && drawing ? best(scene, drawing, row) : null), [scene, drawing, row]);
  return (
    <div className={css.help} role="note" aria-label={t('bench.helpOn', { what: words.row(row) })}>
      {view && <div className={css.sketch}><Drawing view={view} row={row} language={language} label={t('draw.where', { what: words.row(row) })} write={(length) => words.length(length)} room={room} /></div>}
      {text && <p className={css.text}>{text}</p>}
      {!view && !text && <p className={css.text}>{t('draw.notYet')}</p>}
      <button type="button" className={css.close} aria-label={t('bench.close')} onClick={onClose}><X size={13} aria-hidden /></button>
    </div>
  );
}

/** The view that measures the row; else one in which something shows it. */
function best(scene: Scene, drawing: DrawingPart, row: string): View | null {
  const views = drawing.views.map((each) => viewOf(scene, each.id, each.from));
  return views.find((view) => view.dimensions.some((each) => each.of === row)) ?? views.find((view) => view.figures.some((each) => each.of === row)) ?? null;
}
