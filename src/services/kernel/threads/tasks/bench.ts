/** What the Bench opens with, and what a build would be elsewhere. */
import { sceneOf, type Scene } from '../../../../core/drawing';
import {
  checkDecisions,
  differences,
  type BestAnswer,
  type Decision,
  type Difference,
} from '../../../../core/engine';
import { outlineOf, type ModelDocument, type Outline } from '../../../../core/model';
import type { Registered } from '../../../../core/numbering';
import {
  factsWithin,
  itemsNeeded,
  tariffWithin,
  type LineTerms,
  type Tariff,
} from '../../../../core/pricing';
import {
  bestFor,
  effectsOf,
  pictureOf,
  specialFacts,
  specialTariff,
  sureOf,
  withoutMaking,
  type BenchMeans,
  type BenchPicture,
  type BestWish,
  type BuildContent,
  type MadeOf,
} from '../../../../core/builds';
import { Recent } from '../recent';
import type { Surroundings } from '../thread';
import { engineFor, openTariff, type Facts, type Given, type Kept } from './kept';

/** What the Bench is told at once. */
export interface BenchParts {
  document: ModelDocument;
  outline: Outline;
  /** Items that it, or a build inside it, can be made of. */
  made: string[];
  /** Of the list what it can need, and what is known of those items. */
  tariff: Tariff;
  facts: Facts;
  picture: BenchPicture;
  scene: Scene | null;
  differences: Record<string, string>;
  /** Of the build; also for those who are not told how it is made. */
  leadDays: number | null;
}

/** What a picture of a build is asked with. */
export interface PictureQuestion extends Given, Pick<BuildContent, 'decisions' | 'special'> {
  tariff: string;
  /** For those who do not see costs. */
  withoutCosts: boolean;
  facts: string;
  terms: LineTerms;
  registered?: Registered;
  specialNumber?: number;
}

/** What the Bench is opened with. */
export interface BenchQuestion extends PictureQuestion {
  /** Told how it is made. */
  making: boolean;
}

const tariffFor = (kept: Kept, { tariff, withoutCosts }: Pick<PictureQuestion, 'tariff' | 'withoutCosts'>) =>
  withoutCosts ? openTariff(kept.tariff(tariff)) : kept.tariff(tariff);

const meansOf = (kept: Kept, question: PictureQuestion, surroundings: Surroundings): BenchMeans => ({
  engine: engineFor(kept, question, surroundings),
  tariff: tariffFor(kept, question),
  terms: question.terms,
  facts: kept.facts(question.facts),
  registered: question.registered,
  specialNumber: question.specialNumber,
});

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

/** All that the effects of options follow from. */
const effectsKey = ({ version, context, asked, tariff, decisions, special }: PictureQuestion): string =>
  JSON.stringify([version, context, asked, tariff, decisions, special]);

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

/** Tasks of the Bench. */
export const benchTasks = (kept: Kept) => ({
  /** All that the Bench opens with, and no more of the model than whoever sees it may know. */
  bench: (question: BenchQuestion, surroundings: Surroundings): BenchParts => {
    const { making: seesMaking } = question;
    const model = kept.model(question.version);
    const means = meansOf(kept, question, surroundings);
    const picture = pictureOf(means, question);
    const needed = itemsNeeded(model);
    return {
      document: documentFor(model.document, seesMaking),
      outline: outlineOf(model),
      made: seesMaking ? itemsOf(model.document) : [],
      tariff: tariffWithin(means.tariff, needed),
      facts: seesMaking ? factsWithin(kept.facts(question.facts), needed) : {},
      picture: seesMaking ? picture : withoutMaking(picture),
      leadDays: picture.leadDays,
      scene: model.document.drawing ? sceneOf(model, picture.state.values) : null,
      differences: sureOf(
        remembered(opened, effectsKey(question), (known) => {
          const end = performance.now() + mostMilliseconds;
          return effectsOf(means, question, picture, known, () => performance.now() < end);
        }),
      ),
    };
  },

  /** A build as the table of differences shows it. */
  picture: (question: PictureQuestion, surroundings: Surroundings): BenchPicture =>
    pictureOf(meansOf(kept, question, surroundings), question),

  /** What would become of a build on another version of its model. */
  move: (
    {
      from,
      to,
      ...question
    }: Omit<PictureQuestion, 'version' | 'context'> & {
      from: Pick<Given, 'version' | 'context'>;
      to: Pick<Given, 'version' | 'context'>;
    },
    surroundings: Surroundings,
  ): { before: BenchPicture; after: BenchPicture; changes: Difference[]; dropped: string[] } => {
    const lostOn = (made: readonly Decision[]) =>
      checkDecisions(kept.model(to.version), made).map((problem) => problem.on);
    const dropped = lostOn(question.decisions);
    const unanswered = lostOn(question.asked);
    const see = (on: typeof from, asked: readonly Decision[], decisions: readonly Decision[]) =>
      pictureOf(meansOf(kept, { ...question, ...on, asked }, surroundings), {
        decisions,
        special: question.special,
      });
    const before = see(from, question.asked, question.decisions);
    const after = see(
      to,
      question.asked.filter(({ on }) => !unanswered.includes(on)),
      question.decisions.filter(({ on }) => !dropped.includes(on)),
    );
    return { before, after, changes: differences(before.state, after.state), dropped };
  },

  /** The best build by a wish, or the best so far when told to stop. */
  best: (
    {
      tariff,
      facts,
      made,
      wish,
      ...given
    }: Given & { tariff: string; facts: string; made: MadeOf; wish: BestWish },
    surroundings: Surroundings,
  ): BestAnswer =>
    bestFor(
      {
        engine: engineFor(kept, given, surroundings),
        tariff: specialTariff(kept.tariff(tariff), made.special),
        items: specialFacts(kept.facts(facts), made.special),
      },
      made,
      wish,
      { stop: surroundings.stopped, progress: surroundings.progress },
    ),
});
