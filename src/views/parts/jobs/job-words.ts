/** What a job is called, how far it is, and what came of it, in words. */
import type { JobView } from '../../../contract';
import { dateTime, hasText, type Translate } from '../../../i18n';

const keyOf = (kind: string): string => kind.replace('.', '-');
const textOf = (
  key: string,
  t: Translate,
  params: Record<string, string | number> = {},
): string | undefined => (hasText(key) ? t(key, params) : undefined);

/** The work, and what it is about. */
export function whatOf({ kind, subject }: Pick<JobView, 'kind' | 'subject'>, t: Translate): string {
  const name = textOf(`job.kind.${keyOf(kind)}`, t) ?? kind;
  return subject === null ? name : `${name}: ${subject}`;
}

/** How far it is; empty where nothing is said. */
export const farOf = ({ progress }: JobView, t: Translate): string =>
  progress === null ? '' : t(progress.at === undefined ? 'job.far' : 'job.at', { ...progress });

/** What came of it, or what went wrong and when it is tried again; empty while there is nothing to tell. */
export function cameOf(
  { kind, state, outcome, problem, runAt }: JobView,
  t: Translate,
  language: string,
): string {
  if (problem) {
    const { code, params = {}, bug = '' } = problem;
    const why = textOf(code, t, { ...params, bug }) ?? bug;
    return state === 'waiting' ? `${why} · ${t('job.next', { at: dateTime(runAt, language) })}` : why;
  }
  if (state !== 'done' || !outcome) return '';
  const wrong = outcome.wrong === undefined || outcome.wrong === 0 ? '' : '-wrong';
  return textOf(`job.came.${keyOf(kind)}${wrong}`, t, outcome) ?? '';
}
