/** Customers: found, added, and what is known of them. */
import type { Texts } from '../core/model';
import { endpoint, json } from './endpoint';
import { emailText, exactly, findQuery, oneOf, said, type Sent } from './schema';
import { number, string } from 'yup';

/** An address, all of it. */
export const address = exactly({
  street: said(120, 'address.noStreet'),
  town: said(80, 'address.noTown'),
  postcode: said(16, 'address.noPostcode'),
  country: string()
    .trim()
    .matches(/^[A-Z]{2}$/, 'address.badCountry')
    .required('address.badCountry'),
});
/** What passes `address`. */
export type AddressInput = Sent<typeof address>;
/** An address, or none. */
export const optionalAddress = address.nullable().optional().default(undefined);

/** Somebody at a customer; `task` is what they see to. */
export const contactInput = exactly({
  name: said(120, 'newCustomer.noContact'),
  email: emailText.required('newCustomer.noEmail'),
  task: string().trim().max(80, 'input.tooLong').default(''),
});
/** What passes `contactInput`. */
export type ContactInput = Sent<typeof contactInput>;

const customerClasses = ['direct', 'key', 'dealer', 'public'] as const;

/** Without a delivery address everything goes to where the invoice goes. */
export const newCustomerInput = exactly({
  name: said(120, 'newCustomer.noName'),
  class: oneOf(customerClasses, 'input.badKind').required('input.required'),
  priceList: said(40, 'newCustomer.noList'),
  language: oneOf(['en', 'de'], 'input.badLanguage').required('input.badLanguage'),
  region: said(20, 'input.required'),
  contactName: said(120, 'newCustomer.noContact'),
  contactEmail: emailText.required('newCustomer.noEmail'),
  paymentDays: number()
    .transform((value: unknown, original: unknown) =>
      typeof original === 'string' ? (/^\s*\d{1,3}\s*$/.test(original) ? Number(original) : NaN) : value,
    )
    .typeError('newCustomer.days')
    .integer('newCustomer.days')
    .min(0, 'newCustomer.days')
    .max(365, 'newCustomer.days')
    .required('newCustomer.days'),
  invoice: address,
  delivery: optionalAddress,
});
/** What passes `newCustomerInput`. */
export type NewCustomerInput = Sent<typeof newCustomerInput>;

/** An address as it is kept; the country is a code of ISO 3166-1. */
export interface Address {
  kind: 'invoice' | 'delivery';
  street: string;
  town: string;
  postcode: string;
  country: string;
}

/** A customer as a list of findings shows it. */
export interface CustomerFound {
  id: string;
  number: string;
  name: string;
  town: string;
  class: string;
  currency: string;
}

/** An address that a customer is known to have. */
export interface KnownAddress extends Address {
  id: string;
}

/** Somebody at a customer, and what they see to. */
export interface KnownContact extends ContactInput {
  id: string;
}

/** What one may choose from for a new customer. */
export interface CustomerMeans {
  priceLists: { code: string; name: Texts; currency: string }[];
  classes: (typeof customerClasses)[number][];
  regions: string[];
  countries: string[];
  /** What is usual in each market: where nothing is, the list is null and the region empty. */
  usual: { countries: string[]; priceList: string | null; language: 'en' | 'de'; region: string }[];
}

/** Endpoints of customers. */
export const customers = {
  'GET /customers': endpoint({
    says: 'Customers by any part of their name, number or town; without words, the first of all.',
    who: 'person',
    query: findQuery,
    answers: json<CustomerFound[]>('CustomerFound[]'),
  }),
  'POST /customers': endpoint({
    says: 'Adds a customer.',
    who: 'quotes',
    input: newCustomerInput,
    answers: json<CustomerFound>('CustomerFound'),
  }),
  'GET /customers/means': endpoint({
    says: 'Price lists, classes, regions and countries that a new customer may have.',
    who: 'person',
    answers: json<CustomerMeans>('CustomerMeans'),
  }),
};
