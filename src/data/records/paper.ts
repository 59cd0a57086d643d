/** Rows and tables of texts and templates, and of what was chosen for a revision. */
import type { Composition, TemplateContent, TextContent } from '../../core/paper';
import { bool, int, json, key, now, ref, text, type Define } from './columns';

/** A version of a text or template; never changed. */
export interface PaperVersionRow<C> {
  code: string;
  version: number;
  content: C;
  /** Taken away with this version. */
  gone: boolean;
  madeBy: string | null;
  madeAt?: Date;
}

/** What was chosen for a revision. */
export interface PaperCompositionRow {
  revisionId: string;
  composition: Composition;
  version: number;
  changedBy: string;
  changedAt?: Date;
}

/** What was chosen for a customer last. */
export interface PaperHabitRow {
  customerId: string;
  composition: Composition;
  changedAt?: Date;
}

const versionColumns = () => ({
  code: key(text),
  version: key(int),
  content: json,
  gone: bool,
  madeBy: ref,
  madeAt: now(),
});

/** Its tables. */
export const paperRecords = (table: Define) => ({
  paperTexts: table<PaperVersionRow<TextContent>>('paper_texts', versionColumns()),
  paperTemplates: table<PaperVersionRow<TemplateContent>>('paper_templates', versionColumns()),
  paperCompositions: table<PaperCompositionRow>('paper_compositions', {
    revisionId: key(ref),
    composition: json,
    version: int,
    changedBy: ref,
    changedAt: now(),
  }),
  paperHabits: table<PaperHabitRow>('paper_habits', {
    customerId: key(ref),
    composition: json,
    changedAt: now(),
  }),
});
