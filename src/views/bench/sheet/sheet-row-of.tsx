import { lazy, Suspense } from 'react';
import type { Target } from '../../../core/engine';
import { isPictured } from '../panels/pictured';
import { WhyPanel } from '../panels/WhyPanel';
import type { Words } from '../words';
import type { InWords } from '../../speech';
import type { SheetProps } from './sheet-props';
import { Refusal } from './SheetParts';
import { SheetRow } from './SheetRow';
import type { SheetState } from './useSheet';

const Help = lazy(() => import('../panels/Help'));

/** Nothing is told of a row's options. */
const none = {};

/** A row of the sheet with what is told beneath it; null where it is not there in this build. */
export function sheetRowOf(id: string, drawn: boolean, sheet: SheetState, props: SheetProps, { t }: InWords) {
  const { view, bench, later, words, frozen, asked, acts, onCloseWhy, onTake } = props;
  const { tariff, preferences } = view;
  const { helped, setHelped } = sheet;
  const [at, moved] = sheet.away.has(id) ? [later, sheet.moved.later] : [bench, sheet.moved.now];
  const state = at.picture.state.rows[id];
  if (!state?.shown) return null;
  const refusal = sheet.refused.get(id);
  const asking = asked && asked.target.on.split('.')[0] === id ? asked : null;
  return (
    <SheetRow
      key={id}
      id={id}
      row={sheet.known.get(id)}
      sketched={sheet.sketched.has(id) || isPictured(sheet.known.get(id), view.facts)}
      state={state}
      words={words}
      differences={at.differences.get(id) ?? none}
      remarks={at.remarks.get(id) ?? none}
      decimals={tariff.decimals}
      frozen={frozen}
      folded={preferences.foldBarred}
      facts={view.facts}
      advice={at.picture.advice[id]}
      moved={moved.has(id)}
      drawn={drawn}
      watch={sheet.many ? undefined : sheet.watchRow}
      helped={helped === id}
      onHelp={setHelped}
      {...acts}
    >
      {refusal !== undefined && (
        <Refusal sentence={refusal} onAgain={frozen ? undefined : () => void bench.again()} />
      )}
      {helped === id && (
        <Suspense>
          <Help
            row={id}
            known={sheet.known.get(id)}
            sketched={sheet.sketched.has(id)}
            bench={bench}
            facts={view.facts}
            drawing={view.document.drawing}
            words={words}
            onClose={() => setHelped(undefined)}
          />
        </Suspense>
      )}
      {asking && (
        <WhyPanel
          title={t('bench.why', { what: askedOf(asking.target, words) })}
          why={asking.why}
          words={words}
          decimals={tariff.decimals}
          second={() => bench.second(asking.target)}
          onClose={onCloseWhy}
          onTake={(way) => onTake(way.decisions, id)}
        />
      )}
    </SheetRow>
  );
}

/** What is asked why, in words. */
const askedOf = ({ on, value }: Target, words: Words): string =>
  on.includes('.') || typeof value === 'boolean' ? words.subject(on) : words.value(on, value);
