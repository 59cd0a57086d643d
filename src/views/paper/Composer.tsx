import { useEffect, useState } from 'react';
import { ArrowLeft, FileDown, Minus, Plus, Redo2, Undo2 } from 'lucide-react';
import type { PaperFormat, PaperView, PaperWarning } from '../../contract';
import { Button, Dialog, DialogFoot, LinkButton, say } from '../../ui';
import { Menu } from '../../ui/Menu';
import { addressOf, sentences } from '../api';
import { Speech, useSpeech } from '../speech';
import { Blocks } from './Blocks';
import { Look } from './Look';
import { Pages, usualWidth } from './Pages';
import { usePaper, type Paper } from './session/usePaper';
import css from './paper.module.css';

interface Props {
  language: string;
  view: PaperView;
}

export default function Composer({ language, view }: Props) {
  return (
    <Speech language={language}>
      <Page view={view} />
    </Speech>
  );
}

/** Widths of a page that one steps through, from the usual one on. */
const widths = [420, 520, usualWidth, 740, 880, 1_060];

function Page({ view }: Pick<Props, 'view'>) {
  const { t } = useSpeech();
  const paper = usePaper(view);
  const [chosen, setAt] = useState<number | null>(null);
  const at = chosen ?? widths.indexOf(usualWidth);
  const [block, setBlock] = useState<string | null>(null);
  const [empty, setEmpty] = useState<ReadonlySet<string>>(new Set());
  const { refusals, session } = paper;
  useEffect(() => {
    if (refusals.length > 0) say(sentences(refusals, t('request.failed')), true);
  }, [refusals, t]);
  useStepKeys(paper);
  return (
    <div className={css.composer}>
      <Head paper={paper} />
      <aside className={css.choices} aria-label={t('composer.choices')}>
        <Look paper={paper} />
        <Blocks paper={paper} open={block} empty={empty} onOpen={setBlock} />
      </aside>
      <section className={css.preview} aria-busy={paper.setting} data-setting={paper.setting || undefined}>
        <div className={css.bar}>
          <Warnings warnings={paper.view.warnings} />
          <span className={css.state} role="status">
            {paper.unset.length > 0
              ? sentences(paper.unset, t('request.failed'))
              : paper.setting
                ? t('composer.setting')
                : ''}
          </span>
          <Button
            look="plain"
            aria-label={t('composer.smaller')}
            disabled={at === 0}
            onClick={() => setAt(at - 1)}
          >
            <Minus size={14} aria-hidden />
          </Button>
          <Button
            look="plain"
            aria-label={t('composer.larger')}
            disabled={at === widths.length - 1}
            onClick={() => setAt(at + 1)}
          >
            <Plus size={14} aria-hidden />
          </Button>
        </div>
        <Pages
          set={paper.pages}
          block={paper.changed}
          width={chosen === null ? undefined : widths[chosen]}
          onEmpty={setEmpty}
        />
      </section>
      {paper.other && (
        <Other paper={paper} onTake={() => session.takeOther()} onKeep={() => session.keepOwn()} />
      )}
    </div>
  );
}

/** Steps are taken back and made again wherever the cursor is, but in a text, which has its own. */
function useStepKeys({ session }: Paper): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const inText = event
        .composedPath()
        .some(
          (each) =>
            each instanceof HTMLElement && (each.isContentEditable || each instanceof HTMLInputElement),
        );
      if (!(event.ctrlKey || event.metaKey) || inText) return;
      const key = event.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      event.preventDefault();
      if (key === 'y' || event.shiftKey) session.redo();
      else session.undo();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [session]);
}

const formats = ['docx', 'xlsx', 'html', 'xml'] as const satisfies readonly PaperFormat[];

/** Whose document it is, whether it is kept, and the way to its files. */
function Head({ paper }: { paper: Paper }) {
  const { t } = useSpeech();
  const { view, session, saving, canUndo, canRedo } = paper;
  const { quote } = view;
  const hrefOf = (format: PaperFormat): string =>
    addressOf('GET /quotes/{id}/paper.{format}', {
      at: { id: quote.id, format },
      query: { revision: quote.revision },
    });
  return (
    <header className={css.head}>
      <LinkButton look="plain" href={`/quotes/${quote.id}`} aria-label={t('composer.back')}>
        <ArrowLeft size={15} aria-hidden />
      </LinkButton>
      <h1>
        {t('composer.title')} <span className={css.number}>{quote.number}</span>
      </h1>
      <span className={css.who}>
        {view.customer} · {t('ledger.revision', { number: quote.revision })}
      </span>
      {view.mayEdit ? (
        <>
          <span className={css.saving} data-saving={saving}>
            {t(`composer.saving.${saving}`)}
          </span>
          <Button look="plain" disabled={!canUndo} aria-label={t('keys.undo')} onClick={() => session.undo()}>
            <Undo2 size={15} aria-hidden />
          </Button>
          <Button look="plain" disabled={!canRedo} aria-label={t('keys.redo')} onClick={() => session.redo()}>
            <Redo2 size={15} aria-hidden />
          </Button>
        </>
      ) : (
        <span className={css.saving}>{t('composer.fixed')}</span>
      )}
      <LinkButton look="main" href={hrefOf('pdf')} target="_blank">
        <FileDown size={15} aria-hidden />
        {t('composer.pdf')}
      </LinkButton>
      <Menu
        label={t('composer.formats')}
        items={formats.map((format) => ({
          id: format,
          text: t(`composer.format.${format}`),
          href: hrefOf(format),
          download: true,
        }))}
      >
        {t('composer.formats')}
      </Menu>
    </header>
  );
}

/** What whoever sends it should know. */
function Warnings({ warnings }: { warnings: readonly PaperWarning[] }) {
  const { t } = useSpeech();
  if (warnings.length === 0) return null;
  const text = (warning: PaperWarning): string => {
    switch (warning.is) {
      case 'letters':
        return t('composer.warns.letters', { letters: warning.letters.join(' ') });
      case 'placeholder':
        return t('composer.warns.placeholder', { source: warning.source });
      case 'gone':
        return t(`composer.warns.gone.${warning.what}`, { name: warning.name });
      case 'annex':
        return t('composer.warns.annex', { name: warning.name });
    }
  };
  return (
    <ul className={css.warnings}>
      {warnings.map((warning, at) => (
        <li key={at}>{text(warning)}</li>
      ))}
    </ul>
  );
}

/** Somebody else chose meanwhile: whose choice stands. */
function Other({ paper, onTake, onKeep }: { paper: Paper; onTake: () => void; onKeep: () => void }) {
  const { t } = useSpeech();
  const name = paper.other?.changedBy ?? '';
  return (
    <Dialog title={t('composer.other.title')} closeText={t('frame.close')} open onClose={onTake}>
      <p>{t('composer.other.says', { name })}</p>
      <DialogFoot>
        <Button onClick={onTake}>{t('composer.other.take', { name })}</Button>
        <Button look="main" onClick={onKeep}>
          {t('composer.other.keep')}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
