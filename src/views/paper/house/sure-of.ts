/** What would be lost, and what is done about it. */
export interface SureOf {
  is: 'leave' | 'drop';
  /** What it is called. */
  name: string;
  go: () => void;
}
