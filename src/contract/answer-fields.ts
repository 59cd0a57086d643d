/** What is answered, in lines for people who read what they get: the types and their fields. */
import answered from './answers.json';

/** A JSON Schema of `answers.json`. */
interface Schema {
  $ref?: string;
  description?: string;
  type?: string;
  const?: string | number | boolean;
  enum?: (string | number)[];
  anyOf?: Schema[];
  items?: Schema | false;
  prefixItems?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: Schema | false;
}

/** A piece of a type as it is written: a word, or the name of a type that is described elsewhere. */
export type TypePiece = { text: string } | { type: string };

/** A field by its way from the top of its type, as in `lines[].price`. */
export interface AnswerField {
  name: string;
  kind: TypePiece[];
  optional: boolean;
  /** What it means; empty where its name says it. */
  says: string;
}

/** A type that is answered, or is part of one that is. */
export interface AnswerType {
  name: string;
  says: string;
  /** What it is, where it has no fields. */
  kind: TypePiece[];
  fields: AnswerField[];
}

/** All types there are, by their names. */
export const answerTypes = (): AnswerType[] =>
  Object.entries(answered as unknown as Record<string, Schema>).map(([name, schema]) => {
    const fields = fieldsOf(schema, '');
    return {
      name,
      says: schema.description ?? '',
      kind: fields.length > 0 ? [] : kindOf(schema),
      fields,
    };
  });

/** The name of an answer as it is declared, in pieces: those between the names of types are words. */
export const answerPieces = (of: string): TypePiece[] =>
  of
    .split(/(\w+)/)
    .filter((piece) => piece !== '')
    .map((piece) => (piece in answered ? { type: piece } : { text: piece }));

/** Fields, each followed by those inside of it, where what it holds has no name of its own. */
function fieldsOf(schema: Schema, way: string): AnswerField[] {
  if (schema.items && !schema.items.$ref) return fieldsOf(schema.items, `${way}[]`);
  return Object.entries(schema.properties ?? {}).flatMap(([field, each]) => {
    const name = way === '' ? field : `${way}.${field}`;
    const optional = !(schema.required ?? []).includes(field);
    return [{ name, kind: kindOf(each), optional, says: each.description ?? '' }, ...fieldsOf(each, name)];
  });
}

function kindOf(schema: Schema): TypePiece[] {
  if (schema.$ref) return [{ type: schema.$ref.split('/').at(-1) ?? '' }];
  if (schema.const !== undefined) return [{ text: String(schema.const) }];
  if (schema.enum) return [{ text: schema.enum.map(String).join(' | ') }];
  if (schema.anyOf) return between(schema.anyOf.map(kindOf), ' | ');
  if (schema.prefixItems)
    return [{ text: '[' }, ...between(schema.prefixItems.map(kindOf), ', '), { text: ']' }];
  if (schema.items) return [...kindOf(schema.items), { text: '[]' }];
  if (schema.additionalProperties) return [{ text: 'by name: ' }, ...kindOf(schema.additionalProperties)];
  return [{ text: schema.type ?? 'anything' }];
}

const between = (kinds: TypePiece[][], text: string): TypePiece[] =>
  kinds.flatMap((kind, at) => (at === 0 ? kind : [{ text }, ...kind]));
