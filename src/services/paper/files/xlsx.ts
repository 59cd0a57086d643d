/** A document as a workbook whose sums are formulas: what is changed in it is worked out anew. */
import ExcelJS from 'exceljs';
import type { Cell, Figure, Node, PaperDocument } from '../../../core/paper';
import { exact } from '../../../core/exact';

type Table = Extract<Node, { is: 'table' }>;
type Sums = Extract<Node, { is: 'sums' }>;

/** Figures and where they stand. */
interface Placed {
  address: string;
  column: string;
  row: number;
  figure: Figure;
}

/** What spreadsheets take for the beginning of a formula, in full width too. */
const beginsFormula = /^[=+\-@\t\r\uff1d\uff0b\uff0d\uff20]/;
const defused = (text: string): string => (beginsFormula.test(text) ? `'${text}` : text);

/** The workbook: one sheet with what is said above the lines, the lines, and their sums. */
export async function writeXlsx(document: PaperDocument): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  book.creator = document.author;
  book.title = document.title;
  const sheet = book.addWorksheet(document.reference.split(' · ')[0]?.slice(0, 31) ?? 'Sheet', {
    pageSetup: {
      orientation: 'portrait',
      fitToPage: true,
      fitToHeight: 0,
    },
  });
  const writer = new SheetWriter(sheet, document);
  writer.title();
  for (const { nodes } of document.blocks) for (const node of nodes) writer.node(node);
  writer.formulas();
  return new Uint8Array(await book.xlsx.writeBuffer());
}

const letters = (column: number): string =>
  column > 26
    ? letters(Math.floor((column - 1) / 26)) + letters(((column - 1) % 26) + 1)
    : String.fromCharCode(64 + column);

/** Columns of the sheet; every table begins at the first. */
const widest = 8;

class SheetWriter {
  private row = 1;
  private readonly placed = new Map<string, Placed>();
  /** Columns of figures of the main table; sums stand in its last. */
  private last = 2;

  constructor(
    private readonly sheet: ExcelJS.Worksheet,
    private readonly document: PaperDocument,
  ) {
    sheet.getColumn(1).width = 14;
    sheet.getColumn(2).width = 58;
    for (let at = 3; at <= widest; at++) sheet.getColumn(at).width = 15;
    const main = document.blocks.flatMap(({ nodes }) => nodes).find((node) => node.is === 'table');
    if (main?.is === 'table') this.last = main.columns.length;
  }

  title(): void {
    const { head, what, reference, watermark } = this.document;
    this.text(head.name, { bold: true, size: 14 });
    for (const line of head.lines) this.text(line, { color: { argb: 'FF5A5D60' } });
    this.text(`${what} ${reference}`, { bold: true, size: 13 });
    if (watermark !== '') this.text(watermark, { bold: true, color: { argb: 'FFA3352B' } });
    this.row += 1;
  }

  node(node: Node): void {
    switch (node.is) {
      case 'heading':
        this.row += node.level < 3 ? 1 : 0;
        this.text(node.text, { bold: true, size: node.level === 1 ? 12 : 11 });
        break;
      case 'paragraph':
        this.text(node.spans.map(({ text }) => text).join(''));
        break;
      case 'list':
        for (const [at, item] of node.items.entries())
          this.text(`${node.ordered ? `${String(at + 1)}.` : '•'} ${item.map(({ text }) => text).join('')}`);
        break;
      case 'pairs':
        for (const [name, value] of node.rows) {
          this.sheet.getCell(this.row, 1).value = defused(name);
          this.sheet.getCell(this.row, 2).value = defused(value.replace(/\n/g, ', '));
          this.row += 1;
        }
        break;
      case 'table':
        this.table(node);
        break;
      case 'sums':
        this.sums(node);
        break;
      case 'timeline':
        for (const { name, from, to, note } of node.bars)
          this.text([name, `${from} – ${to}`, note].filter(Boolean).join('  '));
        break;
      case 'drawing':
      case 'picture':
        if (node.caption !== '') this.text(node.caption, { italic: true });
        break;
      case 'fields':
        this.row += 1;
        for (const name of node.names) this.text(`${name}: ______________________`);
        break;
    }
  }

  private text(text: string, font: Partial<ExcelJS.Font> = {}): void {
    const cell = this.sheet.getCell(this.row, 1);
    cell.value = defused(text);
    cell.font = font;
    this.row += 1;
  }

  private table({ columns, rows }: Table): void {
    columns.forEach(({ title, right }, at) => {
      const cell = this.sheet.getCell(this.row, at + 1);
      cell.value = defused(title);
      cell.font = { bold: true };
      cell.border = { bottom: { style: 'medium' } };
      if (right) cell.alignment = { horizontal: 'right' };
    });
    this.row += 1;
    for (const row of rows) {
      let column = 1;
      for (const cell of row.cells) {
        const over = cell.over ?? 1;
        this.cell(cell, column, row.is === 'sum' || row.is === 'group');
        column += over;
      }
      this.row += 1;
    }
    this.row += 1;
  }

  private cell(cell: Cell, column: number, strong: boolean): void {
    const at = this.sheet.getCell(this.row, column);
    if (cell.figure) {
      this.figure(cell.figure, column);
      if (strong) at.font = { bold: true };
      return;
    }
    const text = [
      ...cell.lines.map(({ spans }) => spans.map(({ text: words }) => words).join('')),
      ...(cell.entries ?? []).map(([name = '', ...values]) =>
        [name, values.filter(Boolean).join('  ')].filter(Boolean).join(': '),
      ),
    ].join('\n');
    if (text === '') return;
    at.value = /^\d+$/.test(text) && column === 1 ? Number(text) : defused(text);
    at.alignment = { wrapText: true, vertical: 'top' };
    if (strong) at.font = { bold: true };
  }

