/** Rows and tables of files. */
import { DataTypes } from 'sequelize';
import { int, key, now, ref, text, type Define } from './columns';

/** What is in a file, once however often it was brought. */
export interface FileContentRow {
  /** SHA-256 of the bytes, in hexadecimal digits. */
  hash: string;
  kind: string;
  size: number;
  width: number | null;
  height: number | null;
  bytes: Buffer;
  /** A small copy of a picture. */
  small: Buffer | null;
  smallKind: string | null;
  madeAt: Date;
}

/** A file as somebody brought it. */
export interface FileRow {
  id: string;
  hash: string;
  name: string;
  owner: string;
  /** What uses it; null while nothing does. */
  about: string | null;
  aboutId: string | null;
  madeAt: Date;
}

/** Its tables. */
export const fileRecords = (table: Define) => ({
  fileContents: table<FileContentRow>('file_contents', {
    hash: key(text),
    kind: text,
    size: int,
    width: int,
    height: int,
    bytes: DataTypes.BLOB,
    small: DataTypes.BLOB,
    smallKind: text,
    madeAt: now(),
  }),
  files: table<FileRow>('files', {
    id: key(ref),
    hash: text,
    name: text,
    owner: ref,
    about: text,
    aboutId: text,
    madeAt: now(),
  }),
});
