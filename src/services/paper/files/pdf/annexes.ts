/** Data sheets and other PDF files behind the last page. */
import { PDFDocument } from '@cantoo/pdf-lib';
import type { PaperDocument } from '../../../../core/paper';
import type { GivenFiles } from '../given-files';

/** Pages of all annexes together at most. */
const mostPages = 500;

/** An annex cannot be read, or there are too many pages; its name says which. */
export class AnnexUnread extends Error {
  override readonly name = 'AnnexUnread';
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
    const read = await PDFDocument.load(annex.bytes, { updateMetadata: false }).catch(() => null);
    pages += read?.getPageCount() ?? 0;
    if (!read || pages > mostPages) throw new AnnexUnread(annex.name);
    for (const page of await whole.copyPages(read, read.getPageIndices())) whole.addPage(page);
  }
  whole.setModificationDate(new Date(`${day}T00:00:00Z`));
  return whole.save();
}

/** Whether a file can be joined. */
export async function readsAsPdf(bytes: Uint8Array): Promise<boolean> {
  const read = await PDFDocument.load(bytes, { updateMetadata: false }).catch(() => null);
  return read !== null && read.getPageCount() > 0 && read.getPageCount() <= mostPages;
}
