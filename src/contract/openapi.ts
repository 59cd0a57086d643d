/**
 * The contract as an OpenAPI 3.1 document (https://spec.openapis.org/oas/v3.1.0), made from the declarations
 * and their schemas, so that it says exactly what is enforced.
 */
import type { AnySchema, SchemaDescription, SchemaFieldDescription } from 'yup';
import type { Endpoint, Endpoints, Who } from './endpoint';
import { granted, roles, type Role } from './permissions';

/** A JSON Schema, as OpenAPI 3.1 takes it. */
type JsonSchema = Record<string, unknown>;
/** What is answered, by the names of its types; made from them by `npm run answers`. */
export type AnswerSchemas = Readonly<Record<string, object>>;

const whoText = (who: Who): string =>
  who === 'anyone' ? 'Anyone, without signing in.' : `For ${rolesOf(who).join(', ')}.`;

/** The roles that are let in. */
export const rolesOf = (who: Who): Role[] =>
  who === 'anyone' || who === 'person' ? [...roles] : roles.filter((role) => granted[role].includes(who));

/** The document for all rooms, with what they answer. */
export function openApi(rooms: Readonly<Record<string, Endpoints>>, answered: AnswerSchemas): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [room, endpoints] of Object.entries(rooms))
    for (const [name, declared] of Object.entries(endpoints)) {
      const [method = '', path = ''] = name.split(' ');
      paths[path] = { ...paths[path], [method.toLowerCase()]: operation(room, method, path, declared) };
    }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Iunctura',
      version: '1',
      description:
        'Sign in with POST /session and send the cookie that it sets. What changes something takes an Idempotency-Key and does it once however often it is sent. Money, rates and measures are decimals as text. A refusal is an object of failures, each with a code and a sentence.',
    },
    servers: [{ url: '/api' }],
    tags: Object.keys(rooms).map((name) => ({ name })),
    paths,
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'iunctura' } },
      schemas: { Refusal: refusal, ...answered },
    },
  };
}

const refusal: JsonSchema = {
  type: 'object',
  required: ['failures'],
  properties: {
    failures: {
      type: 'array',
      items: {
        type: 'object',
        required: ['code', 'message'],
        properties: {
          code: { type: 'string', description: 'Names the kind of refusal; it never changes.' },
          message: { type: 'string', description: "A sentence in the person's language." },
          field: { type: 'string', description: 'The field that it is about.' },
          params: { type: 'object' },
        },
      },
    },
  },
};

function operation(room: string, method: string, path: string, declared: Endpoint): object {
  const { says, who, input, takesFile, query, answers, most } = declared;
  const content = takesFile
    ? { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
    : input && { 'application/json': { schema: jsonSchema(described(input)) } };
  return {
    tags: [room],
    operationId: `${method} ${path}`
      .toLowerCase()
      .replace(/[^a-z]+/g, '-')
      .replace(/-$/, ''),
    summary: says,
    description: [whoText(who), ...(most ? [`At most ${String(Math.floor(most / 1024))} KiB.`] : [])].join(
      ' ',
    ),
    security: who === 'anyone' ? [] : [{ session: [] }],
    parameters: [
      ...[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
        name,
        in: 'path',
        required: true,
        schema: { type: 'string' },
      })),
      ...(query ? fieldsOf(described(query)) : []).map(([name, field]) => ({
        name,
        in: 'query',
        required: false,
        schema: jsonSchema(field),
      })),
    ],
    ...(content ? { requestBody: { required: true, content } } : {}),
    responses: {
      '200': {
        description: answers.of,
        content:
          answers.kind === 'file'
            ? { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
            : { 'application/json': { schema: answerSchema(answers.of) } },
      },
      default: {
        description: 'What is in the way, in sentences.',
        content: { 'application/json': { schema: { $ref: '#/components/schemas/Refusal' } } },
      },
    },
  };
}

/** An answer's schema, from the name of its type: one, a list of one, or one of several. */
export function answerSchema(of: string): JsonSchema {
  if (of.includes(' | ')) return { anyOf: of.split(' | ').map(answerSchema) };
  if (of.endsWith('[]')) return { type: 'array', items: answerSchema(of.slice(0, -2)) };
  if (of === 'null' || of === 'object') return { type: of };
  return { $ref: `#/components/schemas/${of}` };
}

const described = (schema: NonNullable<Endpoint['input']>): SchemaDescription =>
  (schema as AnySchema).describe();

const fieldsOf = (description: SchemaDescription): [string, SchemaFieldDescription][] =>
  'fields' in description ? Object.entries(description.fields as Record<string, SchemaFieldDescription>) : [];

/** A field as a JSON Schema: its kind, what it holds, and the tests that JSON Schema has words for. */
function jsonSchema(field: SchemaFieldDescription): JsonSchema {
  if (!('tests' in field)) return {};
  const [type] = typesOf[field.type] ?? [undefined];
  const rules: JsonSchema = Object.assign({}, ...field.tests.map(ruleOf(field.type))) as JsonSchema;
  const inner = 'innerType' in field ? (field.innerType as SchemaFieldDescription | undefined) : undefined;
  const fields = fieldsOf(field);
  const required = fields.flatMap(([name, each]) => (isRequired(each) ? [name] : []));
  return {
    ...(type === undefined ? {} : { type: field.nullable ? [type, 'null'] : type }),
    ...(field.oneOf.length > 0 ? { enum: field.oneOf } : {}),
    ...rules,
    ...(inner ? { items: jsonSchema(inner) } : {}),
    ...(field.type === 'object'
      ? {
          properties: Object.fromEntries(fields.map(([name, each]) => [name, jsonSchema(each)])),
          ...(required.length > 0 ? { required } : {}),
          additionalProperties: false,
        }
      : {}),
  };
}

const typesOf: Readonly<Record<string, readonly [string]>> = {
  string: ['string'],
  number: ['number'],
  boolean: ['boolean'],
  array: ['array'],
  object: ['object'],
};

const isRequired = (field: SchemaFieldDescription): boolean =>
  'optional' in field && !field.optional && field.default === undefined;

/** What a test of a schema says in JSON Schema; nothing where that has no word for it. */
const ruleOf =
  (type: string) =>
  ({ name, params = {} }: SchemaDescription['tests'][number]): JsonSchema => {
    const { min, max, more, regex } = params as { min?: number; max?: number; more?: number; regex?: RegExp };
    const [least, most] =
      type === 'string'
        ? ['minLength', 'maxLength']
        : type === 'array'
          ? ['minItems', 'maxItems']
          : ['minimum', 'maximum'];
    switch (name) {
      case 'min':
        return more === undefined ? { [least]: min } : { exclusiveMinimum: more };
      case 'max':
        return { [most]: max };
      case 'integer':
        return { type: 'integer' };
      case 'email':
        return { format: 'email' };
      case 'uuid':
        return { format: 'uuid' };
      case 'matches':
        return regex ? { pattern: regex.source } : {};
      default:
        return {};
    }
  };
