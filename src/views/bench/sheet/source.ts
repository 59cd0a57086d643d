/** The small word at the joint: where a value comes from, and whether it may be changed. */
import type { RowState, Source } from '../../../core/engine';
import type { Translate } from '../../../i18n';
import type { TabInfo } from './tab-info';

/**
 * Whether a taken option follows and no other can be had. What follows from usual values alone is not firm:
 * where another is chosen, those adapt.
 */
export const isFirmTab = (tab: TabInfo, tabs: readonly TabInfo[], many: boolean): boolean =>
  tab.source === 'follows' &&
  (many ? !tab.changeable : !tabs.some((each) => !each.taken && each.standing === 'free'));

/** Whether a number, day or text follows and no other can be had. */
export function isFirmValue({
  source,
  allowed = [],
  mayBeEmpty = false,
}: Pick<RowState, 'source' | 'allowed' | 'mayBeEmpty'>): boolean {
  const [only, more] = allowed;
  return source === 'follows' && !mayBeEmpty && !more && only?.least === only?.most;
}

/** Where a value comes from, in words, and whether it may be changed. */
export function sourceText(source: Source, firm: boolean, t: Translate): string {
  const word = t(`source.${source}`);
  if (source !== 'follows' && source !== 'advised') return word;
  return `${word} · ${t(firm ? 'bench.firmShort' : 'bench.changeable')}`;
}
