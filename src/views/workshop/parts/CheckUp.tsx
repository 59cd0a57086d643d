import type { Finding } from '../../../core/engine';
import { sentence } from '../../../i18n';
import { Button } from '../../../ui';
import { JobHere } from '../../parts/jobs/JobHere';
import { useSpeech, type InWords } from '../../speech';
import { partName } from '../change-words';
import { mendOf, type Mend } from '../mends';
import { useRemoval } from '../Removal';
import type { Examined } from '../session/useCheck';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  examined: Examined;
  /** Goes to where something is, by its path in the document. */
  onGo: (path: string) => void;
}

/** What is wrong with the model, in sentences, each with the way to its place. */
export function CheckUp({ draft, examined, onGo }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const { check, busy, run, job } = examined;
  const { tried, document } = draft;
  const removal = useRemoval();
  const problems = tried?.problems ?? [];
  const findings = check?.findings ?? [];
  return (
    <div className={css.scroll}>
      <div className={css.acts}>
        <Button look="main" disabled={busy} onClick={() => void run()}>
          {busy ? t('draft.check.running') : t('draft.check.run')}
        </Button>
        {check && check.version !== draft.version && (
          <span className={css.quiet}>{t('draft.check.stale')}</span>
        )}
        {check && problems.length === 0 && findings.length === 0 && <span>{t('draft.check.nothing')}</span>}
      </div>
      {job.job?.state !== 'done' && <JobHere here={job} />}
      <ul className={css.cards} aria-label={t('draft.part.checkUp')}>
        {problems.map(({ path, code, params }) => (
          <li key={`${path} ${code}`} className={css.card} data-bad>
            <Line path={path} text={sentence(language, code, params)} onGo={onGo} />
          </li>
        ))}
        {findings.map((finding) => (
          <li key={`${finding.kind} ${finding.at} ${finding.other ?? ''}`} className={css.card}>
            <Line
              path={finding.at}
              text={findingText(finding, document, words)}
              mend={mendOf(finding, document)}
              onMend={(edit) => removal(draft, edit, () => void draft.session.edit(edit))}
              onGo={onGo}
            />
          </li>
        ))}
      </ul>
    </div>
  );
}

function Line({
  path,
  text,
  mend = null,
  onMend,
  onGo,
}: {
  path: string;
  text: string;
  /** One key does it. */
  mend?: Mend | null;
  onMend?: (edit: Mend['edit']) => void;
  onGo: (path: string) => void;
}) {
  const { t } = useSpeech();
  return (
    <div className={css.cardHead}>
      <span>{text}</span>
      <span className={css.push} />
      <span className={css.code}>{path}</span>
      {mend && (
        <Button look="plain" onClick={() => onMend?.(mend.edit)}>
          {t(`draft.check.mend.${mend.does}`)}
        </Button>
      )}
      <Button look="plain" onClick={() => onGo(path)}>
        {t('draft.check.go')}
      </Button>
    </div>
  );
}

function findingText(
  { kind, at, other = '', number = '' }: Finding,
  document: Draft['document'],
  words: InWords,
): string {
  const [list = '', id = '', inner] = at.split('.');
  const way = list === 'features' && inner !== undefined ? [list, id, 'options', inner] : [list, id];
  return words.t(`draft.check.kind.${kind}`, { at: partName(document, way, words), other, number });
}
