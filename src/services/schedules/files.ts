/** A schedule as a document, or as rows for spreadsheets, as they are taken in again. */
import { composeSchedule } from '../../core/paper';
import type { FileAnswer } from '../../contract';
import { own, translator } from '../../i18n';
import type { Actor } from '../access/actor';
import { fileName } from '../builds/drawings';
import { done, fail, type Result } from '../kernel/failure';
import { askLongPapers, askPapers } from '../kernel/papers';
import { paperWords } from '../../i18n/paper-words';
import { findSchedule } from './find';
import { headGiven, plainPosition } from './given';
import { toldPositions, type Told } from './told';

const media = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  pdf: 'application/pdf',
} as const;

/** The schedule in a format, in the language of whoever asks. */
export async function scheduleFile(actor: Actor, id: string, format: string): Promise<Result<FileAnswer>> {
  if (format !== 'csv' && format !== 'xlsx' && format !== 'pdf')
    return fail('missing', { code: 'file.format' });
  const row = await findSchedule(actor, id);
  if (!row) return fail('missing', { code: 'schedule.missing' });
  const told = await toldPositions(id);
  const name = `${fileName(row.name) || 'schedule'}.${format}`;
  if (format !== 'pdf')
    return done({
      name,
      type: media[format],
      bytes: await askPapers('sheet', { name: row.name, rows: sheetOf(told, actor.language), format }),
    });
  const language = actor.language.startsWith('de') ? 'de' : 'en';
  const { head, look, files } = await headGiven(row, language);
  const given = { ...head, positions: told.map(plainPosition) };
  const document = composeSchedule(given, look, paperWords(language, 0));
  return done({ name, type: media.pdf, bytes: await askLongPapers('composed', { document, files }) });
}

/** Rows with the titles that the person's grid has. */
export function sheetOf(told: readonly Told[], language: string): string[][] {
  const t = translator(language);
  const figure = (text: string): string => (language.startsWith('de') ? text.replace('.', ',') : text);
  return [
    (['tag', 'area', 'of', 'quantity', 'remark'] as const).map((field) => t(`schedule.field.${field}`)),
    ...told.map(({ view: { tag, area, name, number, quantity, remark } }) => [
      tag,
      area,
      [own(name, language), number].filter(Boolean).join(', '),
      figure(quantity),
      remark,
    ]),
  ];
}
