/**
 * A rule from its sentence. What the sentence does not say (id, days and places in force, texts in other languages, the
 * rows of a table) stays as it was; so does the text of a formula that says what it said before.
 */
import { exact } from '../../exact';
import { written, type Expr } from '../../formula';
import type { Proposed, Rule } from '../../model';
import type { Frames } from './frames';
import { phrasesOf, type Phrases, type Shape } from './phrases';
import { saysTheSame } from './plain';
import { ConditionReader, type ConditionRead } from './read-condition';
import { withinWords } from './read-value';
import { Scanner, type Expected, type Readers, type Token } from './scanner';
import type { OptionWord, RowWord, Words } from './words';

/** Why a text is no sentence, and where. */
export interface SentenceProblem {
  code: 'sentence.unknown' | 'sentence.must' | 'sentence.empty';
  /** The character from which on it is not understood. */
  at: number;
  /** What stands there. */
  near: string;
  /** What could stand there instead. */
  expected: readonly Expected[];
}

/** A rule that was read, or why not; what was understood in either case. */
export type SentenceRead =
  | { ok: true; rule: Rule; tokens: readonly Token[]; language: Words['language'] }
  | { ok: false; problem: SentenceProblem; tokens: readonly Token[] };

/**
 * Reads a sentence in the first of the languages that it is in. `before` gives what it does not say.
 */
export function readSentence(text: string, languages: readonly Words[], before: Rule): SentenceRead {
  let failed: SentenceRead | undefined;
  for (const words of languages) {
    const read = new RuleReader(new Scanner(text), words, before).read();
    if (read.ok) return read;
    failed ??= read;
  }
  return failed ?? { ok: false, problem: problemOf(new Scanner(text)), tokens: [] };
}

/** What can stand at a place of a sentence, and from where on what is typed there is part of it. */
export function expectedAt(
  text: string,
  at: number,
  words: Words,
  before: Rule,
): { from: number; expected: readonly Expected[] } {
  const scanner = new Scanner(text.slice(0, at));
  new RuleReader(scanner, words, before).read();
  return { from: scanner.farthest, expected: scanner.expected };
}

function problemOf(scanner: Scanner, code: SentenceProblem['code'] = 'sentence.unknown'): SentenceProblem {
  const { text, farthest, expected } = scanner;
  if (text.trim() === '') return { code: 'sentence.empty', at: 0, near: '', expected };
  return { code, at: farthest, near: text.slice(farthest, farthest + 24).trim(), expected };
}

/** What a rule says beside its frame. */
type Body<T = Rule> = T extends Rule
  ? Omit<T, 'id' | 'reason' | 'help' | 'from' | 'until' | 'where' | 'severity'>
  : never;
/** What a rule is about: the way to it, and the row where it is one. */
interface Target {
  of: string;
  row?: RowWord;
}
type SayRule = Extract<Rule, { kind: 'say' }>;

class RuleReader {
  private readonly phrases: Phrases;
  private readonly reader: ConditionReader;
  private readonly frames: Frames;
  private mustMissing = false;

  constructor(
    private readonly scanner: Scanner,
    private readonly words: Words,
    private readonly before: Rule,
  ) {
    this.phrases = phrasesOf[words.language];
    this.reader = new ConditionReader(scanner, words);
    this.frames = [{ words }];
  }

  read(): SentenceRead {
    const { scanner, words } = this;
    const weight = this.weight();
    const rule = scanner.first<Rule>(
      () => this.says('warn', 'warning'),
      () => this.says('note', 'note'),
      ...this.bodies().map((body) => () => this.ended(body, weight)),
    );
    if (rule) return { ok: true, rule, tokens: scanner.tokens, language: words.language };
    const problem = problemOf(scanner, this.mustMissing ? 'sentence.must' : 'sentence.unknown');
    return { ok: false, problem, tokens: scanner.tokens };
  }

  private weight(): 'warning' | 'note' | undefined {
    if (this.scanner.words(this.phrases.warning)) return 'warning';
    return this.scanner.words(this.phrases.note) ? 'note' : undefined;
  }

