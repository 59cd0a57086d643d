/**
 * What sentences are made of beside the words of a model, in English and German. What is printed is what is read;
 * a reader takes commas and colons or leaves them.
 */
import type { Language } from './words';

/**
 * Where the verb stands: in a sentence of its own, behind "when", as something that must be, and as that with the
 * "must" said before.
 */
export type Order = 'main' | 'sub' | 'must' | 'bare';

/** What is said of something. */
export type Relation =
  | 'is'
  | 'isNot'
  | 'oneOf'
  | 'noneOf'
  | 'includes'
  | 'includesNot'
  | 'taken'
  | 'takenNot'
  | 'holds'
  | 'holdsNot'
  | 'given'
  | 'givenNot'
  | 'atLeast'
  | 'atMost'
  | 'moreThan'
  | 'lessThan'
  | 'between'
  // Of days.
  | 'notBefore'
  | 'notAfter'
  | 'before'
  | 'after';

/** What stands between the subject and what is said of it, and what stands behind. */
type Around = readonly [before: string, behind: string];

/**
 * The shapes of sentences. `{when}` and the like are places; the text around them is printed and read as it stands.
 * A place names the order of its condition behind a colon.
 */
export interface Phrases {
  relations: Readonly<Record<Relation, Readonly<Record<Order, Around>>>>;
  and: string;
  or: string;
  not: string;
  yes: string;
  no: string;
  nothing: string;
  taken: string;
  takenNot: string;
  /** Said before a condition whose verbs stand bare behind it. */
  must: string;
  /** Said in its place before one condition that says what must not be. */
  mayNot: string;
  /** Said in its place before conditions that have verbs of their own. */
  holdsThat: string;
  today: string;
  /** "the {name} of {of}". */
  property: string;
  length: string;
  number: string;
  least: string;
  greatest: string;
  sum: string;
  /** An option, or the builds it brings, in its row. */
  within: string;
  /** A row of one of the builds that an option brings. */
  inBuild: string;
  every: string;
  some: string;
  atLeastOf: string;
  atMostOf: string;
  exactlyOf: string;
  decimal: ',' | '.';
  quotes: readonly [open: string, close: string];
  because: string;
  says: string;
  warning: string;
  note: string;
  rules: Readonly<Record<Shape, string>>;
  /** Of numbers, and of days. */
  bounds: Readonly<Record<'number' | 'day', Readonly<Record<'least' | 'most' | 'both', string>>>>;
}

/** The shapes of the kinds of rules. */
export type Shape =
  | 'require'
  | 'requireWhen'
  | 'exclude'
  | 'excludeNext'
  | 'limit'
  | 'limitWhen'
  | 'allowed'
  | 'forbidden'
  | 'firm'
  | 'firmWhen'
  | 'advised'
  | 'advisedWhen'
  | 'usual'
  | 'usualWhen'
  | 'show'
  | 'warn'
  | 'note';

const englishBe = (said: string): Readonly<Record<Order, Around>> => ({
  main: [`is${said}`, ''],
  sub: [`is${said}`, ''],
  must: [`must${said.startsWith(' not') ? ' not' : ''} be${said.replace(/^ not/, '')}`, ''],
  bare: [`is${said}`, ''],
});

