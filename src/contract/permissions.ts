/**
 * Who may do what. A role is a set of named permissions, all of them in this one table; whose quotes and orders
 * somebody sees is decided in the services, by what they belong to.
 */

/** What a person is in the house. */
export type Role = 'engineer' | 'manager' | 'director' | 'modeller' | 'administrator' | 'dealer';

/** All that a role may be allowed to do, in the order in which it is told of. */
export const permissions = [
  /** Opens and changes quotes and builds, and adds customers. */
  'quotes',
  /** Gives discounts by hand. */
  'discount',
  /** Sets selling prices of their own. */
  'resale',
  /** Puts a special part in the place of an item. */
  'special',
  /** Types the rates of what is used, and prices and costs where the list has none. */
  'rates',
  /** Sees costs, margins and limits. */
  'costs',
  /** Answers sign-offs. */
  'sign',
  /** Makes an order of a quote. */
  'accept',
  /** Sees orders. */
  'orders',
  /** Sees how something is made. */
  'workOrders',
  /** Makes models: drafts, rules, versions. */
  'model',
  /** Keeps items and families, and what they are sold at. */
  'prices',
  /** Keeps the texts and templates of what is put on paper. */
  'paper',
  /** Agrees to a draft of a model before it is published. */
  'agree',
  /** Runs the house: its data, its people, its jobs; has no say in prices or rules. */
  'administer',
] as const;
/** Something that a role may be allowed to do. */
export type Permission = (typeof permissions)[number];

/** Whoever answers for what others offer. */
const signer: readonly Permission[] = [
  'quotes', 'discount', 'accept', 'costs', 'sign', 'orders', 'workOrders', 'special', 'rates', 'agree',
]; // prettier-ignore

/** The permissions of each role. */
export const granted: Readonly<Record<Role, readonly Permission[]>> = {
  engineer: ['quotes', 'discount', 'accept', 'costs', 'orders', 'workOrders', 'special', 'rates'],
  manager: signer,
  director: signer,
  modeller: ['costs', 'orders', 'workOrders', 'model', 'prices', 'paper', 'agree'],
  administrator: ['administer'],
  dealer: ['quotes', 'resale'],
};

/** All roles, in the order in which people are shown. */
export const roles = Object.keys(granted) as Role[];
