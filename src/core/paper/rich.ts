/**
 * Rich text as it is kept: paragraphs and lists of runs that may be bold, italic or a link, and nothing else. What
 * is pasted from elsewhere is brought to this, and what it does not have is left out.
 */
import type { Node, Span } from './types';

/** A part of a rich text. */
export type RichPart =
  | { is: 'paragraph'; spans: readonly Span[] }
  | { is: 'list'; ordered: boolean; items: readonly (readonly Span[])[] };

/** A rich text. */
export type RichText = readonly RichPart[];

/** Characters of one text at most, and parts of it. */
export const mostRichLetters = 20_000;
export const mostRichParts = 1_000;

/** Addresses that a link may have. */
const allowed = /^(?:https:\/\/|mailto:)[^\s<>"]{1,500}$/i;

/** Whether a link may lead there. */
export const mayLead = (address: string): boolean => allowed.test(address);

/** A text with nothing in it but its words, a paragraph for each line. */
export const plainRich = (text: string): RichText =>
  text
    .split(/\n+/)
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .map((line) => ({ is: 'paragraph', spans: [{ text: line }] }));

/** The words of a rich text. */
export const richWords = (rich: RichText): string =>
  rich
    .flatMap((part) => (part.is === 'paragraph' ? [part.spans] : part.items))
    .map((spans) => spans.map(({ text }) => text).join(''))
    .join('\n');

/** How long it is, in characters. */
export const richLength = (rich: RichText): number => richWords(rich).length;

/** The same text with each run of words changed. */
export function richMap(rich: RichText, change: (spans: readonly Span[]) => readonly Span[]): RichText {
  return rich.map((part): RichPart =>
    part.is === 'paragraph'
      ? { is: 'paragraph', spans: change(part.spans) }
      : { is: 'list', ordered: part.ordered, items: part.items.map(change) },
  );
}

/** As parts of a document. */
export const nodesOf = (rich: RichText): Node[] =>
  rich.map((part): Node => (part.is === 'paragraph' ? { is: 'paragraph', spans: part.spans } : part));

/** What somebody sent as a rich text, with all else left out; null where it is none. */
export function readRich(given: unknown): RichText | null {
  if (!Array.isArray(given) || given.length > mostRichParts) return null;
  const parts: RichPart[] = [];
  for (const each of given as unknown[]) {
    const part = readPart(each);
    if (part === null) return null;
    parts.push(part);
  }
  return richLength(parts) > mostRichLetters ? null : parts;
}

function readPart(given: unknown): RichPart | null {
  if (given === null || typeof given !== 'object') return null;
  const { is, spans, ordered, items } = given as Record<string, unknown>;
  if (is === 'paragraph') {
    const read = readSpans(spans);
    return read && { is, spans: read };
  }
  if (is !== 'list' || !Array.isArray(items) || items.length > mostRichParts) return null;
  const read = (items as unknown[]).map(readSpans);
  return read.some((item) => item === null)
    ? null
    : { is, ordered: ordered === true, items: read as (readonly Span[])[] };
}

function readSpans(given: unknown): readonly Span[] | null {
  if (!Array.isArray(given) || given.length > mostRichParts) return null;
  const read = (given as unknown[]).map((each): Span | null => {
    if (each === null || typeof each !== 'object') return null;
    const { text, bold, italic, link } = each as Record<string, unknown>;
    if (typeof text !== 'string') return null;
    return {
      // Control characters have no place on paper.
      text: text.replace(/[\u0000-\u0008\u000b-\u001f\u007f]/g, ''),
      ...(bold === true ? { bold } : {}),
      ...(italic === true ? { italic } : {}),
      ...(typeof link === 'string' && mayLead(link) ? { link } : {}),
    };
  });
  return read.some((span) => span === null) ? null : (read as Span[]);
}