const english: Phrases = {
  relations: {
    is: englishBe(''),
    isNot: englishBe(' not'),
    oneOf: englishBe(' one of'),
    noneOf: englishBe(' none of'),
    includes: {
      main: ['includes', ''],
      sub: ['includes', ''],
      must: ['must include', ''],
      bare: ['includes', ''],
    },
    includesNot: {
      main: ['does not include', ''],
      sub: ['does not include', ''],
      must: ['must not include', ''],
      bare: ['does not include', ''],
    },
    taken: englishBe(' taken'),
    takenNot: englishBe(' not taken'),
    holds: { main: ['holds', ''], sub: ['holds', ''], must: ['must hold', ''], bare: ['holds', ''] },
    holdsNot: {
      main: ['does not hold', ''],
      sub: ['does not hold', ''],
      must: ['must not hold', ''],
      bare: ['does not hold', ''],
    },
    given: englishBe(' given'),
    givenNot: englishBe(' not given'),
    atLeast: englishBe(' at least'),
    atMost: englishBe(' at most'),
    moreThan: englishBe(' more than'),
    lessThan: englishBe(' less than'),
    between: englishBe(' between'),
    notBefore: {
      ...englishBe(' not before'),
      must: ['must not be before', ''],
    },
    notAfter: { ...englishBe(' not after'), must: ['must not be after', ''] },
    before: englishBe(' before'),
    after: englishBe(' after'),
  },
  and: 'and',
  or: 'or',
  not: 'not',
  yes: 'yes',
  no: 'no',
  nothing: 'nothing',
  taken: 'taken',
  takenNot: 'not taken',
  must: '',
  mayNot: '',
  holdsThat: '',
  today: 'today',
  property: 'the {name} of {of}',
  length: 'the length of {of}',
  number: 'the number of {of}',
  least: 'the least of',
  greatest: 'the greatest of',
  sum: 'the sum of',
  within: '{option} of {row}',
  inBuild: '{inner} in {option} {index} of {row}',
  every: 'for every {of}',
  some: 'for at least one {of}',
  atLeastOf: 'at least {count} of',
  atMostOf: 'at most {count} of',
  exactlyOf: 'exactly {count} of',
  decimal: '.',
  quotes: ['“', '”'],
  because: ', because: ',
  says: ': ',
  warning: 'As a warning: ',
  note: 'As a note: ',
  rules: {
    require: '{must:must}',
    requireWhen: 'When {when:sub}, {must:must}',
    exclude: 'It cannot be that {all:sub}',
    excludeNext: ' while {all:sub}',
    limit: '{of} is {bounds}',
    limitWhen: 'When {when:sub}, {of} is {bounds}',
    allowed: '{columns}: only these go together',
    forbidden: '{columns}: these do not go together',
    firm: '{target} follows as {value}',
    firmWhen: 'When {when:sub}, {target} follows as {value}',
    advised: '{target} is advised as {value}',
    advisedWhen: 'When {when:sub}, {target} is advised as {value}',
    usual: '{target} is usually {value}',
    usualWhen: 'When {when:sub}, {target} is usually {value}',
    show: '{of} appears only when {when:sub}',
    warn: 'Warn when {when:sub}',
    note: 'Note when {when:sub}',
  },
  bounds: {
    number: {
      least: 'at least {least}',
      most: 'at most {most}',
      both: 'at least {least} and at most {most}',
    },
    day: {
      least: 'not before {least}',
      most: 'not after {most}',
      both: 'not before {least} and not after {most}',
    },
  },
};

/** With "sein": "ist A", "A ist", "muss A sein", "A sein". */
const germanBe = (said: string): Readonly<Record<Order, Around>> => ({
  main: [`ist${said}`, ''],
  sub: [said.trim(), 'ist'],
  must: [`muss${said}`, 'sein'],
  bare: [said.trim(), 'sein'],
});

/** With "liegen", as days do. */
const germanLie = (said: string): Readonly<Record<Order, Around>> => ({
  main: [`liegt${said}`, ''],
  sub: [said.trim(), 'liegt'],
  must: [said.startsWith(' nicht') ? `darf${said}` : `muss${said}`, 'liegen'],
  bare: [said.trim(), 'liegen'],
});