  private bodies(): (() => Body | null)[] {
    return [
      () => this.limit('limitWhen'),
      () => this.limit('limit'),
      () => this.proposal('firmWhen', 'set', true),
      () => this.proposal('firm', 'set', true),
      () => this.proposal('advisedWhen', 'set', false),
      () => this.proposal('advised', 'set', false),
      () => this.proposal('usualWhen', 'usual'),
      () => this.proposal('usual', 'usual'),
      () => this.show(),
      () => this.table('allowed'),
      () => this.table('forbidden'),
      () => this.exclude(),
      () => this.require('requireWhen'),
      () => this.require('require'),
    ];
  }

  /** A rule with its reason, when the text ends behind it. */
  private ended(body: () => Body | null, weight: 'warning' | 'note' | undefined): Rule | null {
    const read = body();
    if (!read) return null;
    if (weight !== undefined && !['require', 'exclude', 'limit', 'table'].includes(read.kind)) return null;
    const reason = this.reason(this.phrases.because);
    if (reason === null) return null;
    const keptError =
      weight === undefined && 'severity' in this.before && this.before.severity === 'error' && weighed(read);
    return {
      ...this.frame(reason),
      ...read,
      ...(weight === undefined ? {} : { severity: weight }),
      ...(keptError ? { severity: 'error' } : {}),
    } as Rule;
  }

  private says(shape: 'warn' | 'note', severity: SayRule['severity']): Rule | null {
    const when = this.shape<{ when: Expr }>(shape, { when: this.when })?.when;
    if (!when) return null;
    const reason = this.reason(this.phrases.says);
    if (reason === null) return null;
    const old = this.before.kind === 'say' ? this.before.when : undefined;
    return { ...this.frame(reason), kind: 'say', when: kept(when, old), severity };
  }

  private frame(reason: string): Pick<Rule, 'id' | 'reason'> {
    const { id, reason: texts, help, from, until, where } = this.before;
    const { language } = this.words;
    const own = (texts[language] ?? '').trim() === reason ? texts[language] : reason;
    const { [language]: _, ...others } = texts;
    return {
      id,
      reason:
        own === undefined || (own === '' && texts[language] === undefined)
          ? others
          : { ...texts, [language]: own },
      ...(help === undefined ? {} : { help }),
      ...(from === undefined ? {} : { from }),
      ...(until === undefined ? {} : { until }),
      ...(where === undefined ? {} : { where }),
    };
  }

  /** The reason behind its word, to the end of the text; "" where nothing follows, null where something else does. */
  private reason(before: string): string | null {
    const { scanner } = this;
    if (scanner.isAtEnd()) return '';
    const colon = before.trim() === ':';
    if (colon ? !scanner.pattern(/:/, 'word') : !scanner.words(before)) return null;
    const from = scanner.behindSpace();
    const text = scanner.text.slice(from).trim();
    if (text !== '') scanner.token(from, from + text.length, 'reason');
    scanner.at = scanner.text.length;
    return text;
  }

  /** A shape of a rule with what is read at its places. */
  private shape<T extends object>(shape: Shape, readers: Readers<T>): Partial<T> | null {
    return this.scanner.shape<T>(this.phrases.rules[shape], readers);
  }

  private readonly when = (): Expr | null => this.reader.condition(this.frames)?.expr ?? null;

  private require(shape: 'require' | 'requireWhen'): Body | null {
    const read = this.shape<{ when: Expr; must: ConditionRead }>(shape, {
      when: this.when,
      must: () => this.reader.condition(this.frames),
    });
    if (!read?.must) return null;
    if (!read.must.must) {
      this.mustMissing = true;
      return null;
    }
    const old = this.before.kind === 'require' ? this.before : undefined;
    return { kind: 'require', ...keptWhen(read.when, old?.when), must: kept(read.must.expr, old?.must) };
  }

  private exclude(): Body | null {
    const first = this.shape<{ all: Expr }>('exclude', { all: this.when })?.all;
    if (!first) return null;
    const all = [first];
    for (;;) {
      const next = this.shape<{ all: Expr }>('excludeNext', { all: this.when })?.all;
      if (!next) break;
      all.push(next);
    }
    const old = this.before.kind === 'exclude' ? this.before.all : [];
    return { kind: 'exclude', all: all.map((each, index) => kept(each, old[index])) };
  }

