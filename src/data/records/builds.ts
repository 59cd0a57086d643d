/** Rows and tables of builds, and those that are kept. */
import type { Decision } from '../../core/engine';
import type { Values } from '../../core/model';
import type { PassedWarning, SpecialPart, WarningView } from '../../core/builds';
import type { CustomerClass } from './customers';
import { key, text, int, jsonb, ref, bool, now, type Define } from './columns';

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

/** Who a build is priced for where no quote says it: a customer, or nobody yet, and from which list. */
export interface PricedFor {
  customer: { id: string; class: CustomerClass; name: string } | null;
  priceList: string;
}

/**
 * A build, pinned to a version of its model and a context. It belongs to a revision of a quote, or to a
 * person; then it says itself for whom it is priced.
 */
export interface BuildRow {
  id: string;
  modelVersionId: string;
  quoteId: string | null;
  revisionId: string | null;
  ownerId: string | null;
  pricedFor: PricedFor | null;
  context: { date: string; values: Record<string, string> };
  /** From the needs answered. */
  asked: Decision[];
  decisions: Decision[];
  outcome: BuildOutcome;
  version: number;
  /** Variants of one another have the group and their letters. */
  variantGroup: string;
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
  asked: Decision[];
  decisions: Decision[];
  savedAt?: Date;
}

/** A kept build that a person starred. */
export interface StarRow {
  userId: string;
  savedId: string;
}

/** Its tables. */
export const buildsRecords = (table: Define) => ({
  builds: table<BuildRow>('builds', {
    id: key(ref),
    modelVersionId: ref,
    quoteId: ref,
    revisionId: ref,
    ownerId: ref,
    pricedFor: jsonb,
    context: jsonb,
    asked: jsonb,
    decisions: jsonb,
    outcome: jsonb,
    version: int,
    variantGroup: ref,
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
    asked: jsonb,
    decisions: jsonb,
    savedAt: now(),
  }),
  stars: table<StarRow>('stars', { userId: key(ref), savedId: key(ref) }),
});
