/** Data sheets and other PDF files behind the last page. */
import { PDFArray, PDFDict, PDFDocument, PDFName, type PDFPage } from '@cantoo/pdf-lib';
import type { PaperDocument } from '../../../../core/paper';
import type { GivenFiles } from '../given-files';

/** Pages of all annexes together at most. */
const mostPages = 500;

/** An annex cannot be read, or there are too many pages; its name says which. */
export class AnnexUnread extends Error {
  override readonly name = 'AnnexUnread';
}

/** A file as pages; null where it is none, whatever its first letters say, or is locked. */
async function pagesIn(bytes: Uint8Array): Promise<PDFDocument | null> {
  try {
    const read = await PDFDocument.load(bytes, { updateMetadata: false });
    return read.getPageCount() > 0 ? read : null;
  } catch {
    return null;
  }
}

/** Whether a file can be joined. */
export async function readsAsPdf(bytes: Uint8Array): Promise<boolean> {
  const read = await pagesIn(bytes);
  return read !== null && read.getPageCount() <= mostPages;
}

/** What a mark on a page may do when it is pressed. */
const allowed = new Set(['/URI', '/GoTo']);

/** A page without anything that runs, starts or sends when it is opened or pressed. */
function harmless(page: PDFPage): PDFPage {
  const { node } = page;
  node.delete(PDFName.of('AA'));
  const marks = node.lookup(PDFName.of('Annots'));
  if (!(marks instanceof PDFArray)) return page;
  for (let at = marks.size() - 1; at >= 0; at--) {
    const mark = marks.lookup(at);
    if (!(mark instanceof PDFDict)) continue;
    const act = mark.lookup(PDFName.of('A'));
    const does = act instanceof PDFDict ? String(act.lookup(PDFName.of('S'))) : null;
    if (mark.has(PDFName.of('AA')) || (does !== null && !allowed.has(does))) marks.remove(at);
  }
  return page;
}

/** The document with its annexes; without any it stays byte for byte as it was. */
export async function withAnnexes(
  bytes: Uint8Array,
  { annexes, day }: PaperDocument,
  files: GivenFiles,
): Promise<Uint8Array> {
  const wanted = annexes.flatMap(({ file, name }) => {
    const found = files[file];
    return found?.kind === 'pdf' ? [{ name, bytes: found.bytes }] : [];
  });
  if (wanted.length === 0) return bytes;
  const whole = await PDFDocument.load(bytes, { updateMetadata: false });
  let pages = 0;
  for (const annex of wanted) {
    const read = await pagesIn(annex.bytes);
    pages += read?.getPageCount() ?? 0;
    if (!read || pages > mostPages) throw new AnnexUnread(annex.name);
    const copied = await whole.copyPages(read, read.getPageIndices()).catch(() => {
      throw new AnnexUnread(annex.name);
    });
    for (const page of copied) whole.addPage(harmless(page));
  }
  whole.setModificationDate(new Date(`${day}T00:00:00Z`));
  return whole.save();
}
