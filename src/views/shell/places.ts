/** The places of the application. */

/** A place of the application. */
export type Place = 'desk' | 'catalogue' | 'quotes' | 'orders';

/** The places, in the order of their keys. */
export const places: { id: Place; href: string }[] = [
  { id: 'desk', href: '/' },
  { id: 'catalogue', href: '/catalogue' },
  { id: 'quotes', href: '/quotes' },
  { id: 'orders', href: '/orders' },
];