  private sums({ rows }: Sums): void {
    for (const { name, figure, strong } of rows) {
      const cell = this.sheet.getCell(this.row, Math.max(this.last - 1, 2));
      cell.value = defused(name);
      cell.font = { bold: strong };
      cell.alignment = { horizontal: 'right' };
      this.figure(figure, Math.max(this.last, 3));
      this.sheet.getCell(this.row, Math.max(this.last, 3)).font = { bold: strong };
      this.row += 1;
    }
    this.row += 1;
  }

  private figure(figure: Figure, column: number): void {
    const cell = this.sheet.getCell(this.row, column);
    cell.value = Number(figure.value);
    cell.numFmt =
      figure.is === 'share'
        ? '0.00%'
        : figure.is === 'count'
          ? '#,##0.####'
          : `#,##0${figure.decimals > 0 ? `.${'0'.repeat(figure.decimals)}` : ''}`;
    cell.alignment = { vertical: 'top' };
    this.placed.set(figure.id, {
      address: cell.address,
      column: letters(column),
      row: this.row,
      figure,
    });
  }

  /** Formulas in the place of figures that can be worked out; each with what it comes to. */
  formulas(): void {
    for (const { address, figure } of this.placed.values()) {
      const formula = this.formulaOf(figure);
      if (formula === null) continue;
      this.sheet.getCell(address).value = { formula, result: Number(figure.value) };
    }
  }

  private formulaOf({ works, decimals }: Figure): string | null {
    if (!works) return null;
    const at = (ids: readonly string[]): Placed[] | null => {
      const found = ids.map((id) => this.placed.get(id));
      return found.some((each) => !each) ? null : (found as Placed[]);
    };
    const digits = String(decimals);
    switch (works.is) {
      case 'product': {
        const of = at(works.of);
        return of && `ROUND(${of.map(({ address }) => address).join('*')},${digits})`;
      }
      case 'sum': {
        const [of, less] = [at(works.of), at(works.less ?? [])];
        if (!of || !less || of.length === 0) return null;
        const taken = less.map(({ address }) => `-${address}`).join('');
        return `${this.sumOf(of)}${taken}`;
      }
      case 'rate': {
        const of = at(works.of);
        return of && of.length > 0
          ? `ROUND((${this.sumOf(of)})*${exact(works.rate).toString()},${digits})`
          : null;
      }
      case 'across': {
        const rows = works.of.map(at);
        return rows.some((row) => !row) ? null : this.acrossOf(rows as Placed[][], digits);
      }
    }
  }

  /** Few are named; many that stand in a column are a range, in which sums of lines and groups do not count. */
  private sumOf(of: readonly Placed[]): string {
    const [first] = of;
    const inRange = first && of.length > 3 && of.every(({ column }) => column === first.column);
    if (!inRange)
      return of.length === 1 ? (first?.address ?? '0') : `SUM(${of.map(({ address }) => address).join(',')})`;
    const wanted = new Set(of.map(({ row }) => row));
    const [low, high] = [Math.min(...wanted), Math.max(...wanted)];
    const others = [...this.placed.values()].filter(
      ({ column, row }) => column === first.column && row >= low && row <= high && !wanted.has(row),
    );
    // Sums within are made of what is counted already.
    const apart = others.filter(({ figure }) => figure.works?.is !== 'sum');
    const within = others.filter(({ figure }) => figure.works?.is === 'sum');
    const less = [...apart, ...within].map(({ address }) => address);
    const whole = `SUM(${first.column}${String(low)}:${first.column}${String(high)})`;
    return less.length === 0 ? whole : less.length <= 200 ? `${whole}-SUM(${less.join(',')})` : chunked(of);
  }

  private acrossOf(rows: readonly (readonly Placed[])[], digits: string): string {
    const columns = rows[0]?.map(({ column }) => column) ?? [];
    const same = rows.every(
      (row) => row.length === columns.length && row.every(({ column }, at) => column === columns[at]),
    );
    const lines = rows.map((row) => row[0]?.row ?? 0);
    const [low, high] = [Math.min(...lines), Math.max(...lines)];
    // Rows between that have these figures but do not count would count along.
    const wanted = new Set(lines);
    const strange = [...this.placed.values()].some(
      ({ column, row }) => column === columns[1] && row >= low && row <= high && !wanted.has(row),
    );
    if (!same || strange)
      return rows
        .slice(0, 200)
        .map((row) => `ROUND(${row.map(({ address }) => address).join('*')},${digits})`)
        .join('+');
    const range = (column: string): string => `${column}${String(low)}:${column}${String(high)}`;
    return `SUMPRODUCT(ROUND(${columns.map(range).join('*')},${digits}))`;
  }
}

/** A sum of many that are no range: spreadsheets take so many at once. */
function chunked(of: readonly Placed[]): string {
  const parts: string[] = [];
  for (let at = 0; at < of.length; at += 100)
    parts.push(
      `SUM(${of
        .slice(at, at + 100)
        .map(({ address }) => address)
        .join(',')})`,
    );
  return parts.join('+');
}
