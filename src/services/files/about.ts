/** What can use files, and who sees it. A room whose things have files is told of here. */
import type { Actor } from '../access/actor';
import { findQuote } from '../quotes/quote-state';

/** What uses a file. */
export type About = 'house' | 'item' | 'model' | 'paper' | 'quote';

/** Who sees the files of what uses them: whoever sees that. */
export const aboutKinds: Readonly<Record<About, (actor: Actor, id: string) => Promise<boolean>>> = {
  // What the house shows of itself is on every paper that goes out.
  house: () => Promise.resolve(true),
  // Whoever is shown an item is shown its picture and data sheet.
  item: () => Promise.resolve(true),
  // Whoever is shown a model is shown the pictures of its options.
  model: () => Promise.resolve(true),
  // A mark stands on what goes out.
  paper: () => Promise.resolve(true),
  quote: async (actor, id) => (await findQuote(actor, id)) !== null,
};
