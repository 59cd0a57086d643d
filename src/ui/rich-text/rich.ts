/** Rich text between the editor's own tree and what is kept: paragraphs and lists of runs, bold, italic, a link. */
import type { JSONContent } from '@tiptap/react';

/** A run of text. */
export interface RichSpan {
  text: string;
  bold?: true;
  italic?: true;
  link?: string;
}
/** A part of a rich text. */
export type RichPart =
  | { is: 'paragraph'; spans: readonly RichSpan[] }
  | { is: 'list'; ordered: boolean; items: readonly (readonly RichSpan[])[] };

/** What the editor shows. */
export const toEditor = (parts: readonly RichPart[]): JSONContent => ({
  type: 'doc',
  content:
    parts.length === 0
      ? [{ type: 'paragraph' }]
      : parts.map((part) =>
          part.is === 'paragraph'
            ? paragraph(part.spans)
            : {
                type: part.ordered ? 'orderedList' : 'bulletList',
                content: part.items.map((item) => ({ type: 'listItem', content: [paragraph(item)] })),
              },
        ),
});

const paragraph = (spans: readonly RichSpan[]): JSONContent => ({
  type: 'paragraph',
  content: spans
    .filter(({ text }) => text !== '')
    .map(({ text, bold, italic, link }) => ({
      type: 'text',
      text,
      marks: [
        ...(bold ? [{ type: 'bold' }] : []),
        ...(italic ? [{ type: 'italic' }] : []),
        ...(link ? [{ type: 'link', attrs: { href: link } }] : []),
      ],
    })),
});

/** What is kept of what the editor has; paragraphs without words between others are left out. */
export function fromEditor(document: JSONContent): RichPart[] {
  return (document.content ?? []).flatMap((node): RichPart[] => {
    if (node.type === 'bulletList' || node.type === 'orderedList') {
      const items = itemsOf(node);
      return items.length === 0 ? [] : [{ is: 'list', ordered: node.type === 'orderedList', items }];
    }
    const spans = spansOf(node);
    return spans.length === 0 ? [] : [{ is: 'paragraph', spans }];
  });
}

/** Each paragraph of an item is one; lists within lists are brought to one level. */
const itemsOf = (list: JSONContent): RichSpan[][] =>
  (list.content ?? []).flatMap((item) =>
    (item.content ?? []).flatMap((node) =>
      node.type === 'bulletList' || node.type === 'orderedList'
        ? itemsOf(node)
        : [spansOf(node)].filter((spans) => spans.length > 0),
    ),
  );

const spansOf = (node: JSONContent): RichSpan[] =>
  (node.content ?? []).flatMap((each): RichSpan[] => {
    if (each.type !== 'text' || !each.text) return [];
    const marks = each.marks ?? [];
    const has = (type: string): boolean => marks.some((mark) => mark.type === type);
    const href: unknown = marks.find((mark) => mark.type === 'link')?.attrs?.href;
    return [
      {
        text: each.text,
        ...(has('bold') ? { bold: true as const } : {}),
        ...(has('italic') ? { italic: true as const } : {}),
        ...(typeof href === 'string' && href !== '' ? { link: href } : {}),
      },
    ];
  });