const german: Phrases = {
  relations: {
    is: germanBe(''),
    isNot: {
      main: ['ist nicht', ''],
      sub: ['nicht', 'ist'],
      must: ['darf nicht', 'sein'],
      bare: ['nicht', 'sein'],
    },
    oneOf: germanBe(' eines von'),
    noneOf: germanBe(' keines von'),
    includes: {
      main: ['enthält', ''],
      sub: ['', 'enthält'],
      must: ['muss', 'enthalten'],
      bare: ['', 'enthalten'],
    },
    includesNot: {
      main: ['enthält nicht', ''],
      sub: ['nicht', 'enthält'],
      must: ['darf nicht', 'enthalten'],
      bare: ['nicht', 'enthalten'],
    },
    taken: germanBe(' gewählt'),
    takenNot: {
      main: ['ist nicht gewählt', ''],
      sub: ['nicht gewählt ist', ''],
      must: ['darf nicht gewählt sein', ''],
      bare: ['nicht gewählt sein', ''],
    },
    holds: { main: ['gilt', ''], sub: ['gilt', ''], must: ['muss gelten', ''], bare: ['gelten', ''] },
    holdsNot: {
      main: ['gilt nicht', ''],
      sub: ['nicht gilt', ''],
      must: ['darf nicht gelten', ''],
      bare: ['nicht gelten', ''],
    },
    given: germanBe(' angegeben'),
    givenNot: {
      main: ['ist nicht angegeben', ''],
      sub: ['nicht angegeben ist', ''],
      must: ['darf nicht angegeben sein', ''],
      bare: ['nicht angegeben sein', ''],
    },
    atLeast: germanBe(' mindestens'),
    atMost: germanBe(' höchstens'),
    moreThan: germanBe(' mehr als'),
    lessThan: germanBe(' weniger als'),
    between: {
      main: ['liegt zwischen', ''],
      sub: ['zwischen', 'liegt'],
      must: ['muss zwischen', 'liegen'],
      bare: ['zwischen', 'liegen'],
    },
    notBefore: germanLie(' nicht vor'),
    notAfter: germanLie(' nicht nach'),
    before: germanLie(' vor'),
    after: germanLie(' nach'),
  },
  and: 'und',
  or: 'oder',
  not: 'nicht',
  yes: 'ja',
  no: 'nein',
  nothing: 'nichts',
  taken: 'gewählt',
  takenNot: 'nicht gewählt',
  must: 'muss',
  mayNot: 'darf',
  holdsThat: 'gilt:',
  today: 'heute',
  property: '{name} von {of}',
  length: 'die Länge von {of}',
  number: 'die Anzahl von {of}',
  least: 'das kleinste von',
  greatest: 'das größte von',
  sum: 'die Summe von',
  within: '{option} aus {row}',
  inBuild: '{inner} in {option} {index} aus {row}',
  every: 'für jedes {of}',
  some: 'für mindestens ein {of}',
  atLeastOf: 'mindestens {count} von',
  atMostOf: 'höchstens {count} von',
  exactlyOf: 'genau {count} von',
  decimal: ',',
  quotes: ['„', '“'],
  because: ', denn: ',
  says: ': ',
  warning: 'Als Warnung: ',
  note: 'Als Hinweis: ',
  rules: {
    require: '{must:must}',
    requireWhen: 'Wenn {when:sub}, {must:bare}',
    exclude: 'Nie zugleich: {all:main}',
    excludeNext: '; {all:main}',
    limit: '{of} ist {bounds}',
    limitWhen: 'Wenn {when:sub}, ist {of} {bounds}',
    allowed: '{columns}: nur diese passen zusammen',
    forbidden: '{columns}: diese passen nicht zusammen',
    firm: 'Für {target} folgt: {value}',
    firmWhen: 'Wenn {when:sub}, folgt für {target}: {value}',
    advised: 'Für {target} wird empfohlen: {value}',
    advisedWhen: 'Wenn {when:sub}, wird für {target} empfohlen: {value}',
    usual: '{target} ist üblicherweise {value}',
    usualWhen: 'Wenn {when:sub}, ist {target} üblicherweise {value}',
    show: '{of} erscheint nur, wenn {when:sub}',
    warn: 'Warnen, wenn {when:sub}',
    note: 'Hinweisen, wenn {when:sub}',
  },
  bounds: {
    number: {
      least: 'mindestens {least}',
      most: 'höchstens {most}',
      both: 'mindestens {least} und höchstens {most}',
    },
    day: {
      least: 'nicht vor {least}',
      most: 'nicht nach {most}',
      both: 'nicht vor {least} und nicht nach {most}',
    },
  },
};

/** The phrases of each language. */
export const phrasesOf: Readonly<Record<Language, Phrases>> = { en: english, de: german };
