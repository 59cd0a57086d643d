import type { Preferences, Role } from '../data';
import { fail, type Result } from './failure';

/** The person who asks, as every service is told. */
export interface Actor {
  id: string;
  name: string;
  email: string;
  role: Role;
  language: 'en' | 'de';
  /** The dealer's own customer record; set for dealers only. */
  dealerId: string | null;
  preferences: Preferences;
}

export type Permission =
  | 'quotes'
  | 'accept'
  | 'costs'
  | 'sign'
  | 'workOrders'
  | 'orders'
  | 'special'
  | 'rates'
  | 'discount'
  | 'resale';

const granted: Record<Role, readonly Permission[]> = {
  engineer: ['quotes', 'discount', 'accept', 'costs', 'orders', 'workOrders', 'special', 'rates'],
  manager: ['quotes', 'discount', 'accept', 'costs', 'sign', 'orders', 'workOrders', 'special', 'rates'],
  director: ['quotes', 'discount', 'accept', 'costs', 'sign', 'orders', 'workOrders', 'special', 'rates'],
  modeller: ['costs', 'orders', 'workOrders'],
  dealer: ['quotes', 'resale'],
};

export const may = (actor: Actor, permission: Permission): boolean =>
  granted[actor.role].includes(permission);

/** Refuses with a sentence where the actor lacks a permission; null where all is well. */
export function refusal(actor: Actor, permission: Permission): Result<never> | null {
  return may(actor, permission)
    ? null
    : fail('forbidden', { code: 'refused.permission', params: { permission } });
}
