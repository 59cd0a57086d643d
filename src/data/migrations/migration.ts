/** A step of the schema, applied once and in order, as one transaction. */
export interface Migration {
  name: string;
  up: string;
}
