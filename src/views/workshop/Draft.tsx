import { useEffect, useMemo, useState } from 'react';
import { FlaskConical, Redo2, Undo2 } from 'lucide-react';
import type { DraftView } from '../../contract';
import { rowsOfRule } from '../../core/modelling';
import { own, sentence } from '../../i18n';
import { Button, classes, say, useLatest, useMedia } from '../../ui';
import { sentences } from '../api';
import { Speech, useSpeech } from '../speech';
import { CheckUp } from './parts/CheckUp';
import { Drawn } from './parts/Drawn';
import { Figures } from './parts/Figures';
import { Making } from './parts/Making';
import { Numbering } from './parts/Numbering';
import { Outline } from './parts/Outline';
import { Prices } from './parts/Prices';
import { Tests } from './parts/Tests';
import { Versions } from './parts/Versions';
import { Words } from './parts/Words';
import { Rules } from './rules/Rules';
import { Removals } from './Removal';
import { TryOut } from './TryOut';
import { steps } from './problem-path';
import { useCheck } from './session/useCheck';
import { useDraft, type Draft as Held } from './session/useDraft';
import css from './workshop.module.css';

interface Props {
  language: string;
  view: DraftView;
}

export default function Draft({ language, view }: Props) {
  return (
    <Speech language={language}>
      <Removals>
        <Page view={view} />
      </Removals>
    </Speech>
  );
}

const parts = [
  'outline',
  'rules',
  'figures',
  'numbering',
  'price',
  'making',
  'drawing',
  'tests',
  'words',
  'checkUp',
  'versions',
] as const;
type PartId = (typeof parts)[number];

