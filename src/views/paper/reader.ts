/** Reading pages: the library that draws PDF files, fetched with its own thread when it is first needed. */
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';

export type { PDFDocumentProxy, PDFPageProxy };

let library: Promise<typeof import('pdfjs-dist')> | undefined;

async function load(): Promise<typeof import('pdfjs-dist')> {
  const pdfjs = await import('pdfjs-dist');
  pdfjs.GlobalWorkerOptions.workerPort = new Worker(
    new URL('pdfjs-dist/build/pdf.worker.min.mjs', import.meta.url),
    { type: 'module' },
  );
  return pdfjs;
}

/** Opens pages; the bytes stay whose they are. */
export async function openPages(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  library ??= load();
  const { getDocument } = await library;
  return getDocument({ data: bytes.slice(), isEvalSupported: false, enableXfa: false }).promise;
}

const blockMark = 'block-';

/** Keys of the blocks that stand on some page. */
export async function blocksIn(pages: PDFDocumentProxy): Promise<ReadonlySet<string>> {
  const names = Object.keys(await pages.getDestinations());
  return new Set(names.flatMap((name) => (name.startsWith(blockMark) ? name.slice(blockMark.length) : [])));
}

/** The page on which a block begins, counted from 0; null where it is not to be found. */
export async function pageOfBlock(pages: PDFDocumentProxy, key: string): Promise<number | null> {
  const found = (await pages.getDestination(`${blockMark}${key}`)) as
    [Parameters<PDFDocumentProxy['getPageIndex']>[0]] | null;
  return found ? pages.getPageIndex(found[0]) : null;
}

/** Draws a page so wide in points of the screen, sharp on it; gives the words on it. */
export async function drawPage(
  page: PDFPageProxy,
  canvas: HTMLCanvasElement,
  width: number,
): Promise<string> {
  const sharp = Math.min(window.devicePixelRatio || 1, 2);
  const plain = page.getViewport({ scale: 1 });
  const viewport = page.getViewport({ scale: (width * sharp) / plain.width });
  // Drawn aside first, so that nothing blank is seen in between.
  const aside = document.createElement('canvas');
  aside.width = Math.ceil(viewport.width);
  aside.height = Math.ceil(viewport.height);
  await page.render({ canvas: aside, viewport }).promise;
  canvas.width = aside.width;
  canvas.height = aside.height;
  canvas.getContext('2d')?.drawImage(aside, 0, 0);
  const { items } = await page.getTextContent();
  return items
    .map((item) => ('str' in item ? item.str : ''))
    .join(' ')
    .replace(/\s+/g, ' ');
}
