/** Rows and tables of who signs in, and from where. */
import { DataTypes } from 'sequelize';
import type { LedgerColumn, Role } from '../../contract';
import { key, text, jsonb, instant, int, day, ref, money, now, type Define } from './columns';

/** Somebody who signs in. */
export interface UserRow {
  id: string;
  email: string;
  name: string;
  language: string;
  role: Role;
  /** None until they have set one. */
  passwordHash: string | null;
  dealerId: string | null;
  /** Net sales expected in a year, in EUR. */
  quota: string | null;
  preferences: Preferences;
  /** Since when they no longer sign in. */
  asideAt?: Date | null;
  version?: number;
}

/** A link by which somebody sets their password once, by the hash of its token. */
export interface PasswordLinkRow {
  tokenHash: string;
  userId: string;
  madeAt?: Date;
  expiresAt: Date;
  usedAt: Date | null;
}

/** Who signs in the place of somebody, from day to day. */
export interface DeputyRow {
  id: string;
  /** Who is stood in for. */
  userId: string;
  deputyId: string;
  starts: string;
  ends: string;
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
    asideAt: instant,
    version: { type: int, defaultValue: 1 },
  }),
  passwordLinks: table<PasswordLinkRow>('password_links', {
    tokenHash: key(text),
    userId: ref,
    madeAt: now(),
    expiresAt: instant,
    usedAt: instant,
  }),
  deputies: table<DeputyRow>('deputies', {
    id: key(ref),
    userId: ref,
    deputyId: ref,
    starts: day,
    ends: day,
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
