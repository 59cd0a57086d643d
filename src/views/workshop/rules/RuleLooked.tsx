import type { Rule } from '../../../core/model';
import { number } from '../../../i18n';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import { useLooked } from './useLooked';
import css from './rules.module.css';

interface Props {
  draft: Draft;
  rule: Rule;
  /** Goes to another rule. */
  onRule: (id: string) => void;
}

/** What a rule meets, whether others say it already, and how many builds it takes away, while it is written. */
export function RuleLooked({ draft, rule, onRule }: Props) {
  const { t, language } = useSpeech();
  const look = useLooked(draft, rule.id, draft.session.look);
  if (!look) return null;
  const { nothing, neverFires, repeats, contradicts, builds } = look;
  const others = (ids: readonly string[]) =>
    ids
      .filter((id) => id !== rule.id)
      .map((id) => (
        <button key={id} type="button" className={css.way} onClick={() => onRule(id)}>
          {id}
        </button>
      ));
  if (nothing)
    return (
      <p className={css.looked} data-bad role="alert">
        {t(nothing.length > 1 ? 'draft.look.nothingWith' : 'draft.look.nothing')} {others(nothing)}
      </p>
    );
  const gone = builds && builds.without - builds.with;
  return (
    <div className={css.looked} role="status">
      {neverFires && <p data-warn>{t('draft.look.never')}</p>}
      {repeats && (
        <p data-warn>
          {t(repeats.length > 0 ? 'draft.look.repeats' : 'draft.look.anyway')} {others(repeats)}
        </p>
      )}
      {contradicts.length > 0 && (
        <p data-warn>
          {t('draft.look.contradicts')} {others(contradicts)}
        </p>
      )}
      {builds && gone !== null && (
        <p>
          {t('draft.look.builds', {
            gone: number(String(gone), language),
            all: number(String(builds.without), language),
          })}
        </p>
      )}
    </div>
  );
}
