/**
 * Writes what endpoints answer as JSON Schemas (2020-12), read from the types that the contract names, so that
 * the document for programs describes them and the tests hold every answer against them. It asks the compiler,
 * which knows what a type that is worked out from another comes to.
 *
 * `node scripts/answers.mjs` writes the file, `--check` says whether it is as the types are.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import * as prettier from 'prettier';
import ts from 'typescript';

const top = fileURLToPath(new URL('..', import.meta.url));
const folder = `${top}src/contract/`;
const target = `${folder}answers.json`;

const config = ts.parseJsonConfigFileContent(
  ts.readConfigFile(`${top}tsconfig.json`, ts.sys.readFile).config,
  ts.sys,
  top,
);
const program = ts.createProgram(
  readdirSync(folder)
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
    .map((name) => `${folder}${name}`),
  { ...config.options, noEmit: true },
);
const checker = program.getTypeChecker();
const sources = program.getRootFileNames().map((name) => program.getSourceFile(name));

/** Types with a name of their own, by that name; a name stands for one type only. */
const named = new Map();
const schemas = {};

const isOurs = (symbol) =>
  symbol?.declarations?.some((each) => each.getSourceFile().fileName.startsWith(`${top}src/`)) ?? false;

/** The name that a type is described under: that of its declaration, where it has one and takes no others. */
function nameOf(type) {
  if (type.aliasSymbol && isOurs(type.aliasSymbol) && !type.aliasTypeArguments) return type.aliasSymbol.name;
  const { symbol } = type;
  const declared = symbol && (symbol.flags & ts.SymbolFlags.Interface) !== 0 && isOurs(symbol);
  return declared && !type.typeArguments?.length ? symbol.name : undefined;
}

const saying = (symbol, schema) => {
  const description = ts.displayPartsToString(symbol?.getDocumentationComment(checker)).replace(/\s+/g, ' ');
  return description === '' ? schema : { description, ...schema };
};

/** A type where it is used: a reference to one with a name, or what it is. */
function schemaOf(type) {
  const name = nameOf(type);
  if (name === undefined) return shapeOf(type);
  const before = named.get(name);
  if (before !== undefined && before !== type) throw new Error(`Two types are called ${name}.`);
  if (before === undefined) {
    named.set(name, type);
    schemas[name] = saying(type.aliasSymbol ?? type.symbol, shapeOf(type));
  }
  return { $ref: `#/components/schemas/${name}` };
}

function shapeOf(type) {
  const { flags } = type;
  if (flags & (ts.TypeFlags.Any | ts.TypeFlags.Unknown)) return {};
  if (flags & ts.TypeFlags.StringLiteral) return { const: type.value };
  if (flags & ts.TypeFlags.NumberLiteral) return { const: type.value };
  if (flags & ts.TypeFlags.BooleanLiteral) return { const: type.intrinsicName === 'true' };
  if (flags & (ts.TypeFlags.String | ts.TypeFlags.TemplateLiteral)) return { type: 'string' };
  if (flags & ts.TypeFlags.Number) return { type: 'number' };
  if (flags & ts.TypeFlags.Boolean) return { type: 'boolean' };
  if (flags & ts.TypeFlags.Null) return { type: 'null' };
  if (type.isUnion()) return unionOf(type.types);
  if (checker.isTupleType(type)) return tupleOf(type);
  if (checker.isArrayType(type)) return { type: 'array', items: schemaOf(checker.getTypeArguments(type)[0]) };
  if (flags & (ts.TypeFlags.Object | ts.TypeFlags.Intersection)) return objectOf(type);
  throw new Error(`What does not travel as JSON: ${checker.typeToString(type)}`);
}

/** Words to choose from become one list; what may be absent is said by the object that it is in. */
function unionOf(types) {
  const given = types.filter(({ flags }) => !(flags & ts.TypeFlags.Undefined));
  const isConstant = (schema) => 'const' in schema && typeof schema.const !== 'boolean';
  const isYesNo = given.filter(({ flags }) => flags & ts.TypeFlags.BooleanLiteral).length === 2;
  const parts = given
    .filter(({ flags }) => !(isYesNo && flags & ts.TypeFlags.BooleanLiteral))
    .map((each) => schemaOf(each));
  const words = parts.filter(isConstant).map((each) => each.const);
  const rest = parts.filter((each) => !isConstant(each));
  const all = [
    ...(words.length > 0 ? [words.length === 1 ? { const: words[0] } : { enum: words }] : []),
    ...(isYesNo ? [{ type: 'boolean' }] : []),
    ...rest,
  ];
  return all.length === 1 ? all[0] : { anyOf: all };
}

const tupleOf = (type) => {
  const items = checker.getTypeArguments(type).map((each) => schemaOf(each));
  const { minLength, hasRestElement } = type.target;
  if (hasRestElement)
    return { type: 'array', prefixItems: items.slice(0, -1), items: items.at(-1), minItems: minLength };
  return { type: 'array', prefixItems: items, items: false, minItems: minLength };
};

function objectOf(type) {
  const properties = {};
  const required = [];
  for (const property of checker.getPropertiesOfType(type)) {
    const value = checker.getTypeOfSymbol(property);
    properties[property.name] = saying(property, schemaOf(value));
    const mayLack = property.flags & ts.SymbolFlags.Optional || checker.typeToString(value) === 'undefined';
    if (!mayLack) required.push(property.name);
  }
  const others = checker.getIndexInfosOfType(type).find(({ keyType }) => keyType.flags & ts.TypeFlags.String);
  return {
    type: 'object',
    ...(Object.keys(properties).length > 0 ? { properties } : {}),
    ...(required.length > 0 ? { required } : {}),
    additionalProperties: others ? schemaOf(others.type) : false,
  };
}

/** What a declaration calls its answer has to be what the compiler knows. */
function describeAnswers(node) {
  if (ts.isCallExpression(node) && node.expression.getText() === 'json' && node.typeArguments) {
    const [type] = node.typeArguments;
    const [called] = node.arguments;
    if (type.getText() !== called.text)
      throw new Error(
        `${basename(node.getSourceFile().fileName)} answers ${type.getText()}, not ${called.text}`,
      );
    const answered = checker.getTypeFromTypeNode(type);
    if (type.getText() !== 'object') schemaOf(answered);
  }
  if (ts.isTypeReferenceNode(node) && node.typeName.getText() === 'Answers' && node.typeArguments)
    for (const each of node.typeArguments) {
      const type = checker.getTypeFromTypeNode(each);
      if (!(type.flags & ts.TypeFlags.TypeParameter) && each.getText() !== 'FileAnswer') schemaOf(type);
    }
  ts.forEachChild(node, describeAnswers);
}
for (const source of sources.filter(({ fileName }) => dirname(fileName) === dirname(target)))
  if (basename(source.fileName) !== 'endpoint.ts') describeAnswers(source);

const text = await prettier.format(
  JSON.stringify(Object.fromEntries(Object.entries(schemas).sort(([a], [b]) => (a < b ? -1 : 1)))),
  { ...(await prettier.resolveConfig(target)), parser: 'json' },
);
if (!process.argv.includes('--check')) writeFileSync(target, text);
else if (readFileSync(target, 'utf8') !== text) {
  console.error('src/contract/answers.json is not as the types are: run npm run answers.');
  process.exit(1);
}
