import { memo } from 'react';
import type { Standing } from '../../../core/engine';
import { classes } from '../../../ui';
import shared from '../bench.module.css';
import css from './tabs.module.css';
import { swapMark } from './marks';

interface TabProps {
  id: string;
  name: string;
  under: string;
  hint: string | undefined;
  many: boolean;
  taken: boolean;
  standing: Standing;
  clashing: boolean;
  inTabOrder: boolean;
  /** Its place among the tabs of the row. */
  at: number;
  onFocus: (at: number) => void;
  onTake: (at: number) => void;
}

/** As many characters stand beneath a name without making its tab wider. */
const mostBeneath = 10;

/** An option; drawn again only where it shows something else. */
export const Tab = memo(function Tab({
  id,
  name,
  under,
  hint,
  many,
  taken,
  standing,
  clashing,
  inTabOrder,
  at,
  onFocus,
  onTake,
}: TabProps) {
  const swap = standing === 'swap' && !taken;
  return (
    <button
      type="button"
      data-tab={id}
      role={many ? 'checkbox' : 'radio'}
      aria-checked={taken}
      tabIndex={inTabOrder ? 0 : -1}
      className={classes(css.tab, taken && css.taken, swap && css.swap, clashing && css.clashing)}
      onFocus={() => onFocus(at)}
      onClick={() => onTake(at)}
    >
      {swap && swapMark}
      {name}
      <span
        className={classes(
          css.under,
          under.length > mostBeneath && css.wide,
          taken ? shared.source : !swap && shared.price,
        )}
        title={hint}
      >
        {under}
      </span>
    </button>
  );
});
