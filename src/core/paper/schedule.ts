/** A site schedule on paper: what stands where, and as a package with a sheet of each position. */
import { byArea } from '../schedule';
import type { ExactText } from '../exact';
import type { Texts } from '../model';
import { drawingNode, specified } from './blocks/builds';
import { frameOf } from './compose';
import type { Composition } from './composition';
import type { PaperBuild, PaperHouse } from './given';
import type { Annex, Block, Cell, Node, PaperDocument, TableColumn, TableRow } from './types';
import type { Words } from './words';

/** A position as it stands on paper. */
export interface PaperPosition {
  tag: string;
  area: string;
  quantity: ExactText;
  remark: string;
  name: Texts;
  /** Part number of a build, number of an item; empty for words. */
  number: string;
  /** Of a build: what was chosen and its drawings, for its sheet. */
  build?: PaperBuild;
}

/** A site schedule with all that its paper says. */
export interface ScheduleGiven {
  name: string;
  site: string;
  customer: string;
  day: string;
  house: PaperHouse;
  positions: readonly PaperPosition[];
}

type PaperLook = Pick<Composition, 'language' | 'paper' | 'colour'>;

/** The schedule alone: a table of positions by areas. */
export const composeSchedule = (given: ScheduleGiven, look: PaperLook, words: Words): PaperDocument => ({
  ...framed(given, look, words),
  what: words.say('schedule'),
  blocks: [{ key: 'cover', title: given.name, nodes: cover(given, words) }, listed(given, words)],
});

/** The package in one: cover, schedule, a sheet of each position that is a build, and data sheets behind them. */
export const composePackage = (
  given: ScheduleGiven,
  look: PaperLook,
  words: Words,
  annexes: readonly Annex[],
): PaperDocument => ({
  ...framed(given, look, words),
  what: words.say('package'),
  blocks: [
    { key: 'cover', title: given.name, nodes: cover(given, words) },
    { ...listed(given, words), apart: true },
    ...given.positions.flatMap((position, at) => sheetOf(position, `sheet-${String(at)}`, words)),
  ],
  annexes,
});

/** The sheet of one position by itself; null where it is no build. */
export function composePosition(
  given: Omit<ScheduleGiven, 'positions'>,
  position: PaperPosition,
  look: PaperLook,
  words: Words,
): PaperDocument | null {
  const [block] = sheetOf(position, 'sheet', words);
  if (!block) return null;
  const { apart: _, ...alone } = block;
  return {
    ...framed(given, look, words),
    what: words.say('specification'),
    title: `${position.tag}, ${given.name}`,
    reference: position.number,
    blocks: [alone],
  };
}

const framed = (
  { name, day, house }: Omit<ScheduleGiven, 'positions'>,
  look: PaperLook,
  words: Words,
): Omit<PaperDocument, 'what' | 'blocks'> => ({
  ...frameOf(house, look, words),
  kind: 'schedule',
  title: name,
  reference: name,
  day,
  watermark: '',
  currency: '',
  decimals: 0,
  annexes: [],
});

const cover = ({ name, site, customer, day, positions }: ScheduleGiven, words: Words): Node[] => [
  { is: 'heading', level: 1, text: name },
  {
    is: 'pairs',
    rows: [
      ...(site === '' ? [] : [[words.say('site'), site] as const]),
      ...(customer === '' ? [] : [[words.say('customer'), customer] as const]),
      [words.say('date'), words.date(day)],
      [words.say('positions'), String(positions.length)],
    ],
  },
];

/** All positions by their areas. */
function listed({ positions }: ScheduleGiven, words: Words): Block {
  const cell = (text: string, look?: 'strong' | 'quiet' | 'code'): Cell => ({
    lines: text === '' ? [] : [{ spans: [{ text }], ...(look ? { look } : {}) }],
  });
  let counted = 0;
  const row = ({ tag, name, number, quantity, remark }: PaperPosition): TableRow => {
    counted += 1;
    return {
      is: 'item',
      cells: [
        cell(tag, 'strong'),
        {
          lines: [
            { spans: [{ text: words.own(name) }] },
            ...(number === '' ? [] : [{ spans: [{ text: number }], look: 'code' as const }]),
          ],
        },
        {
          lines: [{ spans: [{ text: words.number(quantity) }] }],
          figure: { id: `q${String(counted)}`, value: quantity, is: 'count', decimals: 3 },
        },
        cell(remark, 'quiet'),
      ],
    };
  };
  const columns: TableColumn[] = [
    { title: words.say('tag'), width: 90 },
    { title: words.say('what') },
    { title: words.say('quantity'), right: true, width: 54 },
    { title: words.say('remark'), width: 130 },
  ];
  // A table for each area: its name stands with its first position, and again where it goes on.
  const tables = byArea(positions).map(({ area, positions: some }, at): Node => ({
    is: 'table',
    id: `positions-${String(at)}`,
    columns,
    rows: [
      ...(area === '' ? [] : [{ is: 'group', cells: [{ ...cell(area, 'strong'), over: 4 }] } as const]),
      ...some.map(row),
    ],
  }));
  return {
    key: 'schedule',
    title: words.say('schedule'),
    nodes: [{ is: 'heading', level: 2, text: words.say('schedule') }, ...tables],
  };
}

/** What a position is, all that was chosen, and its drawings, on pages of its own. */
function sheetOf(
  { tag, area, quantity, remark, name, number, build }: PaperPosition,
  key: string,
  words: Words,
): Block[] {
  if (!build) return [];
  return [
    {
      key,
      title: tag,
      apart: true,
      nodes: [
        { is: 'heading', level: 1, text: `${tag} · ${words.own(name)}` },
        {
          is: 'pairs',
          rows: [
            [words.say('partNumber'), number],
            [words.say('quantity'), words.number(quantity)],
            ...(area === '' ? [] : [[words.say('area'), area] as const]),
            ...(remark === '' ? [] : [[words.say('remark'), remark] as const]),
          ],
        },
        ...specified(build, words),
        ...(build.views.length === 0
          ? []
          : [
              { is: 'heading', level: 2, text: words.say('drawings') } as const,
              ...build.views.map((view) => drawingNode(view, words)),
            ]),
      ],
    },
  ];
}
