import { useEffect, useMemo, useState } from 'react';
import { X } from 'lucide-react';
import { viewOf, type Scene, type View } from '../../../core/drawing';
import type { Drawing as DrawingPart, Feature, Parameter } from '../../../core/model';
import type { BenchView } from '../../../contract';
import { own } from '../../../i18n';
import { useSpeech } from '../../speech';
import { Drawing } from '../drawing/Drawing';
import css from './help.module.css';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';
import { isPictured } from './pictured';
import { Pictures } from './Pictures';

const room = { width: 560, height: 150 };

interface Props {
  row: string;
  known: Feature | Parameter | undefined;
  /** Something in the drawing shows it. */
  sketched: boolean;
  bench: Bench;
  drawing: DrawingPart | undefined;
  facts: BenchView['facts'];
  words: Words;
  onClose: () => void;
}

/**
 * What a row means: its words, what it can be, and where on the build it is; on an example, as long as too
 * little is chosen to draw the build itself.
 */
export default function Help({ row, known, sketched, bench, drawing, facts, words, onClose }: Props) {
  const { t, language } = useSpeech();
  const { scene, example: ask } = bench;
  const [example, setExample] = useState<Scene | null>(null);
  const seen = useMemo(() => (scene && drawing ? best(scene, drawing, row) : null), [scene, drawing, row]);
  const wanting = sketched && !seen && scene !== null;
  useEffect(() => {
    if (!wanting) return;
    let current = true;
    void ask().then((found) => {
      if (current) setExample(found);
    });
    return () => {
      current = false;
    };
  }, [ask, wanting]);
  const instead = useMemo(
    () => (wanting && example && drawing ? best(example, drawing, row) : null),
    [wanting, example, drawing, row],
  );
  const view = seen ?? instead;
  const pictured = isPictured(known, facts);
  const text = own(known?.help, language);
  const range =
    known && 'step' in known
      ? t('draw.from', {
          least: words.number(known.least, known.unit),
          most: words.number(known.most, known.unit),
          step: words.number(known.step, known.unit),
        })
      : '';
  return (
    <div
      ref={inSight}
      className={css.help}
      role="note"
      aria-label={t('bench.helpOn', { what: words.row(row) })}
    >
      {view && (
        <div className={css.sketch}>
          <Drawing
            view={view}
            row={row}
            language={language}
            label={t('draw.where', { what: words.row(row) })}
            write={(length) => words.length(length)}
            room={room}
          />
        </div>
      )}
      {instead && <p className={css.text}>{t('draw.example')}</p>}
      {text && <p className={css.text}>{text}</p>}
      {range && <p className={css.text}>{range}</p>}
      {pictured && known && <Pictures row={known} facts={facts} words={words} />}
      {!view && !text && !range && !pictured && <p className={css.text}>{t('draw.notYet')}</p>}
      <button type="button" className={css.close} aria-label={t('bench.close')} onClick={onClose}>
        <X size={13} aria-hidden />
      </button>
    </div>
  );
}

/** Brings what was opened into sight. */
const inSight = (element: HTMLElement | null): void => element?.scrollIntoView({ block: 'nearest' });

/** The view that measures the row; else one in which something shows it. */
function best(scene: Scene, drawing: DrawingPart, row: string): View | null {
  const views = drawing.views.map((each) => viewOf(scene, each.id, each.from));
  return (
    views.find((view) => view.dimensions.some((each) => each.of === row)) ??
    views.find((view) => view.figures.some((each) => each.of === row)) ??
    null
  );
}
