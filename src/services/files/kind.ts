/** What a file is, by what is in it. */
import { fileTypeFromBuffer } from 'file-type';
import type { FileKind } from '../../contract';

/** Media types of the kinds, as they are answered. */
export const mediaTypes: Readonly<Record<FileKind, string>> = {
  png: 'image/png',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
  svg: 'image/svg+xml',
  pdf: 'application/pdf',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  csv: 'text/csv; charset=utf-8',
  text: 'text/plain; charset=utf-8',
};

const byEnding: Readonly<Record<string, FileKind>> = {
  png: 'png',
  jpg: 'jpeg',
  webp: 'webp',
  pdf: 'pdf',
  xlsx: 'xlsx',
  docx: 'docx',
};

/** What a file is; null for what is not taken. Of its name only the ending counts, between CSV and other text. */
export async function kindOf(bytes: Uint8Array, name: string): Promise<FileKind | null> {
  const found = await fileTypeFromBuffer(bytes);
  if (found && found.ext !== 'xml') return byEnding[found.ext] ?? null;
  const text = textIn(bytes);
  if (text === null) return null;
  if (/<svg[\s>]/i.test(text.slice(0, 4_096)) && /^\s*</.test(text)) return 'svg';
  // Anything else that is written for a browser is no text to be passed on.
  if (/<(?:!doctype|html|script|\?xml|[a-z]+:svg)\b/i.test(text.slice(0, 4_096))) return null;
  return /\.csv$/i.test(name) ? 'csv' : 'text';
}

/** The text of a file in UTF-8 without other control characters than blanks and ends of lines; else null. */
export function textIn(bytes: Uint8Array): string | null {
  if (bytes.length === 0) return null;
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return /[\u0000-\u0008\u000b\u000e-\u001f\u007f]/.test(text) ? null : text;
  } catch {
    return null;
  }
}
