import { granted, type Permission, type Role } from '../../contract';
import type { Units } from '../../core/exact';
import type { Writing } from '../../core/quotes';
import type { Preferences } from '../../data';
import { fail, type Result } from '../kernel/failure';

/** The person who asks, as every service is told. */
export interface Actor {
  id: string;
  name: string;
  email: string;
  role: Role;
  /** Their language, with the forms that are usual where they are. */
  language: Writing;
  /** Units that they read, as long as they have not chosen others. */
  units: Units;
  /** The dealer's own customer record; set for dealers only. */
  dealerId: string | null;
  preferences: Preferences;
}

/** Whether the person has a permission. */
export const may = (actor: Actor, permission: Permission): boolean =>
  granted[actor.role].includes(permission);

/** Refuses with a sentence where the actor lacks a permission; null where all is well. */
export function refusal(actor: Actor, permission: Permission): Result<never> | null {
  return may(actor, permission)
    ? null
    : fail('forbidden', { code: 'refused.permission', params: { permission } });
}
