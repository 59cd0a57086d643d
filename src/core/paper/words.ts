/** How a document speaks: the words between the figures, and how figures are written, in one language. */
import type { ExactText } from '../exact';
import type { Texts } from '../model';

/** The words that a document is made of; the application has a text for each in every language. */
export const paperWords = [
  'acceptHere',
  'acceptName',
  'acceptPlace',
  'acceptSign',
  'accepted',
  'afterWhole',
  'alternative',
  'alternativeAlone',
  'alternatives',
  'annexes',
  'area',
  'broughtForward',
  'carriedOver',
  'contact',
  'counts',
  'cover',
  'customer',
  'customerNumber',
  'date',
  'dear',
  'delivery',
  'deliveryBy',
  'discount',
  'draft',
  'drawings',
  'dueOnce',
  'each',
  'figures',
  'firstYear',
  'forAll',
  'from',
  'gross',
  'inAdvance',
  'inArrears',
  'inSpace',
  'included',
  'lease',
  'leaseLeft',
  'leaseTitle',
  'less',
  'line',
  'lineTotal',
  'linesTotal',
  'list',
  'madeOf',
  'monthly',
  'net',
  'number',
  'offered',
  'onceALine',
  'optional',
  'optionalTitle',
  'overTerm',
  'package',
  'page',
  'partNumber',
  'perMonth',
  'periods',
  'pos',
  'positions',
  'quantity',
  'recurring',
  'recurringTitle',
  'regards',
  'remark',
  'rest',
  'revision',
  'schedule',
  'shareOff',
  'site',
  'special',
  'specification',
  'specificationOf',
  'summary',
  'tag',
  'taxAt',
  'taxOf',
  'termDays',
  'terms',
  'termsUntaxed',
  'title',
  'to',
  'total',
  'unitNet',
  'unitPrice',
  'until',
  'valid',
  'what',
  'whole',
  'wholeOff',
] as const;
/** A word or phrase of a document. */
export type PaperWord = (typeof paperWords)[number];

/** One language, as a document is written in it. */
export interface Words {
  say: (word: PaperWord, params?: Readonly<Record<string, string | number>>) => string;
  /** An amount in the currency of the document, without its code. */
  amount: (value: ExactText) => string;
  number: (value: ExactText, most?: number) => string;
  /** 0.05 is 5 %. */
  percent: (share: ExactText) => string;
  /** Of an ISO day. */
  date: (day: string) => string;
  /** A unit in which something is counted; empty for pieces. */
  unit: (unit: string) => string;
  own: (texts: Texts) => string;
  yes: string;
  no: string;
}
