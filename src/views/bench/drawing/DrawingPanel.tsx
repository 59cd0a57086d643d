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
const Space = lazy(() => import('../../parts/drawing/Space'));

const rooms = { small: { width: 258, height: 160 }, large: { width: 520, height: 320 } };

interface Props {
  bench: Bench;
  view: BenchView;
  words: Words;
  large: boolean;
  onLarge: () => void;
  onGo: (row: string) => void;
}

/**
 * The build as it stands: its views, and in space, each following every decision; each can be taken away as a
 * file.
 */
export function DrawingPanel(props: Props) {
  const { view, large, onLarge } = props;
  const { t, language } = useSpeech();
  const { drawing } = view.document;
  const [tab, setTab] = useState(drawing?.views[0]?.id ?? 'space');
  if (!drawing) return null;
  const tabs = [
    ...drawing.views.map((each) => ({ id: each.id, text: own(each.name, language) })),
    { id: 'space', text: t('draw.space') },
  ];
  const titles = new Map([
    ['PDF', t('draw.sheet')],
    ['ZIP', t('draw.all')],
  ]);
  const size = t(large ? 'draw.smaller' : 'draw.larger');
  return (
    <section className={classes(css.panel, large && css.large)} aria-label={t('draw.title')}>
      <div className={css.head}>
        <Tabs label={t('draw.title')} tabs={tabs} chosen={tab} onChoose={setTab} panel="drawing-panel" />
        <span className={css.files}>
          {[...(tab === 'space' ? spaceFiles : viewFiles), ...allFiles].map(({ name, file }) => (
            <a
              key={name}
              className={css.file}
              href={`/api/builds/${view.build.id}/${file}?view=${tab}`}
              download
              title={titles.get(name) ?? t('draw.save', { format: name })}
            >
              {fileMark}
              {name}
            </a>
          ))}
          <button
            type="button"
            className={css.larger}
            aria-pressed={large}
            aria-label={size}
            title={size}
            onClick={onLarge}
          >
            {large ? smallerMark : largerMark}
          </button>
        </span>
      </div>
      <div id="drawing-panel" role="tabpanel" aria-label={t('draw.title')} className={css.paper}>
        <Drawn {...props} tab={tab} />
      </div>
    </section>
  );
}

const spaceFiles = [
  { name: 'glTF', file: 'drawing.glb' },
  { name: 'IFC', file: 'drawing.ifc' },
];
const viewFiles = [
  { name: 'SVG', file: 'drawing.svg' },
  { name: 'DXF', file: 'drawing.dxf' },
];
const allFiles = [
  { name: 'ZIP', file: 'drawings.zip' },
  { name: 'PDF', file: 'specification.pdf' },
];

/** The view that is chosen, or what it waits for. */
function Drawn({ bench, view, words, large, onGo, tab }: Props & { tab: string }) {
  const { t, language } = useSpeech();
  const { scene } = bench;
  const chosen = view.document.drawing?.views.find((each) => each.id === tab);
  const seen = useMemo(
    () => (scene && chosen ? viewOf(scene, chosen.id, chosen.from) : null),
    [scene, chosen],
  );
  if (!scene || scene.solids.length === 0) return <Empty scene={scene} words={words} onGo={onGo} />;
  const { text } = bench.picture.number;
  if (tab === 'space')
    return (
      <Suspense fallback={<p className={shared.quiet}>{t('draw.loading')}</p>}>
        <Space scene={scene} label={t('draw.spaceOf', { number: text })} hint={t('draw.turn')} />
      </Suspense>
    );
  return (
    seen && (
      <Drawing
        view={seen}
        language={language}
        label={t('draw.of', { view: chosen ? own(chosen.name, language) : '', number: text })}
        write={(length) => words.length(length)}
        room={large ? rooms.large : rooms.small}
        onGo={onGo}
      />
    )
  );
}

/** Why there is nothing to see yet. */
function Empty({ scene, words, onGo }: { scene: Bench['scene'] } & Pick<Props, 'words' | 'onGo'>) {
  const { t } = useSpeech();
  const [waits] = scene?.waits ?? [];
  if (!scene || !waits) return <p className={shared.quiet}>{t(scene ? 'draw.nothing' : 'draw.begins')}</p>;
  return (
    <p className={shared.quiet}>
      {t('draw.waits')}{' '}
      <button type="button" className={css.link} onClick={() => onGo(waits)}>
        {words.row(waits)}
      </button>
    </p>
  );
}
