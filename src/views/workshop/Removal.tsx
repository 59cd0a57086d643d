/** Before a part is taken away, what uses it is shown; nothing is done until somebody says so. */
import { createContext, use, useMemo, useState, type ReactNode } from 'react';
import { usesOfRemoved, type Edit, type Mentioned } from '../../core/modelling';
import { Button, Dialog, DialogFoot } from '../../ui';
import { useSpeech } from '../speech';
import type { Draft } from './session/useDraft';
import { pathName } from './problem-path';
import css from './workshop.module.css';

/** What is to be done, and what where it is left. */
interface Asked {
  uses: readonly Mentioned[];
  go: () => void;
  leave: () => void;
}

type Ask = (draft: Draft, edit: Edit, go: () => void, leave?: () => void) => void;

const Asking = createContext<Ask>((_, __, go) => go());

/** Asks before it does what takes away something that is used; the same function all the time. */
export const useRemoval = (): Ask => use(Asking);

const mostShown = 12;

/** Shows the question over whatever is within. */
export function Removals({ children }: { children: ReactNode }) {
  const words = useSpeech();
  const { t } = words;
  const [asked, setAsked] = useState<(Asked & { draft: Draft }) | null>(null);
  const ask = useMemo<Ask>(
    () =>
      (draft, edit, go, leave = () => undefined) => {
        const uses = usesOfRemoved(draft.session.seen().document, edit);
        if (uses.length === 0) go();
        else setAsked({ draft, uses, go, leave });
      },
    [],
  );
  const close = (then: () => void): void => {
    setAsked(null);
    then();
  };
  const places = asked
    ? [...new Set(asked.uses.map(({ path }) => pathName(path, asked.draft.document, words)))]
    : [];
  return (
    <Asking value={ask}>
      {children}
      {asked && (
        <Dialog
          title={t('draft.remove.title')}
          closeText={t('frame.close')}
          open
          onClose={() => close(asked.leave)}
        >
          <p>{t('draft.remove.uses', { count: places.length })}</p>
          <ul className={css.uses}>
            {places.slice(0, mostShown).map((place) => (
              <li key={place}>{place}</li>
            ))}
            {places.length > mostShown && (
              <li>{t('draft.remove.more', { count: places.length - mostShown })}</li>
            )}
          </ul>
          <DialogFoot>
            <Button onClick={() => close(asked.go)}>{t('draft.remove.go')}</Button>
            <Button look="main" data-first onClick={() => close(asked.leave)}>
              {t('draft.remove.leave')}
            </Button>
          </DialogFoot>
        </Dialog>
      )}
    </Asking>
  );
}