  private limit(shape: 'limit' | 'limitWhen'): Body | null {
    const read = this.shape<{ when: Expr; of: string; bounds: { least?: Expr; most?: Expr } }>(shape, {
      when: this.when,
      of: () => this.rowId(),
      bounds: ({ of = '' }) => this.bounds(of),
    });
    if (!read?.bounds || read.of === undefined) return null;
    const { least, most } = read.bounds;
    const old = this.before.kind === 'limit' ? this.before : undefined;
    return {
      kind: 'limit',
      of: read.of,
      ...keptWhen(read.when, old?.when),
      ...(least ? { least: kept(least, old?.least) } : {}),
      ...(most ? { most: kept(most, old?.most) } : {}),
    };
  }

  private bounds(of: string): { least?: Expr; most?: Expr } | null {
    const unit = this.words.rowOf(of)?.unit ?? '';
    const { number, day } = this.phrases.bounds;
    const value = (): Expr | null => this.reader.value(this.frames, unit);
    const read = (shape: string) => (): { least?: Expr; most?: Expr } | null =>
      this.scanner.shape<{ least: Expr; most: Expr }>(shape, { least: value, most: value });
    return this.scanner.first(
      ...[number, day].flatMap(({ both, least, most }) => [both, least, most]).map(read),
    );
  }

  private show(): Body | null {
    const read = this.shape<{ of: string; when: Expr }>('show', { of: () => this.rowId(), when: this.when });
    const old = this.before.kind === 'show' ? this.before.when : undefined;
    return read?.when && read.of !== undefined
      ? { kind: 'show', of: read.of, when: kept(read.when, old) }
      : null;
  }

  private columns(): string[] | null {
    const first = this.rowId();
    if (first === null) return null;
    const found = [first];
    for (;;) {
      const next = this.scanner.attempt(() => this.scanner.pattern(/,/, 'word') && this.rowId());
      if (next === null) return found;
      found.push(next);
    }
  }

  private table(listed: 'allowed' | 'forbidden'): Body | null {
    const columns = this.shape<{ columns: string[] }>(listed, { columns: () => this.columns() })?.columns;
    if (!columns) return null;
    const old = this.before.kind === 'table' ? this.before : undefined;
    const left = [...(old?.of ?? [])] as (string | null)[];
    const places = columns.map((each) => {
      const place = left.indexOf(each);
      if (place >= 0) left[place] = null;
      return place;
    });
    // A column that is new lets everything pass.
    const rows = (old?.rows ?? []).map((row) => places.map((place) => row[place] ?? '-'));
    return { kind: 'table', of: columns, rows, listed };
  }

  private proposal(shape: Shape, kind: 'set' | 'usual', firm = false): Body | null {
    const read = this.shape<{ when: Expr; target: Target; value: { of: Proposed } }>(shape, {
      when: this.when,
      target: () => this.target(this.words),
      value: ({ target }) => this.value(target?.row),
    });
    if (!read?.target || !read.value) return null;
    const old = this.before.kind === kind ? this.before : undefined;
    const value = keptValue(read.value.of, old?.value);
    const rest = { of: read.target.of, ...keptWhen(read.when, old?.when), value };
    return kind === 'set' ? { kind, ...rest, firm } : { kind, ...rest };
  }

  /** The id of a row, or of something that is named by no words. */
  private rowId(): string | null {
    const { scanner } = this;
    return scanner.first(
      () => this.reader.row(this.frames)?.row.id ?? null,
      () => scanner.braced()?.source ?? null,
    );
  }

  private target(words: Words): Target | null {
    const { scanner } = this;
    return scanner.first<Target>(
      ...withinWords(words).flatMap(({ at: { inside, option, row } }) =>
        inside ? [() => this.inBuild(inside, option, row)] : [],
      ),
      () => this.quantityOf(words),
      () => this.optionOrRow(words),
      () => {
        const source = scanner.braced()?.source;
        return source === undefined ? null : { of: source };
      },
    );
  }