/** The part of the page on which something of the document is. */
const partOf = (path: string): PartId => {
  const [list = ''] = path.split(/[.[]/);
  if (list === 'rules') return 'rules';
  if (list === 'calculations' || list === 'figures' || list === 'context') return 'figures';
  if (list === 'numbering' || list === 'drawing') return list;
  if (list === 'prices' || list === 'surcharges' || list === 'insidePrices') return 'price';
  if (list === 'materials' || list === 'operations') return 'making';
  return list === 'tests' ? 'tests' : 'outline';
};

/** How much is wrong in each part. */
function wrongIn({ tried, tests }: Held): Readonly<Partial<Record<PartId, number>>> {
  const counts: Partial<Record<PartId, number>> = {};
  const add = (part: PartId, count = 1): void => {
    counts[part] = (counts[part] ?? 0) + count;
  };
  for (const { path } of tried?.problems ?? []) add(partOf(path));
  add('checkUp', tried?.problems.length ?? 0);
  add('tests', tests.filter(({ failures }) => failures.length > 0).length);
  return counts;
}

const noRows: ReadonlySet<string> = new Set();

/** Where the try-out has no place beside the work and comes over it. */
const narrowPage = '(width < 1100px)';

function Page({ view }: Pick<Props, 'view'>) {
  const { t, language } = useSpeech();
  const draft = useDraft(view);
  const [part, setPart] = useState<PartId>('outline');
  const examined = useCheck(view, draft);
  const [opened, openRule] = useState<string | null>(null);
  const [row, setRow] = useState<string | null>(null);
  const { refusals } = draft;
  useEffect(() => {
    const told = refusals.map((each) => ({
      ...each,
      message: each.message || sentence(language, each.code, each.params),
    }));
    if (told.length > 0) say(sentences(told, t('request.failed')), true);
  }, [refusals, t, language]);
  const [over, setOver] = useState(false);
  const narrow = useMedia(narrowPage);
  const turn = (): void => {
    // Where it stands beside the work, the key goes there. The page is asked at the press: what was
    // drawn last may still be of the width before.
    if (window.matchMedia(narrowPage).matches) setOver(!over);
    else
      window.document.querySelector<HTMLElement>('aside [data-row] input, aside [data-row] button')?.focus();
  };
  useKeys(draft, turn);
  const wrong = useMemo(() => wrongIn(draft), [draft]);
  const { document } = draft;
  const lit = useMemo(
    () => (part === 'rules' && opened !== null ? rowsOfRule(document, opened) : noRows),
    [part, opened, document],
  );
  const go = (path: string): void => {
    const next = partOf(path);
    setPart(next);
    if (next === 'rules') {
      openRule(steps(path, draft.document)[1] ?? null);
      setRow(null);
    }
  };
  return (
    <div className={css.page} data-over={over || undefined}>
      <Head draft={draft} view={view} onTry={turn} />
      <nav className={css.parts} aria-label={t('draft.parts')}>
        {parts.map((id) => (
          <button
            key={id}
            type="button"
            aria-current={id === part || undefined}
            onClick={() => {
              setPart(id);
              setRow(null);
            }}
          >
            {t(`draft.part.${id}`)}
            {(wrong[id] ?? 0) > 0 && (
              <span className={css.count} title={t('draft.wrongHere', { count: wrong[id] ?? 0 })}>
                {wrong[id]}
              </span>
            )}
          </button>
        ))}
      </nav>
      <div
        className={css.work}
        onKeyDownCapture={(event) => stepKey(event.nativeEvent, draft.session)}
        role="region"
        aria-label={t('draft.partOf', { part: t(`draft.part.${part}`) })}
      >
        {part === 'outline' && <Outline draft={draft} view={view} />}
        {part === 'rules' && <Rules draft={draft} id={view.id} open={opened} onOpen={openRule} row={row} />}
        {part === 'figures' && <Figures draft={draft} id={view.id} />}
        {part === 'numbering' && (
          <Numbering
            draft={draft}
            check={examined.check}
            onRow={(id) => {
              setPart('rules');
              setRow(id);
            }}
            onExamine={() => void examined.run()}
          />
        )}
        {part === 'price' && <Prices draft={draft} view={view} />}
        {part === 'making' && <Making draft={draft} view={view} />}
        {part === 'drawing' && <Drawn draft={draft} />}
        {part === 'tests' && <Tests draft={draft} />}
        {part === 'words' && <Words draft={draft} id={view.id} />}
        {part === 'checkUp' && <CheckUp draft={draft} examined={examined} onGo={go} />}
        {part === 'versions' && <Versions draft={draft} view={view} />}
      </div>
      <TryOut
        draft={draft}
        view={view}
        lit={lit}
        onClose={over && narrow ? () => setOver(false) : undefined}
        onRule={(id) => {
          setPart('rules');
          openRule(id);
          setRow(null);
        }}
        onRow={(id) => {
          setPart('rules');
          setRow(id);
        }}
      />
    </div>
  );
}

/** Which draft it is, whether it is stored, and what customers get meanwhile. */
function Head({ draft, view, onTry }: { draft: Held; view: DraftView; onTry: () => void }) {
  const { t, language } = useSpeech();
  const { session, saving, canUndo, canRedo, others } = draft;
  const current = view.versions.find((each) => each.current);
  return (
    <header className={css.head}>
      <h1>
        {own(draft.document.name, language)} <span className={css.quiet}>{view.name}</span>
      </h1>
      <span className={css.note}>
        {current ? t('draft.customersGet', { number: String(current.number) }) : t('draft.customersNone')}
        {view.baseWithdrawn && ` ${t('draft.baseWithdrawn')}`}
        {view.behind && !view.baseWithdrawn && ` ${t('draft.behindOf')}`}
        {others.length > 0 && ` ${t('draft.others', { names: others.join(', ') })}`}
      </span>
      <span className={classes(css.saving, saving === 'refused' && css.refused)} role="status">
        {t(`draft.${saving}`)}
      </span>
      <Button look="plain" className={css.toTry} onClick={onTry} title="F6">
        <FlaskConical size={15} aria-hidden />
        {t('draft.try.title')}
      </Button>
      <Button
        look="plain"
        disabled={!canUndo}
        aria-label={t('draft.undo')}
        title={t('draft.undo')}
        onClick={() => void session.step('undo')}
      >
        <Undo2 size={15} aria-hidden />
      </Button>
      <Button
        look="plain"
        disabled={!canRedo}
        aria-label={t('draft.redo')}
        title={t('draft.redo')}
        onClick={() => void session.step('redo')}
      >
        <Redo2 size={15} aria-hidden />
      </Button>
    </header>
  );
}

/** Takes back, or makes again, what was done to the draft; in a cell that is edited, or a field, keys are its own. */
function stepKey(event: KeyboardEvent, { step }: Held['session']): void {
  const { target } = event;
  const typing =
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      target.shadowRoot !== null ||
      target.closest('input, textarea, select, [data-code-field]') !== null);
  const key = event.key.toLowerCase();
  if (typing || event.defaultPrevented || !(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y'))
    return;
  event.preventDefault();
  event.stopPropagation();
  void step(key === 'y' || event.shiftKey ? 'redo' : 'undo');
}

/** Keys for what was done, where no field has them for what is typed in it, and for the try-out. */
function useKeys({ session }: Held, onTry: () => void): void {
  const latest = useLatest(onTry);
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (event.key !== 'F6') {
        stepKey(event, session);
        return;
      }
      event.preventDefault();
      latest.current();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [session, latest]);
}
