/** Who may answer a sign-off: who has the role, or the one above every other, and whoever stands in for them. */
import { granted } from '../../contract/permissions';
import { standsInFor } from '../../core/quotes';
import type { SignOffRow } from '../../data';
import { today } from '../kernel/clock';
import type { Person, Reference } from '../settings/reference-data';
import { may, type Actor } from './actor';

/**
 * Those in whose place somebody signs today. Whoever is put aside has nobody in their place, and a deputy sees
 * what is signed: costs and margins.
 */
export function inPlaceOf({ people, deputies }: Reference, actor: Actor): Person[] {
  if (!may(actor, 'costs')) return [];
  return standsInFor(deputies, actor.id, today()).flatMap((id) => {
    const person = people.get(id);
    return person && !person.aside && granted[person.role].includes('sign') ? [person] : [];
  });
}

/** Whether somebody signs today, in their own name or in the place of another. */
export const signs = (known: Reference, actor: Actor): boolean =>
  may(actor, 'sign') || inPlaceOf(known, actor).length > 0;

/** What is asked of somebody: by whom, and of which role. */
type Asked = Pick<SignOffRow, 'askedBy' | 'role'>;

const reaches = (person: Pick<Person, 'id' | 'role'>, { askedBy, role }: Asked): boolean =>
  person.id !== askedBy && (person.role === role || person.role === 'director');

/**
 * As whom somebody may answer what is asked: themselves where they may, else somebody in whose place they are.
 * Nobody answers what they asked for, nor in the place of another what they own. Null where they may not.
 */
export function answersAs(
  known: Reference,
  actor: Actor,
  row: Asked,
  ownerId: string,
): Pick<Person, 'id'> | null {
  if (actor.id === row.askedBy) return null;
  if (may(actor, 'sign') && reaches(actor, row)) return actor;
  if (actor.id === ownerId) return null;
  return inPlaceOf(known, actor).find((person) => reaches(person, row)) ?? null;
}
