/** Builds as they stand on paper. */
import { sceneOf, spaceViewOf, viewOf } from '../../../../core/drawing';
import { shownUnit, shownValue, type Units } from '../../../../core/exact';
import {
  open,
  outlineOf,
  Reading,
  type CompiledModel,
  type Texts,
  type Values,
} from '../../../../core/model';
import { numbersInside, type Registered } from '../../../../core/numbering';
import type { PaperBuild, DrawnView } from '../../../../core/paper';
import { number, unitIn } from '../../../../i18n';
import { sectionKey, summarise } from '../../../builds/build-summary';
import type { Built, Kept } from './kept';

/** What a build is told on paper from. */
export interface OnPaper extends Built {
  registered?: Registered;
  units: Units;
  /** Rows that somebody decided. */
  decided: readonly string[];
  /** With its drawings. */
  drawn: boolean;
}

/** Tasks that tell of builds on paper. */
export const paperBuildTasks = (kept: Kept) => ({
  onPaper: (builds: readonly OnPaper[]): PaperBuild[] =>
    builds.map((build) => buildOnPaper(kept.model(build.version), build)),
});

function buildOnPaper(
  model: CompiledModel,
  { values, registered, units, decided, drawn }: OnPaper,
): PaperBuild {
  const own = new Set(decided);
  return {
    rows: summarise(model, values, units).map((row) => ({ ...row, decided: own.has(row.row) })),
    sections: sectionNames(model),
    figures: figuresOf(model, values, units),
    inside: numbersInside(model, values, registered).map(({ place, name, number: { text } }) => ({
      place,
      name,
      number: text,
    })),
    views: drawn ? viewsOf(model, values) : [],
  };
}

/** Names of the sections; of a build inside with what it is called there. */
function sectionNames(model: CompiledModel): Record<string, Texts> {
  const outline = outlineOf(model);
  return Object.fromEntries(
    outline.sections.map((section) => {
      const place = section.place === undefined ? undefined : outline.places[section.place];
      const name: Texts = place
        ? Object.fromEntries(
            Object.entries(section.name).map(([language, text]) => [
              language,
              `${place[language] ?? ''}: ${text}`,
            ]),
          )
        : section.name;
      return [sectionKey(section), name];
    }),
  );
}

/** The figures that its model shows beside a build, as they are read. */
function figuresOf(model: CompiledModel, values: Values, units: Units): { name: Texts; value: Texts }[] {
  const reading = new Reading(model, values);
  const { mass, installation, more } = model.document.figures;
  return [mass, installation, ...more].flatMap((id) => {
    const calculation = model.document.calculations.find((each) => each.id === id);
    const value = id === undefined ? null : reading.named(id);
    if (!calculation || calculation.type !== 'number' || value === open || value === null) return [];
    const { unit = '', decimals = 2 } = calculation;
    const text = (language: string): string =>
      [
        number(shownValue(String(value), unit, units), language, decimals),
        ...(unit === '' ? [] : [unitIn(shownUnit(unit, units), language)]),
      ].join(' ');
    return [
      {
        name: calculation.name,
        value: Object.fromEntries(model.document.languages.map((language) => [language, text(language)])),
      },
    ];
  });
}

/** Each view of its drawing, and one in space. */
function viewsOf(model: CompiledModel, values: Values): DrawnView[] {
  const { drawing } = model.document;
  if (!drawing) return [];
  const scene = sceneOf(model, values);
  const flat = drawing.views.map(({ id, name, from }): DrawnView => ({
    id,
    name,
    view: viewOf(scene, id, from),
    space: false,
  }));
  const space = spaceViewOf(scene);
  return [
    ...flat.filter(({ view }) => view.figures.length > 0),
    ...(space.figures.length === 0 ? [] : [{ id: 'space', name: {}, view: space, space: true }]),
  ];
}
