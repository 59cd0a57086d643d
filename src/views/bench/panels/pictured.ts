/** Which options have pictures: their own, or those of the items that they bring. */
import type { BenchView } from '../../../contract';
import type { Feature, Option, Parameter } from '../../../core/model';

/** The file of the picture of an option; nothing where it has none. */
export const pictureOf = ({ picture, item = '' }: Option, facts: BenchView['facts']): string | undefined =>
  picture ?? facts[item]?.picture;

/** Whether any option of a row has a picture. */
export const isPictured = (row: Feature | Parameter | undefined, facts: BenchView['facts']): boolean =>
  row !== undefined &&
  'most' in row &&
  'options' in row &&
  row.options.some((option) => pictureOf(option, facts));
