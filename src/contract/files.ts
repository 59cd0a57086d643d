/** Files that people bring: pictures, drawings, sheets; told by what is in them, not by their name. */
import { object, string } from 'yup';
import { mostFileBytes } from '../core/exchange';
import { endpoint, file, json, takingFile } from './endpoint';

/** What a file can be; everything else is refused. */
export const fileKinds = ['png', 'jpeg', 'webp', 'svg', 'pdf', 'xlsx', 'docx', 'csv', 'text'] as const;
/** What a file is. */
export type FileKind = (typeof fileKinds)[number];
/** Those that are pictures. */
export const pictureKinds: readonly FileKind[] = ['png', 'jpeg', 'webp', 'svg'];

/** A file that was brought. */
export interface FileView {
  id: string;
  /** As whoever brought it calls it. */
  name: string;
  kind: FileKind;
  /** Bytes, as it is kept: a picture is made smaller. */
  size: number;
  /** Of a picture, in dots. */
  width: number | null;
  height: number | null;
  by: string;
  /** A moment in ISO form. */
  at: string;
}

/** What a file is called by whoever brings it. */
export const bringFileQuery = object({
  name: string().trim().max(200, 'input.tooLong').default(''),
});

/** How large a picture is wanted. */
export const openFileQuery = object({
  as: string().oneOf(['whole', 'small'], 'input.badKind').default('whole'),
});

/** Endpoints of files. */
export const files = {
  'POST /files': takingFile({
    says: 'Brings a file. It is told by what is in it; pictures are made smaller, drawings in SVG made safe. Until it is used somewhere, whoever brought it alone sees it.',
    who: 'person',
    most: mostFileBytes,
    query: bringFileQuery,
    answers: json<FileView>('FileView'),
  }),
  'GET /files/{id}': endpoint({
    says: 'A file, or a small copy of a picture.',
    who: 'person',
    query: openFileQuery,
    answers: file,
  }),
  'DELETE /files/{id}': endpoint({
    says: 'Takes back a file that is not used anywhere.',
    who: 'person',
    answers: json<null>('null'),
  }),
};
