/** The specification sheet of a build as a file, and its drawings as an archive. */
import { zipSync, type Zippable } from 'fflate';
import {
  composeSpecification,
  type Composition,
  type PaperDocument,
  type SpecificationGiven,
} from '../../../core/paper';
import { writeDocx } from './docx/docx';
import type { GivenFiles } from './given-files';
import { writeHtml } from './html';
import { writePdf } from './pdf/pdf';
import { paperWords } from '../../../i18n/paper-words';

/** What a sheet is made of. */
export interface SheetGiven {
  specification: SpecificationGiven;
  look: Pick<Composition, 'language' | 'paper' | 'colour'>;
  files: GivenFiles;
}

const documentOf = ({ specification, look }: SheetGiven): PaperDocument =>
  composeSpecification(specification, look, paperWords(look.language, 0));

/** The sheet in a format. */
export function writeSpecification(given: SheetGiven, format: 'pdf' | 'docx' | 'html'): Promise<Uint8Array> {
  const document = documentOf(given);
  switch (format) {
    case 'pdf':
      return writePdf(document, given.files);
    case 'docx':
      return writeDocx(document, given.files);
    case 'html':
      return writeHtml(document, given.files);
  }
}

/** Files in a folder of an archive, with a PDF of all drawings among them. */
export async function writeArchive(
  sheet: SheetGiven,
  files: Readonly<Record<string, Uint8Array>>,
  folder: string,
): Promise<Uint8Array> {
  const document = documentOf(sheet);
  const drawn = {
    ...document,
    blocks: document.blocks
      .filter(({ key }) => key !== 'specification')
      .map((block) => ({ ...block, apart: undefined })),
  };
  const pdf = await writePdf(drawn, sheet.files);
  return zipped(folder, { ...files, 'drawings.pdf': pdf }, document.day);
}

/** Files in a folder of an archive. The same files give the same archive, whenever it is made. */
export function zipped(folder: string, files: Readonly<Record<string, Uint8Array>>, day: string): Uint8Array {
  const all: Zippable = Object.fromEntries(
    Object.entries(files).map(([name, bytes]) => [`${folder}/${name}`, bytes]),
  );
  return zipSync(all, { level: 6, mtime: new Date(`${day}T12:00:00Z`) });
}
