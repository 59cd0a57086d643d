import { boxOf, dimensionPath, dimensionText, pathOf, withRoom, type View } from '../../../core/drawing';
import { classes } from '../../../ui';
import css from './drawing.module.css';

interface Props {
  view: View;
  label: string;
  language: string;
  /** How a length in millimetres is written. */
  write: (millimetres: number) => string;
  /** What belongs to this row stands out; the rest steps back. */
  row?: string;
  onGo?: (row: string) => void;
  /** The shape or dimension of this id stands out, however often it is drawn. */
  marked?: string;
  onMark?: (id: string) => void;
  /** Pixels that it has, so that letters come out as large as those around it. */
  room: { width: number; height: number };
}

const letterPixels = 10;

/** The part of the document that is drawn: without the way to its build, and which of its repetitions it is. */
const partOf = (id: string): string => id.split('.')[0] ?? id;

/** A view of the build, to scale, with dimension lines. What shows a row is a door to it. */
export function Drawing({ view: drawn, label, language, write, row, onGo, marked, onMark, room }: Props) {
  const { left, right, bottom, top } = drawn.frame;
  const scale = Math.max((right - left) / (room.width - 30), (top - bottom) / (room.height - 30));
  const letter = scale * letterPixels;
  const view = withRoom(drawn, letter);
  const box = boxOf(view, letter);
  const of = (each: { of?: string; id: string }) => ({
    'data-of': each.of,
    'data-part': onMark ? partOf(each.id) : undefined,
    onClick: onMark
      ? () => onMark(partOf(each.id))
      : each.of && onGo
        ? () => onGo(each.of as string)
        : undefined,
  });
  const meant = (each: { of?: string; id: string }) =>
    (row !== undefined && each.of === row) || (marked !== undefined && partOf(each.id) === marked);
  const isDoor = (each: { of?: string }) =>
    onMark !== undefined || (each.of !== undefined && onGo !== undefined);
  const points =
    row !== undefined ||
    [...view.figures, ...view.dimensions].some((each) => marked !== undefined && partOf(each.id) === marked);
  return (
    <svg
      className={classes(css.drawing, points && css.pointing)}
      viewBox={`${String(box.x)} ${String(box.y)} ${String(box.width)} ${String(box.height)}`}
      role="img"
      aria-label={label}
      preserveAspectRatio="xMidYMid meet"
    >
      {view.figures.map((figure) => (
        <path
          key={figure.id}
          className={classes(
            css.figure,
            css[figure.looks === 'paper' ? 'sheet' : figure.looks],
            meant(figure) && css.meant,
            isDoor(figure) && css.door,
          )}
          d={pathOf(figure)}
          {...of(figure)}
        />
      ))}
      {view.words.map((words) => (
        <text key={words.id} className={css.words} x={words.at[0]} y={-words.at[1]} fontSize={words.height}>
          {words.text[language] ?? Object.values(words.text)[0]}
        </text>
      ))}
      {view.dimensions.map((dimension) => {
        const { x, y, turn } = dimensionText(dimension, letter);
        return (
          <g
            key={dimension.id}
            className={classes(css.dimension, meant(dimension) && css.meant, isDoor(dimension) && css.door)}
            {...of(dimension)}
          >
            <path d={dimensionPath(dimension, letter)} />
            <text
              x={x}
              y={y}
              fontSize={letter}
              transform={turn === 0 ? undefined : `rotate(${String(turn)} ${String(x)} ${String(y)})`}
            >
              {write(dimension.length)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
