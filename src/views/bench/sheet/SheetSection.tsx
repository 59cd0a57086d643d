import { classes } from '../../../ui';
import type { BenchView } from '../../../contract';
import { useSpeech } from '../../speech';
import { isWithin } from './focus';
import { roughHeight } from './Row';
import { RowGroup } from './RowGroup';
import { sheetRowOf } from './sheet-row-of';
import { InsideNumber, Opener } from './SheetParts';
import type { SheetProps } from './sheet-props';
import css from './sheet.module.css';
import type { SheetState } from './useSheet';

/** Between the controls of two rows, in CSS pixels. */
const rowGap = 5;

/** A section of the sheet; a build inside says its part number once, and opens and closes there. */
export function SheetSection({
  section,
  sheet,
  props,
}: {
  section: BenchView['outline']['sections'][number];
  sheet: SheetState;
  props: SheetProps;
}) {
  const speech = useSpeech();
  const { words, bench } = props;
  const { sections, closed, rows, known } = sheet;
  const { place } = section;
  const first = place !== undefined && sections.find((each) => each.place === place) === section;
  const within = place !== undefined && isWithin(closed, place);
  if (within && !(first && closed.has(place))) return null;
  const folded = first && closed.has(place);
  const title = folded ? (words.place(place) ?? '') : words.section(section);
  const heightOf = (group: readonly string[]): number =>
    group.reduce((sum, id) => sum + (rows[id]?.shown ? roughHeight(known.get(id)) + rowGap : 0), 0);
  return (
    <section
      data-section={title}
      aria-label={words.section(section)}
      className={classes(place !== undefined && css.inside)}
      style={place === undefined ? undefined : { marginLeft: 12 * (place.split('/').length / 3) }}
    >
      <h2 className={css.sectionTitle}>
        {first && <Opener name={words.place(place)} folded={folded} onToggle={() => sheet.toggle(place)} />}
        {title}
        {first && <InsideNumber place={place} sections={sections} picture={bench.picture} />}
      </h2>
      {!within &&
        sheet.groups
          .get(section)
          ?.map((group) => [group, heightOf(group)] as const)
          .filter(([, height]) => height > 0)
          .map(([group, height]) => (
            <RowGroup
              key={group[0]}
              rows={group}
              height={height}
              near={sheet.many ? sheet.near : null}
              watch={sheet.watchGroup}
            >
              {(drawn) => group.map((id) => sheetRowOf(id, drawn, sheet, props, speech))}
            </RowGroup>
          ))}
    </section>
  );
}
