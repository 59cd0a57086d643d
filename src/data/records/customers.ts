/** Rows and tables of customers, their addresses and people. */
import { key, text, int, ref, type Define } from './columns';

/** A class of customers, by which discounts are granted. */
export type CustomerClass = 'direct' | 'key' | 'dealer' | 'public';

/** A customer. */
export interface CustomerRow {
  id: string;
  number: string;
  name: string;
  class: CustomerClass;
  priceList: string;
  language: string;
  region: string;
  dealerId: string | null;
  /** Days from the invoice within which is paid. */
  paymentDays: number;
  /** Counts its changes. */
  version: number;
}

/** An address of a customer. */
export interface AddressRow {
  id: string;
  customerId: string;
  kind: 'invoice' | 'delivery';
  street: string;
  town: string;
  postcode: string;
  country: string;
  /** Of several of a kind, the first is the usual one. */
  position: number;
}

/** Somebody at a customer. */
export interface ContactRow {
  id: string;
  customerId: string;
  name: string;
  email: string;
  /** What they see to, such as purchasing; may be empty. */
  task: string;
  /** The first is the usual one. */
  position: number;
}

/** Its tables. */
export const customersRecords = (table: Define) => ({
  customers: table<CustomerRow>('customers', {
    id: key(ref),
    number: text,
    name: text,
    class: text,
    priceList: text,
    language: text,
    region: text,
    dealerId: ref,
    paymentDays: { type: int, defaultValue: 30 },
    version: { type: int, defaultValue: 1 },
  }),
  addresses: table<AddressRow>('addresses', {
    id: key(ref),
    customerId: ref,
    kind: text,
    street: text,
    town: text,
    postcode: text,
    country: text,
    position: { type: int, defaultValue: 0 },
  }),
  contacts: table<ContactRow>('contacts', {
    id: key(ref),
    customerId: ref,
    name: text,
    email: text,
    task: text,
    position: int,
  }),
});
