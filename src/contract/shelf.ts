/** The shelf: all that was made for quotes, builds and customers, byte for byte as it was. */
import { object, string } from 'yup';
import { endpoint, file, json } from './endpoint';
import type { DocumentView } from './outbox';
import { find, page } from './schema';

/** Which documents of the shelf are asked for: all, or those of a customer. */
export const shelfQuery = object({
  find,
  page,
  customer: string().uuid('input.badId').optional(),
});

/** A document of the shelf. */
export interface ShelvedView extends DocumentView {
  kind: string;
  customer: string;
  /** What it was made of: a quote with its revision, a build, a schedule. */
  quote: { id: string; number: string; revision: number | null } | null;
  build: { id: string; number: string } | null;
  schedule: { id: string; name: string } | null;
  madeBy: string;
  madeAt: string;
  /** In how many mails it went out. */
  sent: number;
  /** What it was made of is another by now. */
  movedOn: boolean;
}

/** Documents of the shelf, the newest first. */
export interface ShelfPage {
  rows: ShelvedView[];
  page: number;
  size: number;
  count: number;
}

/** Endpoints of the shelf. */
export const shelf = {
  'GET /shelf': endpoint({
    says: 'All that was made for quotes, builds and customers, the newest first.',
    who: 'person',
    query: shelfQuery,
    answers: json<ShelfPage>('ShelfPage'),
  }),
  'POST /shelf/{id}/again': endpoint({
    says: 'Makes a document anew, of what it is of as that stands by now. What was made before stays.',
    who: 'quotes',
    answers: json<ShelvedView>('ShelvedView'),
  }),
  'GET /shelf/{id}': endpoint({
    says: 'A document as it was made, byte for byte.',
    who: 'person',
    answers: file,
  }),
};
