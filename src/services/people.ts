import { connected } from '../data';
import type { Actor } from './actor';
import { done, type Result } from './failure';

/** The language in which a person reads the application. */
export async function setLanguage(actor: Actor, language: 'en' | 'de'): Promise<Result<null>> {
  await connected().records.users.update({ language }, { where: { id: actor.id } });
  return done(null);
}
