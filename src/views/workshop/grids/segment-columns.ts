/** The segments of a part number as rows of a grid. */
import type { Segment } from '../../../core/model';
import type { GridColumn } from '../../../ui/grid';
import type { InWords } from '../../speech';

type Kind = Segment['kind'];
/** Kinds of segments, in the order in which they are offered. */
export const segmentKinds: readonly Kind[] = [
  'code',
  'text',
  'number',
  'letters',
  'marks',
  'sequence',
  'check',
];

/** Columns in their order: what it is, what it is of, text before it, factor, width, and when it is there. */
export function segmentColumns({ t }: InWords): GridColumn[] {
  const kinds = segmentKinds.map((kept) => ({ kept, text: t(`draft.segment.kind.${kept}`) }));
  const any = (typed: string) => ({ kept: typed });
  return [
    {
      id: 'kind',
      title: t('draft.rows.what'),
      width: 150,
      choices: kinds.map(({ text }) => text),
      shown: (kept) => kinds.find((each) => each.kept === kept)?.text ?? kept,
      read: (typed) => {
        const found = kinds.find(({ text }) => text.toLowerCase() === typed.toLowerCase());
        return found ? { kept: found.kept } : { why: t('draft.rows.badKind', { value: typed }) };
      },
    },
    { id: 'of', title: t('draft.segment.of'), width: 260, kind: 'code', read: any },
    { id: 'before', title: t('draft.segment.before'), width: 80, kind: 'code', read: any },
    { id: 'times', title: t('draft.segment.times'), width: 80, kind: 'figure', read: any },
    {
      id: 'width',
      title: t('draft.segment.width'),
      width: 80,
      kind: 'figure',
      read: (typed) =>
        /^[1-9]\d?$/.test(typed) ? { kept: typed } : { why: t('draft.rows.badNumber', { value: typed }) },
    },
    { id: 'when', title: t('draft.rows.when'), width: 260, kind: 'code', read: any },
  ];
}

/** The cells of a segment. */
export function cellsOfSegment(segment: Segment): string[] {
  const { kind, before = '', when = '' } = segment;
  const times = kind === 'number' ? (segment.times ?? '') : '';
  const width = kind === 'number' || kind === 'sequence' ? String(segment.width) : '';
  return [kind, ofSegment(segment), before, times, width, when];
}

function ofSegment(segment: Segment): string {
  switch (segment.kind) {
    case 'text':
      return segment.text;
    case 'code':
    case 'number':
    case 'letters':
      return segment.of;
    case 'marks':
      return segment.of.map(({ text, when }) => `${text} = ${when}`).join('; ');
    case 'sequence':
      return segment.of.join(', ');
    case 'check':
      return '';
  }
}

/** The segment that cells say; of a row that says too little the beginning of one, which does not compile yet. */
export function segmentOf([kind = '', of = '', before, times, width, when]: readonly string[]): Segment {
  const shared = { ...(before ? { before } : {}), ...(when ? { when } : {}) };
  const wide = width ? Number(width) : 1;
  switch (kind as Kind) {
    case 'number':
      return { ...shared, kind: 'number', of, ...(times ? { times } : {}), width: wide };
    case 'letters':
      return { ...shared, kind: 'letters', of };
    case 'marks':
      return { ...shared, kind: 'marks', of: marksIn(of) };
    case 'sequence':
      return { ...shared, kind: 'sequence', of: of.split(/[\s,;]+/).filter(Boolean), width: wide };
    case 'check':
      return { ...shared, kind: 'check' };
    case 'code':
      return { ...shared, kind: 'code', of };
    default:
      return { ...shared, kind: 'text', text: of };
  }
}

/** Letters with their conditions, one behind a semicolon that is in no text of a formula. */
function marksIn(typed: string): { text: string; when: string }[] {
  const parts: string[] = [];
  let from = 0;
  let quoted = false;
  for (let at = 0; at <= typed.length; at++) {
    if (typed[at] === '"') quoted = !quoted;
    if (at === typed.length || (typed[at] === ';' && !quoted)) {
      parts.push(typed.slice(from, at).trim());
      from = at + 1;
    }
  }
  return parts.filter(Boolean).map((part) => {
    const sign = part.indexOf('=');
    return sign < 0
      ? { text: part, when: '' }
      : { text: part.slice(0, sign).trim(), when: part.slice(sign + 1).trim() };
  });
}
