/** The Desk, and search-or-do. */
import { object, string } from 'yup';
import type { Texts } from '../core/model';
import type { AnswerKind, MailState } from '../core/sending';
import { endpoint, json } from './endpoint';
import type { OrderRow } from './orders';
import type { DeskFollowUp, DeskRequest } from './colleagues';
import type { QuoteRow } from './quote-rows';
import { findQuery } from './schema';
import type { AskedSignOff } from './sign-off-view';

/** What a day begins with. */
export interface DeskView {
  /** Whose quotes these are: the person's own, or those of all whose quotes the person may see. */
  whose: 'mine' | 'team';
  /** The first of those that may still be won. */
  quotes: QuoteRow[];
  /** How many there are in all. */
  count: number;
  orders: OrderRow[];
  /** Sign-offs asked of the person. */
  asked: AskedSignOff[];
  /** Own quotes with builds that a newer version of their model would have decided anew, or no longer has. */
  toDecide: ToDecide[];
  /** Own quotes that want a decision at the prices of a change that was published. */
  repriced: Repriced[];
  /** What customers answered to the person's quotes and builds, and nobody saw to yet. */
  answered: Answered[];
  /** What colleagues ask of the person, and what they answered. */
  colleagues: DeskRequest[];
  /** Days on which the person wanted to come back to a quote: what is overdue, and of the days to come. */
  followUps: DeskFollowUp[];
  /** Mails of the person that did not arrive, or of which nobody knows. */
  undelivered: Undelivered[];
  /** In EUR. `weight` is the share of open quotes that is counted. */
  quota?: { target: string; won: string; open: string; weight: string };
}

/** A quote with something to decide since a version of a model was published. */
export interface ToDecide {
  quoteId: string;
  number: string;
  title: string;
  customer: string;
  /** What the model is called. */
  model: Texts;
  /** The version, from which day it is in force, and what it says of itself. */
  version: number;
  from: string;
  note: string;
  /** How many builds want a decision, and how many are no longer to be had. */
  decide: number;
  lost: number;
}

/** A quote with something to decide since a price change was published. */
export interface Repriced {
  quoteId: string;
  number: string;
  title: string;
  customer: string;
  /** The change, what it is called, and from which day on it is in force. */
  change: string;
  name: string;
  from: string;
  /** Roles that would have to sign besides, and lines that could not be sold. */
  signs: string[];
  unsold: number;
}

/** What a customer answered, as the Desk tells of it. */
export interface Answered {
  id: string;
  quoteId: string | null;
  buildId: string | null;
  /** Number of the quote, or part number of the build. */
  number: string;
  title: string;
  customer: string;
  answer: AnswerKind;
  name: string;
  words: string;
  /** A moment in ISO form. */
  at: string;
  /** A yes that is no order yet. */
  waits: boolean;
}

/** A mail that did not arrive. */
export interface Undelivered {
  id: string;
  subject: string;
  customer: string;
  state: MailState;
  /** Addresses that it did not reach. */
  returned: string[];
}

/** Something that search-or-do found. */
export interface Hit {
  kind: 'customer' | 'quote' | 'order' | 'item';
  id: string;
  label: string | Texts;
  detail: string;
  /** Of an item that is configured: its model. */
  model?: string;
}

/** Endpoints of the Desk. */
export const desk = {
  'GET /desk': endpoint({
    says: "What waits for a person: own quotes, or the team's; answers of customers; mails that did not arrive.",
    who: 'person',
    query: object({ whose: string().oneOf(['mine', 'team'], 'input.invalid').default('mine') }),
    answers: json<DeskView>('DeskView'),
  }),
  'GET /search': endpoint({
    says: 'Customers, quotes, orders and items by any part of their names and numbers, or what was probably meant.',
    who: 'person',
    query: findQuery,
    answers: json<Hit[]>('Hit[]'),
  }),
};
