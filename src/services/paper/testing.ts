/** Reading PDF files back, for tests. */
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** The words of each page of a PDF, one blank between any two. */
export async function pdfPages(bytes: Uint8Array): Promise<string[]> {
  const pdf = await getDocument({ data: new Uint8Array(bytes), useSystemFonts: false }).promise;
  return Promise.all(
    Array.from({ length: pdf.numPages }, async (_, at) => {
      const { items } = await (await pdf.getPage(at + 1)).getTextContent();
      return items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .replace(/\s+/g, ' ');
    }),
  );
}

/** The same without blanks: however the words are set, they are the same words. */
export const pdfLetters = async (bytes: Uint8Array): Promise<string[]> =>
  (await pdfPages(bytes)).map((page) => page.replace(/\s/g, ''));