  /** "Loop of Gate parts", or a row. */
  private optionOrRow(words: Words): Target | null {
    const { scanner } = this;
    scanner.expect({ is: 'row', words });
    const option = (): { of: string } | null => {
      const found = scanner.name(withinWords(words), 'option');
      return found && { of: found.id };
    };
    return scanner.first<Target>(option, () => {
      const row = scanner.name(words.rows, 'row');
      return row && { of: row.id, row };
    });
  }

  private quantityOf(words: Words): Target | null {
    const names = words.properties.filter(({ id }) => id === 'quantity');
    const read = this.scanner.shape<{ name: string; of: string }>(this.phrases.property, {
      name: () => this.scanner.name(names, 'option')?.id ?? null,
      of: () => {
        const found = this.scanner.name(withinWords(words), 'option');
        return found && `${found.at.row.id}/${found.at.option.id}/quantity`;
      },
    });
    return read?.of === undefined ? null : { of: read.of };
  }

  private inBuild(inside: Words, option: OptionWord, row: OptionWord): Target | null {
    const { scanner } = this;
    const read = scanner.shape<{ inner: Target; option: string; index: string; row: string }>(
      this.phrases.inBuild,
      {
        inner: () => this.target(inside),
        option: () => scanner.name([option], 'option')?.id ?? null,
        index: () => scanner.pattern(/\d+/, 'value')?.[0] ?? null,
        row: () => scanner.name([row], 'row')?.id ?? null,
      },
    );
    if (!read?.inner || read.index === undefined) return null;
    return { ...read.inner, of: `${row.id}/${option.id}/${read.index}/${read.inner.of}` };
  }

  private value(row: RowWord | undefined): { of: Proposed } | null {
    const { scanner, phrases, reader } = this;
    const said = (word: string, of: Proposed) => () => (scanner.words(word) ? { of } : null);
    return scanner.first<{ of: Proposed }>(
      () => {
        if (!row || row.options.length === 0) return null;
        scanner.expect({ is: 'option', options: row.options, of: row });
        const option = scanner.name(row.options, 'option');
        return option && { of: option.id };
      },
      said(phrases.takenNot, false),
      said(phrases.taken, true),
      said(phrases.nothing, null),
      () => {
        const source = scanner.braced()?.source;
        return source !== undefined && this.isAtEndOfValue() ? { of: { formula: source } } : null;
      },
      () => {
        const expr = reader.value(this.frames, row?.unit);
        return expr && { of: asValue(expr) };
      },
    );
  }

  /** Whether no sum goes on here. */
  private isAtEndOfValue(): boolean {
    return !/^\s*[-−+*×/^]/.test(this.scanner.text.slice(this.scanner.at));
  }
}

/** A value that stands by itself, or a formula that gives one. */
function asValue(expr: Expr): Proposed {
  if (expr.kind === 'negate' && expr.of.kind === 'literal')
    return exact(String(expr.of.value)).negated().toFixed();
  if (expr.kind !== 'literal') return { formula: written(expr) };
  const { value } = expr;
  if (value === null || typeof value === 'boolean' || typeof value === 'string') return value;
  return 'toFixed' in value ? value.toFixed() : value.toString();
}

const weighed = ({ kind }: { kind: Rule['kind'] }): boolean =>
  kind === 'require' || kind === 'exclude' || kind === 'limit' || kind === 'table';

/** The text of a formula, as it was where it says the same. */
function kept(expr: Expr, before: string | undefined): string {
  const text = written(expr);
  return before !== undefined && saysTheSame(before, text) ? before : text;
}

const keptWhen = (when: Expr | undefined, before: string | undefined): { when?: string } =>
  when ? { when: kept(when, before) } : {};

function keptValue(value: Proposed, before: Proposed | undefined): Proposed {
  if (value === null || typeof value !== 'object') return value;
  if (before === null || before === undefined || typeof before !== 'object') return value;
  return saysTheSame(value.formula, before.formula) ? before : value;
}
