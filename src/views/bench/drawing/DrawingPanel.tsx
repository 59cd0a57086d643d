import { lazy, Suspense, useMemo, useState } from 'react';
import { viewOf } from '../../../core/drawing';
import type { BenchView } from '../../../contract';
import { own } from '../../../i18n';
import { Tabs, classes } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import { Drawing } from './Drawing';
import css from './drawing.module.css';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';
import { fileMark, largerMark, smallerMark } from '../sheet/marks';

// The part in three dimensions is large, and loads when it is first shown.
const Space = lazy(() => import('../sheet/Space'));

const rooms = { small: { width: 258, height: 160 }, large: { width: 520, height: 320 } };

/**
 * The build as it stands: its views, and in space, each following every decision; each can be taken away as a
 * file.
 */
export function DrawingPanel({
  bench,
  view,
  words,
  large,
  onLarge,
  onGo,
}: {
  bench: Bench;
  view: BenchView;
  words: Words;
  large: boolean;
  onLarge: () => void;
  onGo: (row: string) => void;
}) {
  const { t, language } = useSpeech();
  const { drawing } = view.document;
  const [tab, setTab] = useState(drawing?.views[0]?.id ?? 'space');
  const { scene } = bench;
  const chosen = drawing?.views.find((each) => each.id === tab);
  const seen = useMemo(
    () => (scene && chosen ? viewOf(scene, chosen.id, chosen.from) : null),
    [scene, chosen],
  );
  if (!drawing) return null;
  const tabs = [
    ...drawing.views.map((each) => ({ id: each.id, text: own(each.name, language) })),
    { id: 'space', text: t('draw.space') },
  ];
  const empty = !scene || scene.solids.length === 0;
  const [waits] = scene?.waits ?? [];
  const files =
    tab === 'space'
      ? [['glTF', 'glb']]
      : [
          ['SVG', 'svg'],
          ['DXF', 'dxf'],
        ];
  return (
    <section className={classes(css.panel, large && css.large)} aria-label={t('draw.title')}>
      <div className={css.head}>
        <Tabs label={t('draw.title')} tabs={tabs} chosen={tab} onChoose={setTab} panel="drawing-panel" />
        <span className={css.files}>
          {files.map(([name, format]) => (
            <a
              key={name}
              className={css.file}
              href={`/api/builds/${view.build.id}/drawing.${format ?? ''}?view=${tab}`}
              download
              title={t('draw.save', { format: name ?? '' })}
            >
              {fileMark}
              {name}
            </a>
          ))}
          <button
            type="button"
            className={css.larger}
            aria-pressed={large}
            aria-label={t(large ? 'draw.smaller' : 'draw.larger')}
            title={t(large ? 'draw.smaller' : 'draw.larger')}
            onClick={onLarge}
          >
            {large ? smallerMark : largerMark}
          </button>
        </span>
      </div>
      <div id="drawing-panel" role="tabpanel" aria-label={t('draw.title')} className={css.paper}>
        {empty && (
          <p className={shared.quiet}>
            {!scene ? (
              t('draw.begins')
            ) : waits ? (
              <>
                {t('draw.waits')}{' '}
                <button type="button" className={css.link} onClick={() => onGo(waits)}>
                  {words.row(waits)}
                </button>
              </>
            ) : (
              t('draw.nothing')
            )}
          </p>
        )}
        {!empty && tab === 'space' && (
          <Suspense fallback={<p className={shared.quiet}>{t('draw.loading')}</p>}>
            <Space
              scene={scene}
              label={t('draw.spaceOf', { number: bench.picture.number.text })}
              hint={t('draw.turn')}
            />
          </Suspense>
        )}
        {!empty && seen && (
          <Drawing
            view={seen}
            language={language}
            label={t('draw.of', {
              view: chosen ? own(chosen.name, language) : '',
              number: bench.picture.number.text,
            })}
            write={(length) => words.length(length)}
            room={large ? rooms.large : rooms.small}
            onGo={onGo}
          />
        )}
      </div>
    </section>
  );
}
