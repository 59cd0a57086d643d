import { lazy, Suspense } from 'react';
import type { Feature, Parameter, YesNoParameter } from '../../../core/model';
import type { OptionState, Standing } from '../../../core/engine';
import { useSpeech } from '../../speech';
import { NumberRow } from './NumberRow';
import { TabRow } from './TabRow';
import type { TabInfo } from './tab-info';
import { DateRow, TextRow } from './TypedRows';
import type { RowProps } from './row-props';

/** Only where there are many is a table needed, with all that finds and scrolls in it. */
const OptionTable = lazy(async () => ({ default: (await import('./OptionTable')).OptionTable }));

type ControlProps = RowProps & { feature: Feature | undefined; parameter: Parameter | undefined };

/** Options that still read well side by side. */
const mostTabs = 10;

/** Whether the options stand as a table: as the model says, else where they are many. */
const isTable = (feature: { shown?: Feature['shown'] } | undefined, count: number): boolean =>
  feature?.shown === 'table' || (feature?.shown !== 'tabs' && count > mostTabs);

/** How high the control of a row is about to be, in CSS pixels, for what stands there until it is drawn. */
export function roughHeight(row: Feature | Parameter | undefined): number {
  const count = row && 'options' in row ? row.options.length : 1;
  return isTable(row && 'shown' in row ? row : undefined, count)
    ? tableHeight
    : lineHeight * Math.ceil(count / perLine);
}
const [tableHeight, lineHeight, perLine] = [239, 45, 7];

/** The control of a row, by its kind. */
export function RowControl({ feature, parameter, ...props }: ControlProps) {
  if (feature) return <FeatureRow feature={feature} {...props} />;
  switch (parameter?.type) {
    case 'number':
      return <NumberRow parameter={parameter} {...props} />;
    case 'yesno':
      return <YesNoRow parameter={parameter} {...props} />;
    case 'date':
      return <DateRow parameter={parameter} {...props} />;
    case 'text':
      return <TextRow parameter={parameter} {...props} />;
    default:
      return null;
  }
}

/**
 * A feature: one choice as round, several as square controls; as tabs on a rail, or as a table that can be
 * searched where they are many.
 */
function FeatureRow({ feature, ...props }: RowProps & { feature: Feature }) {
  const { state, differences, remarks, words, facts } = props;
  const many = feature.most > 1;
  const items = new Map(feature.options.map((option) => [option.id, option]));
  const tabs = (state.options ?? []).map((option: OptionState): TabInfo => {
    const key = `${feature.id}.${option.id}`;
    const on = many ? key : feature.id;
    const { item, code } = items.get(option.id) ?? {};
    const fact = item === undefined ? undefined : facts[item];
    const unsold = fact?.unsold;
    return {
      key,
      name: words.option(feature.id, option.id),
      standing: unsold !== undefined && !option.taken ? 'barred' : option.standing,
      unsold,
      taken: option.taken,
      source: option.source,
      difference: differences[key],
      remark: remarks[key],
      code,
      mass: fact?.mass,
      target: { on, value: many ? true : option.id },
      decision: { on, value: many ? !option.taken : option.id },
      changeable: option.changeable,
      unproven: option.unproven === true,
    };
  });
  return isTable(feature, tabs.length) ? (
    <Suspense fallback={<div style={{ height: tableHeight }} />}>
      <OptionTable {...props} tabs={tabs} many={many} />
    </Suspense>
  ) : (
    <TabRow {...props} tabs={tabs} many={many} />
  );
}

function YesNoRow({ parameter, ...props }: RowProps & { parameter: YesNoParameter }) {
  const { t } = useSpeech();
  const { state, differences } = props;
  const tab = (value: boolean, standing: Standing): TabInfo => ({
    key: `${parameter.id}.${String(value)}`,
    name: t(value ? 'bench.yes' : 'bench.no'),
    standing,
    taken: state.value === value,
    source: state.source,
    difference: state.value === value ? undefined : differences[parameter.id],
    target: { on: parameter.id, value },
    decision: { on: parameter.id, value },
    changeable: standing === 'free',
    unproven: state.unproven === true,
  });
  return (
    <TabRow
      {...props}
      tabs={[tab(true, state.yes ?? 'barred'), tab(false, state.no ?? 'barred')]}
      many={false}
    />
  );
}
