/** A quotation in a format, and what whoever sends it should know. */
import sharp from 'sharp';
import {
  compose,
  unreadPlaceholders,
  richWords,
  type Composition,
  type Making,
  type Node,
  type PaperDocument,
  type PaperGiven,
  type RichText,
} from '../../../core/paper';
import type { PaperFormat, PaperWarning } from '../../../contract';
import { writeDocx } from './docx/docx';
import { unsettable } from './fonts';
import type { GivenFiles } from './given-files';
import { writeHtml } from './html';
import { AnnexUnread } from './pdf/annexes';
import { writePdf } from './pdf/pdf';
import { writeUbl } from './ubl/ubl';
import { paperWords } from '../../../i18n/paper-words';
import { writeXlsx } from './xlsx';

/** What a quotation is written from. */
export interface PaperTask {
  given: PaperGiven;
  composition: Composition;
  /** Texts of the house in the language of the document. */
  texts: Readonly<Record<string, RichText>>;
}

/** The file, or why there is none. */
export type PaperWritten =
  { is: 'done'; bytes: Uint8Array } | { is: 'refused'; code: 'paper.annexUnread'; name: string };

/** Dots along the longer side of a picture in a document at most. */
const mostDots = 1_600;

function makingOf({ given, composition, texts }: PaperTask): Making {
  return { given, composition, texts, words: paperWords(composition.language, given.decimals) };
}

/** The quotation in a format. */
export async function writePaper(
  task: PaperTask & { format: PaperFormat; files: GivenFiles },
): Promise<PaperWritten> {
  const making = makingOf(task);
  if (task.format === 'xml')
    return { is: 'done', bytes: writeUbl(task.given, task.composition, making.words) };
  const document = compose(making);
  try {
    return { is: 'done', bytes: await written(document, task.format, await fitted(task.files)) };
  } catch (thrown) {
    if (thrown instanceof AnnexUnread)
      return { is: 'refused', code: 'paper.annexUnread', name: thrown.message };
    throw thrown;
  }
}

function written(
  document: PaperDocument,
  format: Exclude<PaperFormat, 'xml'>,
  files: GivenFiles,
): Promise<Uint8Array> {
  switch (format) {
    case 'pdf':
      return writePdf(document, files);
    case 'docx':
      return writeDocx(document, files);
    case 'xlsx':
      return writeXlsx(document);
    case 'html':
      return writeHtml(document, files);
  }
}

/** Pictures no larger than paper shows, one after another, so that many of them are no load; JPEG where they were WebP. */
async function fitted(files: GivenFiles): Promise<GivenFiles> {
  const made: Record<string, GivenFiles[string]> = {};
  for (const [id, file] of Object.entries(files)) {
    if (!['png', 'jpeg', 'webp'].includes(file.kind)) made[id] = file;
    else {
      const bytes = await sharp(file.bytes, { limitInputPixels: 60_000_000 })
        .rotate()
        .resize(mostDots, mostDots, { fit: 'inside', withoutEnlargement: true })
        .flatten({ background: '#ffffff' })
        .jpeg({ quality: 82 })
        .toBuffer();
      made[id] = { kind: 'jpeg', bytes: new Uint8Array(bytes) };
    }
  }
  return made;
}

/** Letters that pages cannot show, and placeholders that cannot be read. */
export function paperWarnings(task: PaperTask): PaperWarning[] {
  const making = makingOf(task);
  const letters = unsettable(textsOf(compose(making)).join('\n'));
  const placeholders = task.composition.blocks.flatMap((block): PaperWarning[] => {
    const text = block.own ?? task.texts[block.text];
    return block.on && text
      ? unreadPlaceholders(richWords(text), 'document').map((source) => ({
          is: 'placeholder',
          block: block.key,
          source,
        }))
      : [];
  });
  return [...(letters.length === 0 ? [] : [{ is: 'letters', letters } as const]), ...placeholders];
}

/** All words of a document. */
function textsOf({ blocks, head, title }: PaperDocument): string[] {
  const nodeTexts = (node: Node): string[] => {
    switch (node.is) {
      case 'heading':
        return [node.text];
      case 'paragraph':
        return node.spans.map(({ text }) => text);
      case 'list':
        return node.items.flatMap((item) => item.map(({ text }) => text));
      case 'pairs':
        return node.rows.flat();
      case 'table':
        return node.rows.flatMap(({ cells }) =>
          cells.flatMap(({ lines, entries }) => [
            ...lines.flatMap(({ spans }) => spans.map(({ text }) => text)),
            ...(entries ?? []).flat(),
          ]),
        );
      case 'sums':
        return node.rows.flatMap(({ name, text }) => [name, text]);
      case 'drawing':
      case 'picture':
        return [node.caption];
      case 'timeline':
        return node.bars.flatMap(({ name, note }) => [name, note]);
      case 'fields':
        return [...node.names];
    }
  };
  return [
    title,
    head.name,
    ...head.lines,
    ...head.foot,
    ...blocks.flatMap(({ nodes }) => nodes.flatMap(nodeTexts)),
  ];
}
