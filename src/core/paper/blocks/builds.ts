/** Builds on paper: their drawings, and all that was chosen with the figures that follow. */
import type { PaperBuild, PaperLine, DrawnView } from '../given';
import type { Node } from '../types';
import type { BlockMaker, Making } from './making';

/** Lines with a build, those that count and their alternatives. */
const built = ({ given }: Making): (PaperLine & { build: PaperBuild })[] =>
  given.lines.flatMap((line) => (line.build ? [{ ...line, build: line.build }] : []));

/** What a build is called where it is shown by itself. */
const titleOf = ({ position, name, partNumber }: PaperLine, { words, composition }: Making): string =>
  [
    `${words.say('line', { line: position })}: ${words.own(name)}`,
    ...(composition.lines.numbers ? [partNumber] : []),
  ].join(' · ');

/** Views of each build, with their dimensions, and in space where that is wanted. */
export const drawings: BlockMaker = (making) => {
  const { views, space } = making.composition.drawings;
  return built(making).flatMap((line): Node[] => {
    const shown = line.build.views.filter((view) =>
      view.space ? space : views.length === 0 || views.includes(view.id),
    );
    return shown.length === 0
      ? []
      : [
          { is: 'heading', level: 3, text: titleOf(line, making) },
          ...shown.map((view) => drawingNode(view, making.words)),
        ];
  });
};

/** A view, with what it is called beneath. */
export const drawingNode = ({ view, name, space }: DrawnView, words: Making['words']): Node => ({
  is: 'drawing',
  view,
  caption: space ? words.say('inSpace') : words.own(name),
});

/** Each build by the sections of its sheet, and its figures. */
export const specification: BlockMaker = (making) =>
  built(making).flatMap((line): Node[] => [
    { is: 'heading', level: 2, text: titleOf(line, making) },
    ...specified(line.build, making.words),
  ]);

/** A build by the sections of its sheet, and its figures. */
export function specified(build: PaperBuild, words: Making['words']): Node[] {
  const sections = [...new Set(build.rows.map(({ section }) => section))];
  return [
    ...sections.flatMap((section): Node[] => [
      ...(build.sections[section]
        ? [{ is: 'heading', level: 3, text: words.own(build.sections[section]) } as const]
        : []),
      {
        is: 'pairs',
        rows: build.rows
          .filter((row) => row.section === section)
          .map(({ name, value }) => [words.own(name), words.own(value)] as const),
      },
    ]),
    ...(build.inside.length === 0
      ? []
      : ([
          { is: 'heading', level: 3, text: words.say('included') },
          {
            is: 'pairs',
            rows: build.inside.map(({ name, number }) => [words.own(name), number] as const),
          },
        ] as const)),
    ...(build.figures.length === 0
      ? []
      : ([
          { is: 'heading', level: 3, text: words.say('figures') },
          {
            is: 'pairs',
            rows: build.figures.map(({ name, value }) => [words.own(name), words.own(value)] as const),
          },
        ] as const)),
  ];
}
