import { connected } from '../../data';
import type { PersonInput } from '../../contract';
import type { Actor } from './actor';
import { done, type Result } from '../kernel/failure';

/** How a person reads the application: language, units, and what is folded away. */
export async function setPerson(
  actor: Actor,
  { language, ...preferences }: PersonInput,
): Promise<Result<null>> {
  await connected().records.users.update(
    { ...(language ? { language } : {}), preferences: { ...actor.preferences, ...preferences } },
    { where: { id: actor.id } },
  );
  return done(null);
}
