/** The head of a quotation: who it is for, what it is about, and what it comes to in a few words. */
import type { PaperAddress } from '../given';
import { filled } from '../placeholders';
import type { Node } from '../types';
import { countedLines, fillingOf, span, type BlockMaker } from './making';

const lineOf = ({ street, postcode, town, country }: PaperAddress): string[] => [
  street,
  `${postcode} ${town}`.trim(),
  country,
];

/** The address as it shows in a window, and what is asked for when one calls. */
export const letterHead: BlockMaker = ({ given, words }) => {
  const { customer, owner } = given;
  const invoice = customer.addresses.find(({ kind }) => kind === 'invoice') ?? customer.addresses[0];
  const to = [customer.name, customer.contact, ...(invoice ? lineOf(invoice) : [])].filter(Boolean);
  return [
    { is: 'paragraph', look: 'head', spans: [span(words.say('to'))] },
    ...to.map((text, at): Node => ({
      is: 'paragraph',
      spans: [{ text, ...(at === 0 ? { bold: true } : {}) }],
    })),
    {
      is: 'pairs',
      rows: [
        [words.say('number'), `${given.number} · ${words.say('revision', { number: given.revision })}`],
        [words.say('date'), words.date(given.day)],
        [words.say('valid'), words.date(given.validUntil)],
        [words.say('customerNumber'), customer.number],
        [words.say('contact'), owner.name],
        ...(owner.email === '' ? [] : [['', owner.email] as const]),
      ],
    },
  ];
};

/** What it is about. */
export const subject: BlockMaker = ({ given, words }) => [
  {
    is: 'heading',
    level: 1,
    text: given.title === '' ? `${words.say('title')} ${given.number}` : given.title,
  },
];

/** What is offered, what it comes to, and when it is there. */
export const summary: BlockMaker = (making) => {
  const { given, words, composition } = making;
  const { totals, tax, currency } = given;
  const priced = composition.lines.prices !== 'none';
  const main = countedLines(given)
    .slice(0, 6)
    .map((line) => `${words.number(String(line.quantity))} × ${words.own(line.name)}`);
  const more = countedLines(given).length - main.length;
  return [
    {
      is: 'pairs',
      rows: [
        [words.say('offered'), [...main, ...(more > 0 ? [`+ ${String(more)}`] : [])].join('\n')],
        ...(priced
          ? [
              [words.say('net'), `${words.amount(totals.net)} ${currency}`] as const,
              ...(tax ? [[words.say('gross'), `${words.amount(tax.gross)} ${currency}`] as const] : []),
              ...(totals.recurring === '0'
                ? []
                : [[words.say('perMonth'), `${words.amount(totals.perMonth)} ${currency}`] as const]),
            ]
          : []),
        [words.say('delivery'), filled('{quote.delivered}', fillingOf(making))],
        [words.say('valid'), words.date(given.validUntil)],
      ],
    },
  ];
};
