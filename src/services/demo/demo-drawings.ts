/** The demo's drawings: one of each item, made of a few shapes on a sheet with a word below. */
import { createHash, randomUUID } from 'node:crypto';
import { connected } from '../../data';
import { safeDrawing } from '../files/svg';
import type { Read } from './demo-files';

/** A drawing: its shape, the word below it, and what stands in the places that its shape leaves open, as {m}. */
export interface DrawingFile {
  shape: string;
  caption?: string;
  with?: Record<string, string>;
}
/** All of them, and the shapes of which they are made. */
export interface DrawingsFile {
  shapes: Record<string, string>;
  items: Record<string, DrawingFile>;
}

/** How a stroke of a shape is drawn: filled, stressed, or thin. */
const manners: Readonly<Record<string, string>> = {
  f: 'fill="#dfe7e2"',
  a: 'stroke="#b4621c" stroke-width="2.5"',
  t: 'stroke="#7d8b8d" stroke-width="1"',
};

/** A drawing as SVG, on paper of its own, so that it reads in the dark as well. */
export function drawingText({ shapes }: DrawingsFile, { shape, caption, with: open = {} }: DrawingFile): string {
  const drawn = (shapes[shape] ?? '')
    .replace(/\{(\w+)\}/g, (_, place: string) => open[place] ?? '')
    .replace(/class="(\w)"/g, (_, manner: string) => manners[manner] ?? '');
  const word = caption
    ? `<text x="228" y="140" text-anchor="end" font-family="sans-serif" font-size="12" fill="#4c5a5d">${caption
        .replaceAll('&', '&amp;')
        .replaceAll('<', '&lt;')}</text>`
    : '';
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 240 150" width="240" height="150"><rect width="240" height="150" fill="#f8f7f2"/><g fill="none" stroke="#2c3a3e" stroke-width="1.75" stroke-linejoin="round" stroke-linecap="round">${drawn}</g>${word}</svg>`;
}

/** Keeps the drawing of each item in the file store, brought by somebody of the house. */
export async function loadDrawings(read: Read, owner: string): Promise<void> {
  const file = await read<DrawingsFile>('drawings.json');
  const { files, fileContents, items } = connected().records;
  const made = Object.entries(file.items).map(([sku, drawing]) => {
    const safe = safeDrawing(drawingText(file, drawing));
    if (!safe) throw new Error(`the drawing of ${sku} cannot be read`);
    const bytes = Buffer.from(safe.text);
    const hash = createHash('sha256').update(bytes).digest('hex');
    return { sku, id: randomUUID(), hash, bytes, width: safe.width, height: safe.height };
  });
  const at = new Date();
  await fileContents.bulkCreate(
    made.map(({ hash, bytes, width, height }) => ({
      hash,
      kind: 'svg',
      size: bytes.length,
      bytes,
      width,
      height,
      small: null,
      smallKind: null,
      madeAt: at,
    })),
    { ignoreDuplicates: true },
  );
  await files.bulkCreate(
    made.map(({ sku, id, hash }) => ({
      id,
      hash,
      name: `${sku}.svg`,
      owner,
      about: 'item',
      aboutId: sku,
      madeAt: at,
    })),
  );
  for (const { sku, id } of made) await items.update({ picture: id }, { where: { sku } });
}
