/** Of which quote or build it is shown what went out. */
export interface SentOf {
  is: 'quotes' | 'builds';
  id: string;
}
