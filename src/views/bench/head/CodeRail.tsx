import { memo } from 'react';
import type { PartNumber } from '../../../core/numbering';
import type { Outline } from '../../../core/model';
import { own } from '../../../i18n';
import { classes } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './head.module.css';

/**
 * The part number, a cell per segment with the feature's short name beneath; each cell is a door to its
 * feature.
 */
export const CodeRail = memo(
  function CodeRail({
    number,
    outline,
    onGo,
  }: {
    number: PartNumber;
    outline: Outline;
    onGo: (row: string) => void;
  }) {
    const { t, language } = useSpeech();
    const shortName = (row: string | undefined): string => {
      const found = [...outline.features, ...outline.parameters].find((each) => each.id === row);
      return (
        own(found && 'short' in found && found.short ? found.short : found?.name, language) ||
        own(outline.calculations.find((each) => each.id === row)?.name, language)
      );
    };
    // A calculation is decided where its first feature stands: the length in decimetres belongs to the row
    // Length.
    const door = (row: string): string =>
      outline.sections.some((section) => section.rows.includes(row))
        ? row
        : (outline.sections
            .flatMap((section) => section.rows)
            .find((each) => row.toLowerCase().includes(each.toLowerCase())) ?? row);
    return (
      <div className={css.cells} role="group" aria-label={`${t('build.partNumber')} ${number.text}`}>
        {number.cells.map((cell, index) => {
          const row = cell.row === undefined ? undefined : door(cell.row);
          const shown = cell.text ?? '·'.repeat(cell.width);
          return [
            cell.before ? (
              <span key={`b${String(index)}`} className={css.before} aria-hidden>
                {cell.before}
              </span>
            ) : null,
            <button
              key={String(index)}
              type="button"
              className={classes(css.cell, cell.text === null && css.cellOpen)}
              disabled={row === undefined}
              onClick={() => row && onGo(row)}
            >
              {shown} <span className={css.cellName}>{row ? shortName(row) : ' '}</span>
            </button>,
          ];
        })}
      </div>
    );
  },
  (before, after) => before.number.text === after.number.text && before.outline === after.outline,
);
