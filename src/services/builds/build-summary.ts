/** A build in words, in every language of its model. */
import { shownUnit, shownValue, type Units } from '../../core/exact';
import {
  buildsInside,
  outlineOf,
  reachingIn,
  Reading,
  type CompiledModel,
  type Outline,
  type PlainValue,
  type Texts,
  type Values,
} from '../../core/model';
import { date, number, unitIn } from '../../i18n';

/** A row of a build in words. */
export interface SummaryRow {
  row: string;
  /** As `sectionKey` names it. */
  section: string;
  name: Texts;
  value: Texts;
}

const yes: Texts = { en: 'yes', de: 'ja' };
const no: Texts = { en: 'no', de: 'nein' };

/**
 * What was chosen, in the order of the sheet. Left out: rows without a value, yes/no rows with no, and the
 * option "none".
 */
export function summarise(model: CompiledModel, values: Values, units: Units = 'metric'): SummaryRow[] {
  const outline = outlineOf(model);
  return outline.sections.flatMap((section) =>
    section.rows.flatMap((id): SummaryRow[] => {
      const value = values[id];
      const found =
        value === undefined || value === null
          ? undefined
          : valueText(outline, model.document.languages, id, value, units);
      if (!found) return [];
      const place = section.place === undefined ? undefined : outline.places[section.place];
      const name = place
        ? Object.fromEntries(
            Object.entries(found.name).map(([language, text]) => [
              language,
              `${place[language] ?? ''}, ${text}`,
            ]),
          )
        : found.name;
      return [{ row: id, section: sectionKey(section), ...found, name }];
    }),
  );
}

/** Names a section among those of all builds inside, which may have the same ids. */
export const sectionKey = ({ id, place }: { id: string; place?: string }): string =>
  place === undefined ? id : `${place}/${id}`;

/** What rows further out say to a build inside, which stands on each of its parts. */
export interface Reached {
  /** The way to the build, as priced parts have it. */
  place: string;
  name: Texts;
  value: Texts;
}

/** Values that reach down, at each build inside that takes them, the builds inside that among them. */
export function reachedIn(model: CompiledModel, values: Values): Reached[] {
  return buildsInside(new Reading(model, values)).flatMap(({ build, values: own }): Reached[] => {
    const outline = outlineOf(build.model);
    const there = new Set(placesInside(build.model, own));
    const here = reachingIn(build).flatMap((row): Reached[] => {
      const value = own[row];
      const within = row.slice(0, Math.max(row.lastIndexOf('/'), 0));
      const found =
        value === undefined || value === null || (within !== '' && !there.has(within))
          ? undefined
          : valueText(outline, build.model.document.languages, row, value);
      return found ? [{ place: within === '' ? build.place : `${build.place}/${within}`, ...found }] : [];
    });
    return [
      ...here,
      ...reachedIn(build.model, own).map((each) => ({ ...each, place: `${build.place}/${each.place}` })),
    ];
  });
}

/** The ways to all builds that are there. */
function placesInside(model: CompiledModel, values: Values): string[] {
  return buildsInside(new Reading(model, values)).flatMap(({ build, values: own }) => [
    build.place,
    ...placesInside(build.model, own).map((place) => `${build.place}/${place}`),
  ]);
}

function valueText(
  { features, parameters }: Outline,
  languages: readonly string[],
  id: string,
  value: Exclude<PlainValue, null>,
  units: Units = 'metric',
): { name: Texts; value: Texts } | undefined {
  const each = (text: (language: string) => string): Texts =>
    Object.fromEntries(languages.map((language) => [language, text(language)]));
  const feature = features.find((one) => one.id === id);
  if (feature) {
    const taken = feature.options.filter((option) =>
      Array.isArray(value) ? value.includes(option.id) : value === option.id,
    );
    if (taken.length === 0 || (taken.length === 1 && taken[0]?.id === 'none')) return undefined;
    return {
      name: feature.name,
      value: each((language) => taken.map((option) => option.name[language] ?? option.id).join(', ')),
    };
  }
  const parameter = parameters.find((one) => one.id === id);
  if (!parameter || value === false) return undefined;
  const { name } = parameter;
  switch (parameter.type) {
    case 'yesno':
      return {
        name,
        value: each((language) => (value === true ? (yes[language] ?? 'yes') : (no[language] ?? 'no'))),
      };
    case 'date':
      // Days have American forms too; all else reads as English.
      return {
        name,
        value: {
          ...each((language) => date(String(value), language)),
          'en-US': date(String(value), 'en-US'),
        },
      };
    case 'number': {
      const { unit } = parameter;
      return {
        name,
        value: each((language) =>
          [
            number(shownValue(String(value), unit, units), language, 12),
            ...(unit === '' ? [] : [unitIn(shownUnit(unit, units), language)]),
          ].join(' '),
        ),
      };
    }
    default:
      return { name, value: each(() => String(value)) };
  }
}
