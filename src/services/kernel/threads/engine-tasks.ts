/** What threads of engines do: everything that takes a compiled model. Plain data goes in and comes out. */
import { sceneOf, viewOf, writeSvg, type Scene } from '../../../core/drawing';
import {
  checkDecisions,
  differences,
  OutOfBudget,
  readNumber,
  type BestAnswer,
  type Context,
  type Decision,
  type DecisionProblem,
  type Difference,
  type Engine,
} from '../../../core/engine';
import { exact } from '../../../core/exact';
import {
  compileModel,
  open,
  outlineOf,
  Reading,
  type CompiledModel,
  type ModelDocument,
  type ModelProblem,
  type Outline,
  type Values,
} from '../../../core/model';
import {
  markedSpecial,
  numbersInside,
  partNumber,
  registeredDecisions,
  registrations,
  sequenceKey,
  type Registered,
  type Registration,
} from '../../../core/numbering';
import {
  costOf,
  priceBuild,
  type BuildPrice,
  type LineTerms,
  type Offer,
  type Tariff,
} from '../../../core/pricing';
import { leadDays, making, type Making } from '../../../core/production';
import {
  bestFor,
  effectsOf,
  pictureOf,
  specialFacts,
  specialTariff,
  sureOf,
  warningsOf,
  withoutMaking,
  type BenchPicture,
  type BestWish,
  type BuildContent,
  type MadeOf,
  type SpecialPart,
  type WarningView,
} from '../../../core/builds';
import { number, own } from '../../../i18n';
import {
  reachedIn,
  summarise,
  type DescribedBuild,
  type Reached,
  type SummaryRow,
} from '../../builds/build-summary';
import { writeDxf } from '../../builds/files/dxf';
import { writeGlb } from '../../builds/files/gltf';
import type { Surroundings } from './thread';
import { Recent } from './recent';

/** What a thread keeps between jobs, by key; what it does not hold it asks for. */
export interface Kept {
  model(version: string): CompiledModel;
  engine(version: string, context: Context, stopped: () => boolean): Engine;
  tariff(key: string): Tariff;
  facts(key: string): Facts;
}

/** What is known of items besides prices, by number; days are working days, masses kilograms. */
export type Facts = Readonly<Record<string, { leadDays: number; mass?: string }>>;

/** A build on a version of its model. */
interface Built {
  version: string;
  values: Values;
}

/** What follows from what was made of a build. */
export interface Outcome {
  values: Values;
  complete: boolean;
  todo: number;
  clashes: number;
  warnings: WarningView[];
  mass?: string;
}

/**
 * By model, what its registered numbers stand for, and the versions whose schemes are tried where its own
 * reads nothing.
 */
export interface ReadableModel {
  id: string;
  version: string;
  earlier: readonly string[];
  registered: { key: string; number: number }[];
}

/** What a model makes of a part number. */
export type NumberRead =
  | {
      is: 'build';
      model: string;
      version: string;
      decisions: Decision[];
      special: SpecialPart[];
      complete: boolean;
      /** Texts of which the number says only that they are there. */
      typed: string[];
      /** The earlier version by whose scheme it was read. */
      scheme?: string;
    }
  | { is: 'unreadable'; model: string; rest: string; allowed: string[] }
  | { is: 'forbidden'; model: string }
  | { is: 'unknown' };

/** What the Bench is told at once. */
export interface BenchParts {
  document: ModelDocument;
  outline: Outline;
  /** Items that it, or a build inside it, can be made of. */
  made: string[];
  picture: BenchPicture;
  scene: Scene | null;
  differences: Record<string, string>;
  /** Of the build; also for those who are not told how it is made. */
  leadDays: number | null;
}

/** What a picture of a build is asked with. */
export interface BenchQuestion extends Pick<BuildContent, 'decisions' | 'special'> {
  version: string;
  context: Context;
  tariff: string;
  /** For those who do not see costs. */
  withoutCosts: boolean;
  /** Told how it is made. */
  making: boolean;
  facts: string;
  terms: LineTerms;
  registered?: Registered;
  specialNumber?: number;
}

const openTariff = ({ costs: _costs, rates: _rates, ...rest }: Tariff): Tariff => rest;

/** Mass by the model's own figure, in kg whatever unit the model reckons in. */
function massIn(model: CompiledModel, values: Values): { mass?: string } {
  const { mass } = model.document.figures;
  const value = mass === undefined ? open : new Reading(model, values).named(mass);
  if (value === open || value === null) return {};
  const unit = model.document.calculations.find(({ id }) => id === mass)?.unit;
  return {
    mass: exact(String(value))
      .times(unit === 't' ? 1000 : 1)
      .toString(),
  };
}

