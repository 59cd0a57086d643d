/** Rows and tables of who signs in, and from where. */
import { DataTypes } from 'sequelize';
import type { LedgerColumn, Role } from '../../contract';
import { key, text, jsonb, instant, ref, money, now, type Define } from './columns';

/** Somebody who signs in. */
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

/** A session, by the hash of its token. */
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

/** Its tables. */
export const accessRecords = (table: Define) => ({
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
});
