/** The fields of an input, one line each, for people who read what an endpoint takes. */
import type { Schema, SchemaFieldDescription } from 'yup';

/** A field by its way from the top, as in `rows[].sku`. */
export interface FieldLine {
  name: string;
  /** Its kind, and the words that it may be. */
  kind: string;
  optional: boolean;
}

/** All fields of a schema, those inside of others after them. */
export const fieldLines = (schema: Schema): FieldLine[] => inside(schema.describe(), '');

function inside(field: SchemaFieldDescription, way: string): FieldLine[] {
  if ('fields' in field)
    return Object.entries(field.fields).flatMap(([name, each]) =>
      lineOf(each, way === '' ? name : `${way}.${name}`),
    );
  const inner = 'innerType' in field ? (field.innerType as SchemaFieldDescription | undefined) : undefined;
  return inner ? inside(inner, `${way}[]`) : [];
}

function lineOf(field: SchemaFieldDescription, name: string): FieldLine[] {
  if (!('tests' in field)) return [{ name, kind: '', optional: true }];
  const { oneOf, optional, nullable, default: usual } = field;
  const kind = oneOf.length > 0 ? oneOf.map(String).join(' | ') : kindOf(field);
  return [
    { name, kind: nullable ? `${kind} | null` : kind, optional: optional || usual !== undefined },
    ...inside(field, name),
  ];
}

function kindOf(field: SchemaFieldDescription): string {
  const inner = 'innerType' in field ? (field.innerType as SchemaFieldDescription | undefined) : undefined;
  return field.type === 'array' ? `${inner?.type ?? ''}[]` : field.type;
}