/**
 * What options would do to the price of builds that were opened, remembered by all that it follows from;
 * worked out further with every opening.
 */
const opened = new Recent<Record<string, string | null>>(500);
/** So long may an opening work at it: what is not known by then the page works out. */
const mostMilliseconds = 600;

function remembered<T extends object>(known: Recent<T>, key: string, more: (so: T) => T): T {
  const found = more(known.get(key) ?? ({} as T));
  known.set(key, found, 1);
  return found;
}

/** What has to be registered of a build itself, and of those inside it. */
function toRegister(
  model: CompiledModel,
  values: Values,
): { own: Registration | undefined; inside: Registration[] } {
  const all = registrations(model, values);
  const needed = sequenceKey(model, values) !== null;
  return { own: needed ? all[0] : undefined, inside: needed ? all.slice(1) : all };
}

/** All that can be asked of a thread that keeps engines. */
export const engineTasks = (kept: Kept) => ({
  /** Why a document is no model; nothing where it is one. */
  compile: ({ document }: { document: ModelDocument }): ModelProblem[] => {
    const result = compileModel(document);
    return result.ok ? [] : result.problems;
  },

  /** What a model has no place for. */
  check: ({ version, decisions }: { version: string; decisions: readonly Decision[] }): DecisionProblem[] =>
    checkDecisions(kept.model(version), decisions),

  /** All that follows from what was made, and what has to be registered where codes cannot say it. */
  outcome: (
    {
      version,
      context,
      decisions,
      passed,
    }: { version: string; context: Context } & Pick<BuildContent, 'decisions' | 'passed'>,
    { stopped }: Surroundings,
  ): { outcome: Outcome; own: Registration | undefined; inside: Registration[] } => {
    const model = kept.model(version);
    const state = kept.engine(version, context, stopped).state({ decisions });
    // What was cut short is not proven, and is never kept as what follows from a build.
    if (stopped()) throw new OutOfBudget();
    return {
      outcome: {
        values: state.values,
        complete: state.complete,
        todo: state.sections.reduce((sum, section) => sum + section.todo, 0),
        clashes: state.clashes.length,
        warnings: warningsOf(state, passed),
        ...massIn(model, state.values),
      },
      ...(state.complete ? toRegister(model, state.values) : { own: undefined, inside: [] }),
    };
  },

  /** The part number with what is registered for it. */
  number: ({
    version,
    values,
    sequence,
    special,
  }: Built & { sequence?: number; special?: { number: number | undefined } }): string => {
    const text = partNumber(kept.model(version), values, sequence);
    return (special ? markedSpecial(text, special.number) : text).text;
  },

  registrations: ({ version, values }: Built): Registration[] => registrations(kept.model(version), values),

  /** What builds list at, and what they cost. */
  offers: ({
    tariff,
    builds,
  }: {
    tariff: string;
    builds: readonly (Built & { special: readonly SpecialPart[] })[];
  }): { offer: Offer; parts: BuildPrice }[] =>
    builds.map(({ version, values, special }) => {
      const model = kept.model(version);
      const own = specialTariff(kept.tariff(tariff), special);
      const parts = priceBuild(model, values, own);
      const cost = costOf(making(model, values), parts.parts, own);
      return {
        offer: { is: 'build', parts: parts.parts, unpriced: parts.unpriced, ...(cost ? { cost } : {}) },
        parts,
      };
    }),

  /** Builds in words. */
  words: (builds: readonly Built[]): { rows: SummaryRow[]; reached: Reached[] }[] =>
    builds.map(({ version, values }) => ({
      rows: summarise(kept.model(version), values),
      reached: reachedIn(kept.model(version), values),
    })),

  /** Builds as they stand on paper: what was chosen, and the part numbers of the builds inside. */
  described: (builds: readonly (Built & { registered?: Registered })[]): DescribedBuild[] =>
    builds.map(({ version, values, registered }) => {
      const model = kept.model(version);
      return {
        rows: summarise(model, values),
        inside: numbersInside(model, values, registered).map(({ place, name, number }) => ({
          place,
          name,
          number: number.text,
        })),
      };
    }),

  /** Working days until what builds are made of can be there; null where that is not known. */
  leads: ({
    facts,
    builds,
  }: {
    facts: string;
    builds: readonly (Built & { special: readonly SpecialPart[] })[];
  }): (number | null)[] =>
    builds.map(({ version, values, special }) =>
      leadDays(kept.model(version), values, specialFacts(kept.facts(facts), special)),
    ),

  /** How builds are made. */
  making: (builds: readonly Built[]): (Making & { words: SummaryRow[] })[] =>
    builds.map(({ version, values }) => ({
      ...making(kept.model(version), values),
      words: summarise(kept.model(version), values),
    })),

  /** All that the Bench opens with, and no more of the model than whoever sees it may know. */
  bench: (
    {
      version,
      context,
      tariff,
      withoutCosts,
      making: seesMaking,
      facts,
      terms,
      decisions,
      special,
      registered,
      specialNumber,
    }: BenchQuestion,
    { stopped }: Surroundings,
  ): BenchParts => {
    const model = kept.model(version);
    const means = {
      engine: kept.engine(version, context, stopped),
      tariff: withoutCosts ? openTariff(kept.tariff(tariff)) : kept.tariff(tariff),
      terms,
      facts: kept.facts(facts),
      registered,
      specialNumber,
    };
    const picture = pictureOf(means, { decisions, special });
    return {
      document: documentFor(model.document, seesMaking),
      outline: outlineOf(model),
      made: seesMaking ? itemsOf(model.document) : [],
      picture: seesMaking ? picture : withoutMaking(picture),
      leadDays: picture.leadDays,
      scene: model.document.drawing ? sceneOf(model, picture.state.values) : null,
      differences: sureOf(
        remembered(opened, JSON.stringify([version, context, tariff, decisions, special]), (known) => {
          const end = performance.now() + mostMilliseconds;
          return effectsOf(means, { decisions, special }, picture, known, () => performance.now() < end);
        }),
      ),
    };
  },

  /** A build as the table of differences shows it. */
  picture: (
    {
      version,
      context,
      tariff,
      withoutCosts,
      facts,
      terms,
      decisions,
      special,
    }: Omit<BenchQuestion, 'making'>,
    { stopped }: Surroundings,
  ): BenchPicture =>
    pictureOf(
      {
        engine: kept.engine(version, context, stopped),
        tariff: withoutCosts ? openTariff(kept.tariff(tariff)) : kept.tariff(tariff),
        terms,
        facts: kept.facts(facts),
      },
      { decisions, special },
    ),

  /** What would become of a build on another version of its model. */
  move: (
    {
      from,
      to,
      ...question
    }: Omit<BenchQuestion, 'version' | 'context' | 'making'> & {
      from: { version: string; context: Context };
      to: { version: string; context: Context };
    },
    { stopped }: Surroundings,
  ): { before: BenchPicture; after: BenchPicture; changes: Difference[]; dropped: string[] } => {
    const tariff = question.withoutCosts
      ? openTariff(kept.tariff(question.tariff))
      : kept.tariff(question.tariff);
    const dropped = checkDecisions(kept.model(to.version), question.decisions).map((problem) => problem.on);
    const see = (
      { version, context }: { version: string; context: Context },
      decisions: readonly Decision[],
    ) =>
      pictureOf(
        {
          engine: kept.engine(version, context, stopped),
          tariff,
          terms: question.terms,
          facts: kept.facts(question.facts),
        },
        { decisions, special: question.special },
      );
    const [before, after] = [
      see(from, question.decisions),
      see(
        to,
        question.decisions.filter((decision) => !dropped.includes(decision.on)),
      ),
    ];
    return { before, after, changes: differences(before.state, after.state), dropped };
  },

  /** What part numbers stand for, each of whatever model it is. */
  read: (
    {
      numbers,
      models,
      context,
    }: {
      numbers: readonly {
        text: string;
        special?: { number: number; parts: Readonly<Record<string, SpecialPart[]>> };
      }[];
      models: readonly ReadableModel[];
      context: Context;
    },
    { stopped, progress }: Surroundings,
  ): NumberRead[] =>
    numbers.map(({ text, special }, index) => {
      if (index % 100 === 99) progress(index + 1);
      let nearest: { read: number; found: NumberRead } = { read: -1, found: { is: 'unknown' } };
      // What is printed by today's schemes comes before what was printed by those of before.
      const tries = [
        ...models.map((model) => ({ ...model, scheme: model.version })),
        ...models.flatMap((model) => model.earlier.map((scheme) => ({ ...model, scheme }))),
      ];
      for (const { id, version, scheme, registered } of tries) {
        if (stopped()) throw new OutOfBudget();
        const answer = readNumber(kept.engine(scheme, context, stopped), text, (sequence) =>
          registeredDecisions(
            registered.find((row) => row.number === sequence && !row.key.startsWith('special='))?.key ?? '',
          ),
        );
        const parts = special?.parts[id] ?? [];
        if (answer.is === 'build' && (!special || parts.length > 0)) {
          const lost =
            scheme === version
              ? []
              : checkDecisions(kept.model(version), answer.decisions).map(({ on }) => on);
          const decisions = answer.decisions.filter(({ on }) => !lost.includes(on));
          return {
            is: 'build',
            model: id,
            version,
            decisions,
            special: parts,
            typed: answer.typed,
            complete:
              kept.engine(version, context, stopped).state({ decisions }).complete &&
              answer.typed.length === 0,
            ...(scheme === version ? {} : { scheme }),
          };
        }
        const read = scheme !== version ? -1 : answer.is === 'unreadable' ? answer.at : text.length;
        if (read > Math.max(nearest.read, 1))
          nearest = {
            read,
            found:
              answer.is === 'unreadable'
                ? {
                    is: 'unreadable',
                    model: id,
                    rest: text.slice(answer.at),
                    allowed: answer.allowed.slice(0, 12),
                  }
                : answer.is === 'forbidden'
                  ? { is: 'forbidden', model: id }
                  : { is: 'unknown' },
          };
      }
      return nearest.found;
    }),

  /** The drawing of a build as a file, in one of its views or in space. */
  drawing: async ({
    version,
    values,
    format,
    view: viewId,
    title,
    language,
  }: Built & { format: 'svg' | 'dxf' | 'glb'; view: string; title: string; language: string }): Promise<{
    view?: string;
    type: string;
    bytes: Uint8Array;
  } | null> => {
    const model = kept.model(version);
    const { drawing } = model.document;
    const view =
      drawing?.views.find((each) => each.id === viewId) ?? (viewId === '' ? drawing?.views[0] : undefined);
    if (!drawing || (format !== 'glb' && !view)) return null;
    const scene = sceneOf(model, values);
    if (!view || format === 'glb')
      return {
        ...(view ? { view: view.id } : {}),
        type: 'model/gltf-binary',
        bytes: await writeGlb(scene, drawing.layers, title),
      };
    const seen = viewOf(scene, view.id, view.from);
    const write = (text: string) => new TextEncoder().encode(text);
    if (format === 'dxf')
      return { view: view.id, type: 'image/vnd.dxf', bytes: write(writeDxf(seen, drawing.layers, language)) };
    return {
      view: view.id,
      type: 'image/svg+xml',
      bytes: write(
        writeSvg(seen, {
          title: `${title}, ${own(view.name, language)}`,
          language,
          write: (length) => number(String(Math.round(length)), language, 0),
        }),
      ),
    };
  },

  /** The best build by a wish, or the best so far when told to stop. */
  best: (
    {
      version,
      context,
      tariff,
      facts,
      made,
      wish,
    }: { version: string; context: Context; tariff: string; facts: string; made: MadeOf; wish: BestWish },
    { stopped, progress }: Surroundings,
  ): BestAnswer =>
    bestFor(
      {
        engine: kept.engine(version, context, stopped),
        tariff: specialTariff(kept.tariff(tariff), made.special),
        items: specialFacts(kept.facts(facts), made.special),
      },
      made,
      wish,
      { stop: stopped, progress },
    ),
});

/** Their types. */
export type EngineTasks = ReturnType<typeof engineTasks>;

function itemsOf({ materials, library }: ModelDocument): string[] {
  return [
    ...new Set(
      [...materials, ...(library?.models ?? []).flatMap((inner) => inner.materials)].map((row) => row.item),
    ),
  ];
}

/**
 * A document as the page computes with it: without its tests, and without how things are made for those who
 * are not to know.
 */
function documentFor({ tests: _tests, library, ...document }: ModelDocument, making: boolean): ModelDocument {
  const bare = making ? {} : { materials: [], operations: [] };
  const { extraDays: _extraDays, ...told } = document;
  return {
    ...(making ? document : told),
    ...bare,
    ...(library
      ? {
          library: {
            ...library,
            ...(library.models ? { models: library.models.map((inner) => documentFor(inner, making)) } : {}),
          },
        }
      : {}),
  };
}
