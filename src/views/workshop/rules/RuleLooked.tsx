import { useEffect, useState } from 'react';
import type { RuleLook } from '../../../core/engine';
import type { Rule } from '../../../core/model';
import { number } from '../../../i18n';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import css from './rules.module.css';

interface Props {
  draft: Draft;
  rule: Rule;
  /** Goes to another rule. */
  onRule: (id: string) => void;
}

/** Keys come faster than this, in milliseconds, while somebody types. */
const rest = 400;

/** What a rule meets, whether others say it already, and how many builds it takes away, while it is written. */
export function RuleLooked({ draft, rule, onRule }: Props) {
  const { t, language } = useSpeech();
  const look = useLook(draft, rule);
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

/** Looks at the rule once nothing is typed for a moment and the draft compiles; what was seen stays until then. */
function useLook(draft: Draft, rule: Rule): RuleLook | null {
  const [seen, setSeen] = useState<{ of: string; look: RuleLook | null } | null>(null);
  const { session, document, context, trying, tried } = draft;
  const compiles = !trying && tried !== null && tried.problems.length === 0;
  useEffect(() => {
    if (!compiles) return undefined;
    let current = true;
    const timer = setTimeout(() => {
      void session.look(rule.id).then((look) => {
        if (current) setSeen({ of: rule.id, look });
      });
    }, rest);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [session, rule.id, document, context, compiles]);
  return seen?.of === rule.id ? seen.look : null;
}
