/** Items as a file for spreadsheets, which is taken in again as it went out. */
import type { FileAnswer, ItemRowView } from '../../contract';
import { translator } from '../../i18n';
import type { Actor } from '../access/actor';
import { today } from '../kernel/clock';
import { done, fail, type Result } from '../kernel/failure';
import { askPapers } from '../kernel/papers';
import { seeItems } from './kept';

const media = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
} as const;

/** All items, with the titles that the person's grid has. */
export async function itemsFile(actor: Actor, format: string): Promise<Result<FileAnswer>> {
  if (format !== 'csv' && format !== 'xlsx') return fail('missing', { code: 'file.format' });
  const t = translator(actor.language);
  const { items } = await seeItems();
  const name = (language: 'en' | 'de'): string =>
    t('items.nameIn', { language: t(`items.languages.${language}`) });
  const titles = [
    t('items.field.sku'),
    name('en'),
    name('de'),
    ...(
      ['family', 'kind', 'unit', 'cost', 'leadDays', 'mass', 'active', 'sold', 'discountable'] as const
    ).map((field) => t(`items.field.${field}`)),
  ];
  const rows = [titles, ...items.map((item) => cellsOf(item, actor.language))];
  return done({
    name: `items-${today()}.${format}`,
    type: media[format],
    bytes: await askPapers('sheet', { name: 'items', rows, format }),
  });
}

/** Families and kinds by their codes, which are the same in every language; numbers as the language writes them. */
function cellsOf(
  { sku, name, family, kind, unit, cost, leadDays, mass, active, sold, discountable }: ItemRowView,
  language: string,
): string[] {
  const figure = (text: string): string => (language === 'de' ? text.replace('.', ',') : text);
  const mark = (is: boolean): string => (is ? 'x' : '');
  return [
    sku,
    name.en ?? '',
    name.de ?? '',
    family,
    kind,
    unit,
    figure(cost),
    String(leadDays),
    mass === null ? '' : figure(mass),
    mark(active),
    mark(sold),
    mark(discountable),
  ];
}
