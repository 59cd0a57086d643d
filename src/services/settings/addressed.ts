/** Where what a customer buys goes, and where its invoice goes. */
import type { CustomerCopy } from '../../data';

/** The country of the delivery address, else of the first there is. */
export const deliveredTo = ({ addresses }: CustomerCopy): string =>
  (addresses.find(({ kind }) => kind === 'delivery') ?? addresses[0])?.country ?? '';

/** The country that the invoice goes to, else of the first address there is. */
export const invoicedIn = ({ addresses }: Pick<CustomerCopy, 'addresses'>): string =>
  (addresses.find(({ kind }) => kind === 'invoice') ?? addresses[0])?.country ?? '';
