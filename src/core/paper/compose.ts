/** From what is given and what was chosen to a document that knows no format. */
import { acceptance, annexes, text } from './blocks/texts';
import { alternatives, optional } from './blocks/beside';
import { drawingNode, drawings, specification, specified } from './blocks/builds';
import { letterHead, subject, summary } from './blocks/head';
import { lease, recurring } from './blocks/over-time';
import { lines } from './blocks/lines';
import { sums } from './blocks/sums';
import type { BlockMaker, Making } from './blocks/making';
import type { BlockChoice, BlockKind, Composition } from './composition';
import type { PaperBuild, PaperHouse } from './given';
import { holds } from './placeholders';
import type { Block, Node, PaperDocument } from './types';
import type { PaperWord, Words } from './words';

export type { Making } from './blocks/making';

const makers: Readonly<Record<BlockKind, BlockMaker>> = {
  letterHead,
  subject,
  opening: text,
  summary,
  lines: (making, choice) => [...lines(making, choice), ...sums(making)],
  alternatives,
  optional,
  recurring,
  lease,
  included: text,
  drawings,
  specification,
  delivery: text,
  terms: text,
  text,
  closing: text,
  acceptance,
  annexes,
};

/** Heads of blocks that have one; bookmarks of the file. */
const heads: Partial<Record<BlockKind, PaperWord>> = {
  summary: 'summary',
  alternatives: 'alternatives',
  optional: 'optionalTitle',
  recurring: 'recurringTitle',
  lease: 'leaseTitle',
  included: 'included',
  drawings: 'drawings',
  specification: 'specification',
  acceptance: 'accepted',
  annexes: 'annexes',
};
/** Blocks that begin a page. */
const apart: readonly BlockKind[] = ['drawings', 'specification'];

/** The document. A block that is off, whose condition does not hold, or that has nothing to say, is not in it. */
export function compose(making: Making): PaperDocument {
  const { given, composition, words } = making;
  return {
    ...frameOf(given.house, composition, words),
    kind: 'quotation',
    what: words.say('title'),
    title: `${words.say('title')} ${given.number}`,
    reference: `${given.number} · ${words.say('revision', { number: given.revision })}`,
    day: given.day,
    watermark: given.draft ? words.say('draft') : '',
    currency: given.currency,
    decimals: given.decimals,
    blocks: composition.blocks.flatMap((choice): Block[] => {
      if (!choice.on || !holds(choice.when, { given, line: null })) return [];
      const block = blockOf(making, choice);
      return block ? [block] : [];
    }),
    annexes: composition.blocks.some(({ kind, on }) => kind === 'annexes' && on) ? composition.annexes : [],
  };
}

function blockOf(making: Making, choice: BlockChoice): Block | null {
  const made = makers[choice.kind](making, choice);
  if (made.length === 0) return null;
  const head = heads[choice.kind];
  const title = head === undefined ? '' : making.words.say(head);
  const nodes: readonly Node[] = title === '' ? made : [{ is: 'heading', level: 2, text: title }, ...made];
  return { key: choice.key, title, nodes, ...(apart.includes(choice.kind) ? { apart: true } : {}) };
}

/** What all documents of the house have in common. */
export function frameOf(
  house: PaperHouse,
  { language, paper, colour }: Pick<Composition, 'language' | 'paper' | 'colour'>,
  words: Words,
): Pick<PaperDocument, 'language' | 'author' | 'paper' | 'colour' | 'pageText' | 'head'> {
  const { name, lines: told, foot, mark } = house;
  return {
    language,
    author: name,
    paper,
    colour,
    pageText: words.say('page'),
    head: { name, lines: told, foot, mark },
  };
}

/** A build alone, without prices: what it is, what was chosen, its figures and drawings. */
export interface SpecificationGiven {
  name: Readonly<Record<string, string>>;
  partNumber: string;
  day: string;
  house: PaperHouse;
  build: PaperBuild;
}

/** The specification sheet of a build. */
export function composeSpecification(
  { name, partNumber, day, house, build }: SpecificationGiven,
  look: Pick<Composition, 'language' | 'paper' | 'colour'>,
  words: Words,
): PaperDocument {
  const title = words.own(name);
  return {
    ...frameOf(house, look, words),
    kind: 'specification',
    what: words.say('specification'),
    title: `${words.say('specificationOf')} ${title}`,
    reference: partNumber,
    day,
    watermark: '',
    currency: '',
    decimals: 0,
    blocks: [
      {
        key: 'subject',
        title,
        nodes: [
          { is: 'heading', level: 1, text: title },
          {
            is: 'pairs',
            rows: [
              [words.say('partNumber'), partNumber],
              [words.say('date'), words.date(day)],
            ],
          },
        ],
      },
      { key: 'specification', title: words.say('specification'), nodes: specified(build, words) },
      ...(build.views.length === 0
        ? []
        : [
            {
              key: 'drawings',
              title: words.say('drawings'),
              apart: true as const,
              nodes: [
                { is: 'heading', level: 2, text: words.say('drawings') } as const,
                ...build.views.map((view) => drawingNode(view, words)),
              ],
            },
          ]),
    ],
    annexes: [],
  };
}
