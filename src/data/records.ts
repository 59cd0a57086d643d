/**
 * The tables as Sequelize models with typed rows. Numeric columns arrive as decimal text, never as binary
 * floats.
 */
import {
  DataTypes,
  type DataType,
  type Model,
  type ModelAttributeColumnOptions,
  type ModelAttributes,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';
import type { Decision } from '../core/engine';
import type { ModelDocument, Texts, Values } from '../core/model';
import type {
  BuildPrice,
  LineFigures,
  LinePrice,
  LineRates,
  PolicyHit,
  PriceEntry,
  QuantityDiscount,
  Taxed,
  Term,
  Typed,
} from '../core/pricing';
import type {
  LedgerColumn,
  Lost,
  PassedWarning,
  QuoteLease,
  RevisionState,
  SpecialPart,
  WarningView,
} from '../core/quoting';
import type { MaterialNeed, OperationStep } from '../core/production';

export type Role = 'engineer' | 'manager' | 'director' | 'modeller' | 'dealer';
export type CustomerClass = 'direct' | 'key' | 'dealer' | 'public';
export type ItemKind = 'part' | 'model' | 'software' | 'service';

export interface PriceListRow {
  code: string;
  name: Texts;
  currency: string;
  decimals: number;
  costRate: string;
  validFrom: string;
}
export interface CustomerRow {
  id: string;
  number: string;
  name: string;
  class: CustomerClass;
  priceList: string;
  language: string;
  region: string;
  dealerId: string | null;
  /** Days from the invoice within which is paid. */
  paymentDays: number;
}
export interface AddressRow {
  id: string;
  customerId: string;
  kind: 'invoice' | 'delivery';
  street: string;
  town: string;
  postcode: string;
  country: string;
  /** Of several of a kind, the first is the usual one. */
  position: number;
}
/** Somebody at a customer. */
export interface ContactRow {
  id: string;
  customerId: string;
  name: string;
  email: string;
  /** What they see to, such as purchasing; may be empty. */
  task: string;
  /** The first is the usual one. */
  position: number;
}
export interface UserRow {
  id: string;
  email: string;
  name: string;
  language: string;
  role: Role;
  passwordHash: string;
  dealerId: string | null;
  /** Net sales expected in a year, in EUR. */
  quota: string | null;
  preferences: Preferences;
}
/** How a person likes to see things. */
export interface Preferences {
  resale?: string;
  foldBarred?: boolean;
  units?: 'metric' | 'imperial';
  ledger?: LedgerColumn[] | null;
}
export interface SessionRow {
  tokenHash: string;
  userId: string;
  expiresAt: Date;
}
/** A sign-in that was tried and has not succeeded (yet). */
export interface AttemptRow {
  id?: number;
  account: string;
  address: string;
  at?: Date;
}
/** A device on which a person has signed in before. */
export interface DeviceRow {
  tokenHash: string;
  userId: string;
  seenAt?: Date;
}
export interface FamilyRow {
  code: string;
  name: Texts;
  position: number;
}
export interface ItemRow {
  sku: string;
  family: string;
  name: Texts;
  kind: ItemKind;
  unit: string;
  cost: string;
  leadDays: number;
  mass: string | null;
  sold: boolean;
  /** May be discounted, by hand or with the whole quote. */
  discountable: boolean;
  taxClass: string;
  /** From delivery on; of a warranty. */
  coversMonths: number | null;
}
/**
 * How an item is priced in a list from a day on, until a later entry or the last day; with base months, for
 * that long. `inside` is the item of a bundle inside which alone it is priced so; empty anywhere.
 */
export interface PriceEntryRow {
  priceList: string;
  sku: string;
  inside: string;
  entry: PriceEntry;
  baseMonths: number | null;
  leastMonths: number | null;
  validFrom: string;
  validTo: string | null;
}
/**
 * Granted to a customer or a class (or, of a promotion, to everybody), for a family or an item: a share off,
 * or a price of its own in one list.
 */
export interface GrantRow {
  id: string;
  kind: 'agreement' | 'promotion';
  name: Texts;
  class: CustomerClass | null;
  customerId: string | null;
  family: string | null;
  sku: string | null;
  rate: string | null;
  price: string | null;
  priceList: string | null;
  validFrom: string | null;
  validTo: string | null;
  fixed: boolean;
}
export interface QuantityDiscountRow extends QuantityDiscount {
  id: string;
  name: Texts;
  family: string | null;
  sku: string | null;
}
export interface WorkCentreRow {
  code: string;
  name: Texts;
  rate: string;
}
export interface ModelRow {
  id: string;
  sku: string;
}
export interface ModelVersionRow {
  id: string;
  modelId: string;
  number: number;
  document: ModelDocument;
  hash: string;
  publishedAt?: Date;
  publishedBy: string | null;
}
export interface RegisteredNumberRow {
  modelId: string;
  key: string;
  number: number;
}
export interface QuoteRow {
  id: string;
  number: string;
  title: string;
  customerId: string;
  ownerId: string;
  version: number;
  createdAt?: Date;
  updatedAt: Date;
  updatedBy: string;
}
/** What the server worked out when the build was last saved. */
export interface BuildOutcome {
  values: Values;
  partNumber: string;
  complete: boolean;
  todo: number;
  clashes: number;
  warnings: WarningView[];
  /** The number registered for its special parts. */
  specialNumber?: number;
  /** In kg, where its model has a figure for it and it is known. */
  mass?: string;
}
export interface BuildRow {
  id: string;
  modelVersionId: string;
  quoteId: string;
  revisionId: string;
  context: { date: string; values: Record<string, string> };
  decisions: Decision[];
  outcome: BuildOutcome;
  version: number;
  /** Variants of one talk have the talk and their letters. */
  talkId: string;
  letter: string;
  passed: PassedWarning[];
  special: SpecialPart[];
}
/** A build kept under a name, to start others from. */
export interface SavedBuildRow {
  id: string;
  ownerId: string;
  name: string;
  shared: boolean;
  modelId: string;
  partNumber: string;
  decisions: Decision[];
  savedAt?: Date;
}
export interface StarRow {
  userId: string;
  savedId: string;
}
/** The customer as copied to a revision, so that a later change of address does not change a quote. */
export interface CustomerCopy {
  number: string;
  name: string;
  class: CustomerClass;
  language: string;
  region: string;
  contactName: string;
  contactEmail: string;
  /** Absent on what was copied before there were any. */
  paymentDays?: number;
  /** One of each kind. */
  addresses: Omit<AddressRow, 'id' | 'customerId' | 'position'>[];
}
export interface RevisionRow {
  id: string;
  quoteId: string;
  number: number;
  state: RevisionState;
  priceList: string;
  customer: CustomerCopy;
  validUntil: string;
  /** Typed for the whole quote. */
  whole: Typed | null;
  madeAt?: Date;
  madeBy: string | null;
  /** When it was sent, accepted or lost, and by whom. */
  settledAt: Date | null;
  settledBy: string | null;
  lost: Lost | null;
  /** Tax as it stood when the revision was settled. */
  taxed: Taxed | null;
  /** Offered as a lease beside the price. */
  lease: QuoteLease | null;
  /** Of a dealer's quote: what the dealer adds to the buying price, as a share of it. */
  resale: string | null;
}
/** What lists show of a revision, kept with it by whatever changes it. */
export interface RevisionFactsRow {
  revisionId: string;
  net: string;
  lineCount: number;
  problemCount: number;
  sendable: boolean;
  /** Somebody must sign, or has been asked to. */
  signing: 'needed' | 'asked' | null;
  /** Of what prices are made from, as it was when this was worked out. */
  stamp: string;
}
/** Prices as they stood when the revision was sent or accepted. */
export interface FrozenLine {
  price: LinePrice;
  build?: BuildPrice;
}
export interface LineRow {
  id: string;
  revisionId: string;
  position: number;
  buildId: string | null;
  sku: string;
  quantity: number;
  frozen: FrozenLine | null;
  /** Typed on the line: a discount, a net price of one piece or a margin. */
  hand: Typed | null;
  /** Left as it is by the whole-quote discount. */
  locked: boolean;
  /** Offered beside the others, and not in the totals. */
  optional: boolean;
  /** Of what recurs. */
  term: Term | null;
  /** Of what has no price in the list but the one typed here, for one piece. */
  typedPrice: string | null;
  typedCost: string | null;
  /** Of what is used: as agreed for this line, instead of those of the list. */
  rates: LineRates | null;
  /** Of a dealer's quote: for what the dealer sells one piece, where it is not by the share for all. */
  resale: string | null;
  /** Instead of another line: shown, and left out of the totals. */
  alternative: boolean;
  /** The same for lines that are alternatives of one another. */
  rivals: string | null;
  /** The line it was first copied from by a newer revision, else itself: the same line in all revisions. */
  origin: string;
  /** The day of the prices and agreements that it stands on. */
  pricedOn: string;
  /** Lines of one group stand together under its name. */
  groupName: string | null;
}
/** A rate of tax by country; without a class, for all that have no rate of their own. */
export interface TaxRateRow {
  id: string;
  country: string;
  class: string | null;
  rate: string;
}
/** How far a role may go by itself; discounts and margins as shares. */
export interface LimitRow {
  id: string;
  role: Role;
  family: string | null;
  by: 'discount' | 'margin';
  target: string;
  limitAt: string;
  floor: string;
  signs: Role;
  above: Role;
}
/** What a change made of a draft, so that it can be taken back and made again. */
export interface QuoteStepRow {
  revisionId: string;
  number: number;
  undone: boolean;
  userId: string;
  change: QuoteStep;
}
/** By id, lines before and after, null where there was or is none; and what was said of the whole quote. */
export interface QuoteStep {
  lines: { id: string; before: LineRow | null; after: LineRow | null }[];
  revision?: { before: Partial<RevisionRow>; after: Partial<RevisionRow> };
  title?: { before: string; after: string };
}
/** Something about the quotes of a role that another role must sign; the condition is FEEL over the quote. */
export interface PolicyRow {
  id: string;
  role: Role;
  name: Texts;
  condition: string;
  signs: Role;
}
/** What a sale earns who made it: the higher rate is on what is above the target price. */
export interface CommissionPlanRow {
  role: Role;
  baseRate: string;
  higherRate: string;
}
/** over: another was asked for in its place. */
export type SignOffState = 'asked' | 'yes' | 'no' | 'counter' | 'over';
/** What is offered for a line in the place of what was asked: a discount by hand, or nothing. */
export type Offer = { line: string; rate: string } | { line: string; no: true };
export interface SignOffRow {
  id: string;
  revisionId: string;
  role: Role;
  reason: string;
  figures: LineFigures[];
  askedBy: string;
  askedAt?: Date;
  state: SignOffState;
  answeredBy: string | null;
  answeredAt: Date | null;
  comment: string;
  /**
   * By line, the discount by hand that would be signed, or that it is not signed; of lines that are not
   * named, as asked.
   */
  counter: Offer[];
  /** The figures that it was asked for. */
  asked: LineFigures[];
  /** What was asked for, or signed, beside the figures. */
  policies: PolicyHit[];
}
export interface OrderRow {
  id: string;
  number: string;
  quoteId: string;
  revisionId: string;
  currency: string;
  net: string;
  promised: string;
  createdAt?: Date;
  createdBy: string;
}
export interface WorkOrderRow {
  id: string;
  number: string;
  orderId: string;
  lineId: string;
  title: Texts;
  partNumber: string;
  quantity: number;
  decisions: { name: Texts; value: Texts }[];
  /** `special`: what takes the place of the item, in words. */
  materials: (MaterialNeed & { special?: string })[];
  operations: OperationStep[];
  due: string;
}
export interface AuditRow {
  id?: number;
  at?: Date;
  userId: string | null;
  action: string;
  subject: string;
  details: Record<string, unknown>;
}

/** Each column needs a definition of its own: Sequelize writes the column's name into it. */
const key = (type: DataType): ModelAttributeColumnOptions => ({ type, primaryKey: true });
const {
  TEXT: text,
  INTEGER: int,
  JSONB: jsonb,
  JSON: json,
  DATEONLY: day,
  DATE: instant,
  UUID: ref,
  BOOLEAN: bool,
} = DataTypes;
const money = DataTypes.DECIMAL(18, 6);
/** Filled by the database when left out. */
const now = (): ModelAttributeColumnOptions => ({ type: instant, defaultValue: DataTypes.NOW });

/** A row that can be updated and destroyed. */
export type Stored<T extends object> = Model<T, T> & T;
export type Table<T extends object> = ModelStatic<Stored<T>>;

export function defineRecords(sequelize: Sequelize) {
  const table = <T extends object>(tableName: string, columns: ModelAttributes): Table<T> =>
    sequelize.define(tableName, columns, { tableName, timestamps: false }) as unknown as Table<T>;
  return {
    priceLists: table<PriceListRow>('price_lists', {
      code: key(text),
      name: jsonb,
      currency: text,
      decimals: int,
      costRate: money,
      validFrom: day,
    }),
    customers: table<CustomerRow>('customers', {
      id: key(ref),
      number: text,
      name: text,
      class: text,
      priceList: text,
      language: text,
      region: text,
      dealerId: ref,
      paymentDays: { type: int, defaultValue: 30 },
    }),
    addresses: table<AddressRow>('addresses', {
      id: key(ref),
      customerId: ref,
      kind: text,
      street: text,
      town: text,
      postcode: text,
      country: text,
      position: { type: int, defaultValue: 0 },
    }),
    contacts: table<ContactRow>('contacts', {
      id: key(ref),
      customerId: ref,
      name: text,
      email: text,
      task: text,
      position: int,
    }),
    users: table<UserRow>('users', {
      id: key(ref),
      email: text,
      name: text,
      language: text,
      role: text,
      passwordHash: text,
      dealerId: ref,
      quota: money,
      preferences: jsonb,
    }),
    sessions: table<SessionRow>('sessions', { tokenHash: key(text), userId: ref, expiresAt: instant }),
    attempts: table<AttemptRow>('sign_in_attempts', {
      id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
      account: text,
      address: text,
      at: now(),
    }),
    devices: table<DeviceRow>('devices', { tokenHash: key(text), userId: ref, seenAt: now() }),
    families: table<FamilyRow>('families', { code: key(text), name: jsonb, position: int }),
    items: table<ItemRow>('items', {
      sku: key(text),
      family: text,
      name: jsonb,
      kind: text,
      unit: text,
      cost: money,
      leadDays: int,
      mass: money,
      sold: bool,
      discountable: { type: bool, defaultValue: true },
      taxClass: { type: text, defaultValue: 'standard' },
      coversMonths: int,
    }),
    priceEntries: table<PriceEntryRow>('price_entries', {
      priceList: key(text),
      sku: key(text),
      inside: { ...key(text), defaultValue: '' },
      entry: jsonb,
      baseMonths: int,
      leastMonths: int,
      validFrom: key(day),
      validTo: day,
    }),
    grants: table<GrantRow>('grants', {
      id: key(ref),
      kind: text,
      name: jsonb,
      class: text,
      customerId: ref,
      family: text,
      sku: text,
      rate: DataTypes.DECIMAL(9, 6),
      price: money,
      priceList: text,
      validFrom: day,
      validTo: day,
      fixed: bool,
    }),
    quantityDiscounts: table<QuantityDiscountRow>('quantity_discounts', {
      id: key(ref),
      name: jsonb,
      family: text,
      sku: text,
      by: text,
      levels: jsonb,
    }),
    workCentres: table<WorkCentreRow>('work_centres', { code: key(text), name: jsonb, rate: money }),
    models: table<ModelRow>('models', { id: key(text), sku: text }),
    modelVersions: table<ModelVersionRow>('model_versions', {
      id: key(ref),
      modelId: text,
      number: int,
      document: json,
      hash: text,
      publishedAt: now(),
      publishedBy: ref,
    }),
    registeredNumbers: table<RegisteredNumberRow>('registered_numbers', {
      modelId: key(text),
      key: key(text),
      number: int,
    }),
    quotes: table<QuoteRow>('quotes', {
      id: key(ref),
      number: text,
      title: text,
      customerId: ref,
      ownerId: ref,
      version: int,
      createdAt: now(),
      updatedAt: now(),
      updatedBy: ref,
    }),
    builds: table<BuildRow>('builds', {
      id: key(ref),
      modelVersionId: ref,
      quoteId: ref,
      revisionId: ref,
      context: jsonb,
      decisions: jsonb,
      outcome: jsonb,
      version: int,
      talkId: ref,
      letter: text,
      passed: jsonb,
      special: jsonb,
    }),
    savedBuilds: table<SavedBuildRow>('saved_builds', {
      id: key(ref),
      ownerId: ref,
      name: text,
      shared: bool,
      modelId: text,
      partNumber: text,
      decisions: jsonb,
      savedAt: now(),
    }),
    stars: table<StarRow>('stars', { userId: key(ref), savedId: key(ref) }),
    revisions: table<RevisionRow>('quote_revisions', {
      id: key(ref),
      quoteId: ref,
      number: int,
      state: text,
      priceList: text,
      customer: jsonb,
      validUntil: day,
      whole: jsonb,
      madeAt: now(),
      madeBy: ref,
      settledAt: instant,
      settledBy: ref,
      lost: jsonb,
      taxed: jsonb,
      lease: jsonb,
      resale: DataTypes.DECIMAL(9, 6),
    }),
    lines: table<LineRow>('quote_lines', {
      id: key(ref),
      revisionId: ref,
      position: int,
      buildId: ref,
      sku: text,
      quantity: int,
      hand: jsonb,
      locked: bool,
      optional: bool,
      term: jsonb,
      typedPrice: money,
      typedCost: money,
      frozen: jsonb,
      alternative: bool,
      rivals: ref,
      origin: ref,
      pricedOn: day,
      groupName: text,
      rates: jsonb,
      resale: money,
    }),
    revisionFacts: table<RevisionFactsRow>('revision_facts', {
      revisionId: key(ref),
      net: DataTypes.DECIMAL,
      lineCount: int,
      problemCount: int,
      sendable: bool,
      signing: text,
      stamp: DataTypes.BIGINT,
    }),
    taxRates: table<TaxRateRow>('tax_rates', {
      id: key(ref),
      country: text,
      class: text,
      rate: DataTypes.DECIMAL(9, 6),
    }),
    limits: table<LimitRow>('limits', {
      id: key(ref),
      role: text,
      family: text,
      by: text,
      target: DataTypes.DECIMAL(9, 6),
      limitAt: DataTypes.DECIMAL(9, 6),
      floor: DataTypes.DECIMAL(9, 6),
      signs: text,
      above: text,
    }),
    quoteSteps: table<QuoteStepRow>('quote_steps', {
      revisionId: key(ref),
      number: key(int),
      undone: bool,
      userId: ref,
      change: jsonb,
    }),
    policies: table<PolicyRow>('policies', {
      id: key(ref),
      role: text,
      name: jsonb,
      condition: text,
      signs: text,
    }),
    commissionPlans: table<CommissionPlanRow>('commission_plans', {
      role: key(text),
      baseRate: DataTypes.DECIMAL(9, 6),
      higherRate: DataTypes.DECIMAL(9, 6),
    }),
    signOffs: table<SignOffRow>('sign_offs', {
      id: key(ref),
      revisionId: ref,
      role: text,
      reason: text,
      figures: jsonb,
      askedBy: ref,
      askedAt: now(),
      state: text,
      answeredBy: ref,
      answeredAt: instant,
      comment: text,
      counter: jsonb,
      asked: jsonb,
      policies: { type: jsonb, defaultValue: [] },
    }),
    orders: table<OrderRow>('orders', {
      id: key(ref),
      number: text,
      quoteId: ref,
      revisionId: ref,
      currency: text,
      net: DataTypes.DECIMAL,
      promised: day,
      createdAt: now(),
      createdBy: ref,
    }),
    workOrders: table<WorkOrderRow>('work_orders', {
      id: key(ref),
      number: text,
      orderId: ref,
      lineId: ref,
      title: jsonb,
      partNumber: text,
      quantity: int,
      decisions: jsonb,
      materials: jsonb,
      operations: jsonb,
      due: day,
    }),
    audit: table<AuditRow>('audit_entries', {
      id: { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true },
      at: now(),
      userId: ref,
      action: text,
      subject: text,
      details: jsonb,
    }),
  };
}

export type Records = ReturnType<typeof defineRecords>;
