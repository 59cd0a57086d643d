/** Blocks that are a text: the house's, or one written for this document alone; and what an answer is given on. */
import type { BlockChoice } from '../composition';
import { filledRich } from '../placeholders';
import { nodesOf, plainRich, type RichText } from '../rich';
import type { Node } from '../types';
import type { PaperWord } from '../words';
import { fillingOf, type BlockMaker, type Making } from './making';

/** What a block says where neither the house nor a person wrote anything. */
const usual: Partial<Record<BlockChoice['kind'], (making: Making) => readonly PaperWord[]>> = {
  opening: () => ['dear'],
  delivery: () => ['delivery'],
  terms: ({ given }) => [given.tax ? 'terms' : 'termsUntaxed'],
  closing: () => ['regards'],
};

/** The text that a block has before it is filled in. */
export function textOfBlock(making: Making, choice: BlockChoice): RichText {
  if (choice.own) return choice.own;
  const house = making.texts[choice.text];
  if (house) return house;
  const { given, words } = making;
  return (usual[choice.kind]?.(making) ?? []).flatMap((word) => plainRich(usualText(word, given, words)));
}

/** What is said without a text of the house; texts of people may have braces, so that these are filled by themselves. */
function usualText(word: PaperWord, given: Making['given'], words: Making['words']): string {
  const text =
    word === 'delivery'
      ? words.say('deliveryBy', { from: words.date(given.day), date: words.date(given.delivered) })
      : words.say(word, {
          currency: given.currency,
          days: given.customer.paymentDays,
          name: given.customer.contact || given.customer.name,
          owner: given.owner.name,
          house: given.house.name,
        });
  return text.replace(/[{}]/g, (brace) => brace + brace);
}

/** A block that is a text. */
export const text: BlockMaker = (making, choice) =>
  nodesOf(filledRich(textOfBlock(making, choice), fillingOf(making)));

/** Where the customer says yes. */
export const acceptance: BlockMaker = ({ given, words }) => [
  {
    is: 'paragraph',
    spans: [
      {
        text: words.say('acceptHere', {
          number: given.number,
          revision: given.revision,
          house: given.house.name,
        }),
      },
    ],
  },
  { is: 'fields', names: [words.say('acceptPlace'), words.say('acceptName'), words.say('acceptSign')] },
];

/** Pictures, and the names of what follows behind the last page. */
export const annexes: BlockMaker = ({ composition }): Node[] => {
  const [pictures, joined] = [
    composition.annexes.filter(({ kind }) => kind === 'picture'),
    composition.annexes.filter(({ kind }) => kind === 'pdf'),
  ];
  return [
    ...pictures.map(({ file, name }): Node => ({ is: 'picture', file, caption: name })),
    ...(joined.length === 0
      ? []
      : [{ is: 'list', ordered: true, items: joined.map(({ name }) => [{ text: name }]) } as const]),
  ];
};
