/** Text in pages: each run in a face that has its letters. */
import type { Content } from 'pdfmake/interfaces';
import type { Look, Span, TextLine } from '../../../../core/paper';
import { quiet } from '../paper-colours';
import { runsIn } from '../fonts';

/** A run with more to it than its words. */
interface SetPiece {
  text: string;
  font?: string;
  bold?: true;
  italics?: true;
  link?: string;
  decoration?: 'underline';
}
/** A run as the setter takes it. */
type Piece = string | SetPiece;

const setPiece = (piece: SetPiece): SetPiece => piece;

/** Words in the faces that have their letters. */
export function pieces(spans: readonly Span[], kind: 'text' | 'code' = 'text'): Piece | Piece[] {
  const made = spans.flatMap(({ text, bold, italic, link }) =>
    runsIn(text, kind).map((run): Piece =>
      run.font === undefined && !bold && !italic && !link
        ? run.text
        : setPiece({
            text: run.text,
            ...(run.font === undefined ? {} : { font: run.font }),
            ...(bold ? { bold } : {}),
            ...(italic ? { italics: true as const } : {}),
            ...(link ? { link, decoration: 'underline' as const } : {}),
          }),
    ),
  );
  const [only] = made;
  return made.length === 1 && only !== undefined ? only : made;
}

/** How each look is set. */
export const looks: Readonly<Record<Look, object>> = {
  strong: { bold: true },
  quiet: { fontSize: 8.5, color: quiet },
  code: { font: 'Mono', fontSize: 8.5 },
  head: { fontSize: 8, color: quiet },
};

/** A line of text. */
export function textOf({ spans, look }: TextLine, more: object = {}): Content {
  const text = pieces(spans, look === 'code' ? 'code' : 'text');
  const set = { ...(look ? looks[look] : {}), ...more };
  return typeof text === 'string' && Object.keys(set).length === 0 ? text : { text, ...set };
}

/** Plain words, with how they are set. */
export const words = (text: string, more: object = {}): Content => textOf({ spans: [{ text }] }, more);
