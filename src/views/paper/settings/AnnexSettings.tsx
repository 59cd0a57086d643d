import { ArrowUp, Plus, X } from 'lucide-react';
import type { FileKind } from '../../../contract';
import { own } from '../../../i18n';
import { Button } from '../../../ui';
import { BringFile } from '../../parts/bring/BringFile';
import { useSpeech } from '../../speech';
import type { Paper } from '../session/usePaper';
import css from '../paper.module.css';

const kinds: readonly FileKind[] = ['pdf', 'png', 'jpeg', 'webp', 'svg'];

/** Files that go along: PDF behind the last page, pictures in the document. */
export function AnnexSettings({ paper }: { paper: Paper }) {
  const { t, language } = useSpeech();
  const { composition, session, view } = paper;
  const { annexes } = composition;
  const proposed = view.proposed.filter(({ file }) => !annexes.some((annex) => annex.file === file));
  return (
    <>
      {annexes.length > 0 && (
        <ol className={css.annexes}>
          {annexes.map(({ file, name }, at) => (
            <li key={file}>
              <span>{name}</span>
              <Button
                look="plain"
                disabled={!view.mayEdit || at === 0}
                aria-label={t('composer.annexUp', { name })}
                onClick={() =>
                  session.change((now) => {
                    const rest = now.annexes.filter((each) => each.file !== file);
                    const own = now.annexes.filter((each) => each.file === file);
                    return { ...now, annexes: [...rest.slice(0, at - 1), ...own, ...rest.slice(at - 1)] };
                  }, 'annexes')
                }
              >
                <ArrowUp size={14} aria-hidden />
              </Button>
              <Button
                look="plain"
                disabled={!view.mayEdit}
                aria-label={t('composer.annexAway', { name })}
                onClick={() =>
                  session.change(
                    (now) => ({ ...now, annexes: now.annexes.filter((each) => each.file !== file) }),
                    'annexes',
                  )
                }
              >
                <X size={14} aria-hidden />
              </Button>
            </li>
          ))}
        </ol>
      )}
      {proposed.length > 0 && (
        <div role="group" aria-label={t('composer.annexProposed')} className={css.proposed}>
          <p>{t('composer.annexProposed')}</p>
          {proposed.map(({ file, sku, name, fileName }) => (
            <Button
              key={file}
              look="plain"
              title={fileName}
              onClick={() =>
                session.change(
                  (now) => ({ ...now, annexes: [...now.annexes, { file, name: fileName, kind: 'pdf' }] }),
                  'annexes',
                )
              }
            >
              <Plus size={14} aria-hidden /> {sku} {own(name, language)}
            </Button>
          ))}
        </div>
      )}
      {view.mayEdit && (
        <BringFile
          label={t('composer.annexBring')}
          kinds={kinds}
          only={t('composer.annexOnly')}
          onBrought={({ id, name, kind }) =>
            session.change(
              (now) => ({
                ...now,
                annexes: [...now.annexes, { file: id, name, kind: kind === 'pdf' ? 'pdf' : 'picture' }],
              }),
              'annexes',
            )
          }
        />
      )}
    </>
  );
}
