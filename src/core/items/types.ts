/** What can stand on a price list, with all that the house knows of it. */
import type { ExactText } from '../exact';
import type { Texts } from '../model';

/** What kind of thing an item is. */
export const itemKinds = ['part', 'model', 'software', 'service'] as const;
/** One of them. */
export type ItemKind = (typeof itemKinds)[number];

interface Described {
  /** As formulas name it: letters and digits, a small letter first. */
  id: string;
  name: Texts;
}
/** A number in its unit, written with so many decimals; without a unit, a plain number. */
export interface NumberProperty extends Described {
  is: 'number';
  unit: string;
  decimals: number;
}
/** One of a few. */
export interface ChoiceProperty extends Described {
  is: 'choice';
  options: readonly { id: string; name: Texts }[];
}
/** Something that is or is not. */
export interface YesNoProperty extends Described {
  is: 'yesNo';
}
/** A few words. */
export interface TextProperty extends Described {
  is: 'text';
}
/** Something that all items of a family are described by, and of those inside it. */
export type ItemProperty = NumberProperty | ChoiceProperty | YesNoProperty | TextProperty;

/** What an item says of a property: a number as exact text, the id of a choice, a text, yes or no. */
export type PropertyValue = string | boolean;

/** A family of items, alone or inside another one, whose properties it has as well. */
export interface Family {
  code: string;
  name: Texts;
  parent: string | null;
  properties: readonly ItemProperty[];
}

/** To whom or by whom an item is not sold: to customers of a class, into a region, by a role; all that is said holds together. */
export interface Bar {
  class: string | null;
  region: string | null;
  role: string | null;
  /** What whoever tries is told. */
  reason: Texts;
}

/** An item. */
export interface Item {
  sku: string;
  family: string;
  /** What it is called, on every list and paper. */
  name: Texts;
  /** What colleagues should know; no customer reads it. */
  note: Texts;
  /** What customers read of it. */
  says: Texts;
  kind: ItemKind;
  unit: string;
  /** For one, in EUR. */
  cost: ExactText;
  /** Working days until it is there. */
  leadDays: number;
  /** Of one, in kg; null where nobody knows. */
  mass: ExactText | null;
  /** By the ids of properties of its family. */
  properties: Readonly<Record<string, PropertyValue>>;
  /** It can be put on new lines. */
  active: boolean;
  /** By itself, and not only inside something. */
  sold: boolean;
  bars: readonly Bar[];
  /** By hand, or with the whole quote. */
  discountable: boolean;
  taxClass: string;
  /** How many are meant where nobody says it, and in which steps it is sold; one by one where it is null. */
  usualQuantity: ExactText | null;
  step: ExactText | null;
  /** Its pieces bear serial numbers, and are known one by one. */
  serials: boolean;
  /** Months from delivery on that a warranty covers. */
  coversMonths: number | null;
  /** The item that is sold in its place. */
  replacedBy: string | null;
  /** Items that are proposed with it. */
  goesWith: readonly string[];
  /** A picture and a data sheet, by the ids of their files. */
  picture: string | null;
  dataSheet: string | null;
}

/** What is wrong, where, and with what in its sentence. */
export interface ItemProblem {
  code: string;
  /** The field, and after a dot the part of it. */
  field: string;
  params?: Record<string, string | number>;
}
