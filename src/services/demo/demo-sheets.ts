/** Data sheets of what the demo sells from stock: a page each, of what is told of the item. */
import { PDFDocument, StandardFonts, rgb } from '@cantoo/pdf-lib';
import { propertiesOf, type Families, type Item } from '../../core/items';
import { connected } from '../../data';
import { keepMade } from '../files/files';

/** What has a data sheet. */
const hasSheet = ({ sku }: Item): boolean => /^(SILL-\d|BC-(DESK|IP66|INOX)$|YE-(KIOSK|BARRIER|DISPLAY)$)/.test(sku);

/** Lines of at most so many letters. */
function folded(text: string, most: number): string[] {
  const lines = [''];
  for (const word of text.split(' ')) {
    const last = lines.at(-1) ?? '';
    if (last !== '' && `${last} ${word}`.length > most) lines.push(word);
    else lines[lines.length - 1] = last === '' ? word : `${last} ${word}`;
  }
  return lines;
}

/** The page of one item, in both languages of the house. */
export async function sheetOf(item: Item, families: Families): Promise<Buffer> {
  const pdf = await PDFDocument.create();
  // The same item has the same sheet.
  pdf.setCreationDate(new Date('2026-01-01T00:00:00Z'));
  pdf.setModificationDate(new Date('2026-01-01T00:00:00Z'));
  pdf.setTitle(`${item.sku} ${item.name['en'] ?? ''}`);
  const [plain, bold] = [
    await pdf.embedFont(StandardFonts.Helvetica),
    await pdf.embedFont(StandardFonts.HelveticaBold),
  ];
  const page = pdf.addPage([595, 842]);
  let y = 780;
  const write = (text: string, size: number, font = plain, x = 56): void =>
    page.drawText(text, { x, y, size, font, color: rgb(0.15, 0.2, 0.22) });
  const rows: [string, string][] = [
    ...propertiesOf(families, item.family).flatMap((property): [string, string][] => {
      const value = item.properties[property.id];
      if (value === undefined) return [];
      const said =
        property.is === 'yesNo'
          ? value === true
            ? 'yes / ja'
            : 'no / nein'
          : property.is === 'choice'
            ? (property.options.find(({ id }) => id === value)?.name['en'] ?? '')
            : `${String(value)}${property.is === 'number' ? ` ${property.unit}` : ''}`;
      return [[`${property.name['en'] ?? ''} / ${property.name['de'] ?? ''}`, said]];
    }),
    ...(item.mass === null ? [] : [['Mass / Masse', `${item.mass} kg`] as [string, string]]),
  ];
  write('Harrowmoor Scale Works', 11, bold);
  y -= 44;
  for (const language of ['en', 'de']) {
    write(item.name[language] ?? '', 20, bold);
    y -= 24;
    for (const line of folded(item.says[language] ?? '', 82)) {
      write(line, 11);
      y -= 16;
    }
    y -= 14;
  }
  write(item.sku, 11, bold);
  y -= 26;
  for (const [name, value] of rows) {
    write(name, 11);
    write(value, 11, plain, 330);
    page.drawLine({ start: { x: 56, y: y - 6 }, end: { x: 539, y: y - 6 }, thickness: 0.5 });
    y -= 22;
  }
  return Buffer.from(await pdf.save());
}

/** Keeps the data sheets in the file store, brought by somebody of the house. */
export async function loadSheets(all: readonly Item[], families: Families, owner: string): Promise<void> {
  const { files, items } = connected().records;
  for (const item of all.filter(hasSheet)) {
    const id = await keepMade(owner, {
      name: `${item.sku}.pdf`,
      kind: 'pdf',
      bytes: await sheetOf(item, families),
    });
    await files.update({ about: 'item', aboutId: item.sku }, { where: { id } });
    await items.update({ dataSheet: id }, { where: { sku: item.sku } });
  }
}
