/** What a click on an option does, and what stands beside one that is not free. */
import type { Decision, Target } from '../../../core/engine';
import type { Translate } from '../../../i18n';
import type { Words } from '../words';
import type { RowProps } from './row-props';
import type { TabInfo } from './tab-info';

/** What a click on an option decides, or whose no it asks about; null where it does nothing. */
function stepOn(tab: TabInfo, many: boolean): { decide: Decision } | { why: Target } | null {
  if (tab.unsold !== undefined && !tab.taken) return null;
  if (tab.standing !== 'free' && !tab.taken) return { why: tab.target };
  if (tab.taken && many && !tab.changeable) return { why: { on: tab.target.on, value: false } };
  return !tab.taken || many ? { decide: tab.decision } : null;
}

/** What a click on an option does: decide where it is free, tell why where it is not. */
export function actOn(
  tab: TabInfo,
  many: boolean,
  { frozen, onDecide, onWhy }: Pick<RowProps, 'frozen' | 'onDecide' | 'onWhy'>,
): void {
  const step = frozen ? null : stepOn(tab, many);
  if (step && 'decide' in step) onDecide(step.decide);
  else if (step) onWhy(step.why);
}

/** An option has the keyboard, or the pointer is down on it: its decision may come next. */
export function consider(
  tab: TabInfo,
  many: boolean,
  { frozen, onConsider }: Pick<RowProps, 'frozen' | 'onConsider'>,
): void {
  const step = frozen ? null : stepOn(tab, many);
  if (step && 'decide' in step) onConsider(step.decide);
}

/** How many decisions a swap changes, in words. */
export function swapText({ remark, unproven }: TabInfo, t: Translate): string {
  if (unproven) return t('bench.unproven');
  const changes = remark?.kind === 'swap' ? remark.changes : null;
  return changes === null
    ? t('bench.swap')
    : t(changes === 1 ? 'bench.needs' : 'bench.needsMore', { count: changes });
}

/** Why an option cannot be had, in words. */
export const barredText = ({ remark, unproven, unsold }: TabInfo, words: Words, t: Translate): string =>
  unsold ??
  (unproven
    ? t('bench.unproven')
    : `${t('bench.barred')}${remark?.kind === 'barred' ? `: ${remark.causes.map((cause) => words.cause(cause)).join(' ')}` : ''}`);
