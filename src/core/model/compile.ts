/** From a document to a compiled model: places declared, formulas compiled, references checked. */
import { formulaOf, type Expr, type FeelType, type Formula } from '../formula';
import type { ModelDocument, Texts } from './document';
import { beforeRepeated, drawnFormulas, repeats, type Drawing } from './drawing';
import type {
  CompiledModel,
  CompiledRule,
  Entry,
  NestedBuild,
  Pick,
  PlacedSection,
  Proposal,
  ShowRule,
} from './entries';
import { all } from './expressions';
import { withClasses } from './library';
import { Names } from './names';
import { anyNumber, Declaration, yesno, type Home } from './places';
import type { ModelProblem } from './problem';
import { placed, Rules } from './rules';
import { readsTyped } from './typed';

/** A compiled model, or what is wrong with its document. */
export type ModelResult = { ok: true; model: CompiledModel } | { ok: false; problems: ModelProblem[] };

/**
 * Compiles a document of this format that was checked before, such as one that is published; what is not of its shape
 * throws or compiles to nothing useful.
 */
export const compilePublished = (document: ModelDocument): ModelResult =>
  new Compiler(document, new Map(), []).run();

/** Entries at most, those of the builds inside among them. */
const mostEntries = 100_000;

/** A place and all rules that show what is in it. */
function shownWhere(place: Formula | undefined, shows: readonly ShowRule[]): Formula {
  const [first] = shows;
  if (!place && first && shows.length === 1) return first.when;
  return formulaOf(
    shows.reduce<Expr | undefined>((expr, { when }) => all(expr, when.expr), place?.expr) as Expr,
    yesno,
  );
}

class Compiler {
  private readonly problems: ModelProblem[] = [];
  private readonly document: ModelDocument;
  private readonly declaration: Declaration;
  private readonly names: Names;
  private readonly rules: Rules;
  private readonly formulas = new Map<string, Formula>();
  private readonly places = new Map<Home, Formula>();
  private readonly shown = new Map<string, ShowRule[]>();

  constructor(
    given: ModelDocument,
    /** Models that stand inside, compiled by themselves; null while they are, or where they are not sound. */
    private readonly inner: Map<string, CompiledModel | null>,
    private readonly within: readonly string[],
  ) {
    this.document = withClasses(given);
    for (const id of given.classes ?? [])
      if (!given.library?.classes?.some((each) => each.id === id))
        this.report('classes', 'model.unknownClass', { id });
    this.declaration = new Declaration(
      (path, code, params) => this.report(path, code, params),
      (id) =>
        this.within.includes(id)
          ? 'around'
          : (this.modelOf(id)?.document ??
            (this.document.library?.models?.some((each) => each.id === id) ? 'unsound' : 'unknown')),
    );
    this.names = new Names(this.declaration, (path, code, params, at) => this.report(path, code, params, at));
    this.rules = new Rules(this.names, (id) => this.shown.has(id));
  }

  run(): ModelResult {
    const { document } = this;
    this.texts(document, '');
    this.ruleIds();
    const home = this.declaration.top(document);
    if (this.declaration.drafts.length > mostEntries)
      this.report('', 'model.tooLarge', { most: mostEntries });
    else this.sections();
    if (this.problems.some((problem) => problem.code === 'model.tooLarge'))
      return { ok: false, problems: this.problems };
    const homes = everyHome(home);
    for (const each of homes) {
      this.calculations(each);
      this.shows(each);
    }
    const rules = homes.flatMap((each) => each.document.rules.flatMap((rule) => this.rules.rule(each, rule)));
    const proposals = this.rules.proposals(homes);
    this.parts(home);
    if (this.problems.length === 0) this.cycles();
    if (this.problems.length === 0) this.typedContent(rules, proposals);
    if (this.problems.length > 0) return { ok: false, problems: this.problems };
    const entries = this.declaration.drafts.map((_, slot) => this.entryOf(slot));
    return {
      ok: true,
      model: {
        document,
        entries,
        scope: home.scope,
        slots: this.declaration.slots,
        rules,
        proposals,
        picks: this.picks(),
        sections: sectionsOf(home),
        formulas: this.formulas,
      },
    };
  }

  private report(
    path: string,
    code: ModelProblem['code'],
    params: ModelProblem['params'] = {},
    at?: number,
  ): void {
    this.problems.push({ path, code, params, at });
  }

  /**
   * A model of the library, compiled by itself once. What is wrong with it is told at its place in the
   * library.
   */
  private modelOf(id: string): CompiledModel | null {
    const known = this.inner.get(id);
    if (known !== undefined) return known;
    const given = this.document.library?.models?.find((each) => each.id === id);
    if (!given || this.within.includes(id)) return null;
    const { library, languages } = this.document;
    for (const language of languages)
      if (!given.languages.includes(language))
        this.report(`library.models.${id}`, 'model.missingText', { language });
    const result = new Compiler(library ? { ...given, library } : given, this.inner, [
      ...this.within,
      this.document.id,
    ]).run();
    this.inner.set(id, result.ok ? result.model : null);
    if (!result.ok)
      for (const problem of result.problems)
        this.problems.push({ ...problem, path: `library.models.${id}.${problem.path}` });
    return result.ok ? result.model : null;
  }

  private ruleIds(): void {
    const { context, rules } = this.document;
    const ruleIds = new Set<string>();
    for (const rule of rules) {
      for (const [input, values] of Object.entries(rule.where ?? {})) {
        const known = context.find((each) => each.id === input)?.values.map((each) => each.id);
        const wrong = known ? values.find((value) => !known.includes(value)) : input;
        if (wrong !== undefined) this.report(`rules.${rule.id}.where`, 'model.unknownTarget', { id: wrong });
      }
      if (ruleIds.has(rule.id)) this.report(`rules.${rule.id}`, 'model.duplicateId', { id: rule.id });
      ruleIds.add(rule.id);
    }
  }

  private sections(): void {
    const placed = new Set<string>();
    for (const section of this.document.sections) {
      for (const row of section.rows) {
        const kind = this.declaration.drafts[this.declaration.slots.get(row) ?? -1]?.entry.kind;
        if (kind === undefined || kind === 'context' || kind === 'calculation')
          this.report(`sections.${section.id}`, 'model.unknownRow', { id: row });
        if (placed.has(row)) this.report(`sections.${section.id}`, 'model.rowTwice', { id: row });
        placed.add(row);
      }
    }
  }

  private calculations(home: Home): void {
    for (const draft of this.declaration.drafts) {
      const { entry, type } = draft;
      if (draft.home !== home || entry.kind !== 'calculation') continue;
      const { quantityOf, calculation } = entry;
      const path = quantityOf
        ? quantityOf.option === ''
          ? `parameters.${quantityOf.feature}.quantity`
          : `features.${quantityOf.feature}.${quantityOf.option}.quantity`
        : `calculations.${entry.id}`;
      const formula = this.names.formula(home, path, calculation.formula, type);
      if (formula) draft.entry = { ...entry, formula };
      if (formula && quantityOf && home.prefix === '') this.formulas.set(path, formula);
    }
  }

  /** No calculation may lead back to itself. */
  private cycles(): void {
    const { drafts, slots } = this.declaration;
    const state = new Map<number, 'begun' | 'done'>();
    const visit = (slot: number): void => {
      const entry = drafts[slot]?.entry;
      if (entry?.kind !== 'calculation' || state.get(slot) === 'done') return;
      if (state.get(slot) === 'begun') {
        this.report(`calculations.${entry.id}`, 'model.cycle', { id: entry.id });
        return;
      }
      state.set(slot, 'begun');
      for (const name of entry.formula.names) visit(slots.get(name) as number);
      state.set(slot, 'done');
    };
    drafts.forEach((_, slot) => visit(slot));
  }

  private shows(home: Home): void {
    for (const rule of home.document.rules) {
      if (rule.kind !== 'show') continue;
      const path = `rules.${home.prefix}${rule.id}`;
      const target = this.names.entry(home, rule.of);
      if (!target || target.kind === 'context' || target.kind === 'calculation') {
        this.report(path, 'model.unknownTarget', { id: rule.of });
        continue;
      }
      const when = this.names.condition(home, `${path}.when`, rule.when);
      // A row from further out is shown by its own place alone.
      if (when && target.id.startsWith(home.prefix)) {
        const at = target.kind === 'text' ? `${target.id}/length` : target.id;
        this.shown.set(at, [
          ...(this.shown.get(at) ?? []),
          { rule: placed(home, { ...rule, of: at }), when },
        ]);
      }
    }
  }

  /** The one formula by which everything in a place exists. */
  private placeOf(home: Home): Formula | undefined {
    if (!home.when) return undefined;
    const known = this.places.get(home) ?? formulaOf(home.when, yesno);
    this.places.set(home, known);
    return known;
  }

  private entryOf(slot: number): Entry {
    const { entry, home, under } = this.declaration.drafts[slot] as (typeof this.declaration.drafts)[number];
    if (entry.kind === 'context' || entry.kind === 'calculation' || entry.kind === 'text') return entry;
    const place = under ? formulaOf(all(home.when, under) as Expr, yesno) : this.placeOf(home);
    const shows = this.shown.get(entry.id);
    const shownWhen = shows ? shownWhere(place, shows) : place;
    return {
      ...entry,
      ...(shownWhen ? { shownWhen } : {}),
      ...(place ? { placeWhen: place } : {}),
      ...(shows ? { shownBy: shows } : {}),
    };
  }

  private typedContent(rules: readonly CompiledRule[], proposals: readonly Proposal[]): void {
    const { drafts } = this.declaration;
    if (!drafts.some((draft) => draft.entry.kind === 'text')) return;
    const reads = readsTyped(drafts.map((draft) => draft.entry));
    const told = new Set<string>();
    for (const [path, formula] of this.conditions(rules, proposals)) {
      if (told.has(path) || !reads(formula)) continue;
      told.add(path);
      this.report(path, 'formula.textContent');
    }
  }

  /** What decides over builds, with its path. */
  private *conditions(
    rules: readonly CompiledRule[],
    proposals: readonly Proposal[],
  ): Generator<[path: string, formula: Formula]> {
    for (const { rule, when, must, all: every, rows } of rules) {
      for (const formula of [...(when ? [when] : []), ...must, ...(every ?? []), ...(rows?.flat() ?? [])])
        yield [`rules.${rule.id}`, formula];
    }
    for (const { rule, when } of [...this.shown.values()].flat()) yield [`rules.${rule.id}`, when];
    for (const { rule, on, when, value } of proposals) {
      if (when) yield [`rules.${rule?.id ?? on}`, when];
      if (value !== null && typeof value === 'object') yield [rule ? `rules.${rule.id}` : on, value];
    }
    for (const [path, formula] of this.formulas) if (path.startsWith('numbering.')) yield [path, formula];
    for (const { entry } of this.declaration.drafts)
      if (entry.kind === 'calculation' && entry.quantityOf) yield [entry.id, entry.formula];
  }

  private picks(): Pick[] {
    const { picks } = this.declaration;
    return picks
      .filter(({ home }) => home.prefix === '')
      .map(({ home, ...pick }) => ({
        ...pick,
        builds: home.inside
          .filter((each) => each.on === pick.on)
          .map(({ home: inner, index }) => this.build(inner, index)),
      }));
  }

  private build(home: Home, index: number): NestedBuild {
    const { prefix, document, when } = home;
    const names = new Map(
      everyHome(home).flatMap((at) => {
        const ids = [...at.document.features, ...at.document.parameters, ...at.document.context].map(
          (each) => each.id,
        );
        return ids.flatMap((id): [string, string][] => {
          const full = at.scope.get(id)?.id;
          // Of what stands deeper, only what comes from further out has another name than its place says.
          return full === undefined || (at !== home && full.startsWith(prefix))
            ? []
            : [[at.prefix.slice(prefix.length) + id, full]];
        });
      }),
    );
    return {
      place: prefix.slice(0, -1),
      index,
      model: this.modelOf(document.id) as CompiledModel,
      names,
      when: formulaOf(when as Expr, yesno),
    };
  }

  private parts(home: Home): void {
    const { document } = this;
    const keep = (path: string, source: string | undefined, wanted: FeelType): void => {
      if (source === undefined) return;
      const formula = this.names.formula(home, path, source, wanted);
      if (formula) this.formulas.set(path, formula);
    };
    for (const parameter of document.parameters) {
      if (parameter.type !== 'number' || !parameter.standard) continue;
      const { of, values } = parameter.standard;
      const options = new Set(document.features.find(({ id }) => id === of)?.options.map(({ id }) => id));
      const wrong = options.size === 0 ? of : Object.values(values).find((option) => !options.has(option));
      if (wrong !== undefined)
        this.report(`parameters.${parameter.id}.standard`, 'model.unknownTarget', { id: wrong });
    }
    for (const part of document.prices) {
      keep(`prices.${part.id}.quantity`, part.quantity, anyNumber);
      keep(`prices.${part.id}.when`, part.when, yesno);
    }
    for (const part of document.surcharges) {
      keep(`surcharges.${part.id}.rate`, part.rate, anyNumber);
      keep(`surcharges.${part.id}.when`, part.when, yesno);
      for (const of of part.of)
        if (!document.prices.some((price) => price.id === of))
          this.report(`surcharges.${part.id}`, 'model.unknownPart', { id: of });
    }
    for (const { id, of, rate, when } of document.insidePrices ?? []) {
      keep(`insidePrices.${id}.rate`, rate, anyNumber);
      keep(`insidePrices.${id}.when`, when, yesno);
      for (const each of of) {
        const known =
          each.includes('/') ||
          document.prices.some((price) => price.id === each) ||
          this.declaration.picks.some((pick) => pick.home === home && pick.on === each);
        if (!known) this.report(`insidePrices.${id}`, 'model.unknownPart', { id: each });
      }
    }
    for (const row of document.materials) {
      keep(`materials.${row.id}.quantity`, row.quantity, anyNumber);
      keep(`materials.${row.id}.when`, row.when, yesno);
      keep(`materials.${row.id}.cut`, row.cut, anyNumber);
    }
    for (const row of document.operations) {
      keep(`operations.${row.id}.setUp`, row.setUp, anyNumber);
      keep(`operations.${row.id}.run`, row.run, anyNumber);
      keep(`operations.${row.id}.when`, row.when, yesno);
    }
    keep('extraDays', document.extraDays, anyNumber);
    keep('term.start', document.term?.start, { is: 'date' });
    keep('term.months', document.term?.months, anyNumber);
    document.numbering.forEach((segment, index) => {
      keep(`numbering.${String(index)}.when`, segment.when, yesno);
      if (segment.kind === 'marks')
        segment.of.forEach((mark, at) =>
          keep(`numbering.${String(index)}.of.${String(at)}`, mark.when, yesno),
        );
      const named =
        segment.kind === 'text' || segment.kind === 'check' || segment.kind === 'marks'
          ? []
          : segment.kind === 'sequence'
            ? segment.of
            : [segment.of];
      for (const id of named)
        if (!this.names.entry(home, id))
          this.report(`numbering.${String(index)}`, 'model.unknownTarget', { id });
    });
    if (document.drawing) this.drawing(home, document.drawing);
    for (const id of [document.figures.mass, document.figures.installation, ...document.figures.more]) {
      if (id !== undefined && this.names.entry(home, id)?.kind !== 'calculation')
        this.report('figures', 'model.unknownTarget', { id });
    }
  }

  private drawing(home: Home, drawing: Drawing): void {
    const [views, layers] = [
      new Set([...drawing.views.map((view) => view.id), 'space']),
      new Set(drawing.layers.map((layer) => layer.id)),
    ];
    const ids = new Set<string>();
    for (const { id, of, ...drawn } of [...drawing.shapes, ...drawing.dimensions]) {
      const path = `drawing.${id}`;
      if (ids.has(id)) this.report(path, 'model.duplicateId', { id });
      ids.add(id);
      if (of !== undefined && !this.names.entry(home, of))
        this.report(path, 'model.unknownTarget', { id: of });
      if ('layer' in drawn && !layers.has(drawn.layer))
        this.report(`${path}.layer`, 'model.unknownTarget', { id: drawn.layer });
      for (const view of 'view' in drawn ? [drawn.view] : (drawn.views ?? []))
        if (!views.has(view)) this.report(`${path}.views`, 'model.unknownTarget', { id: view });
      if (
        'pick' in drawn &&
        !this.declaration.picks.some((pick) => pick.home === home && pick.on === drawn.pick)
      )
        this.report(`${path}.pick`, 'model.unknownTarget', { id: drawn.pick });
    }
    const times = new Map(drawing.shapes.map((shape) => [`drawing.${shape.id}`, repeats(shape)]));
    for (const { path, source, wanted, repeated } of drawnFormulas(drawing)) {
      const type = wanted === 'number' ? anyNumber : yesno;
      const before = repeated ? beforeRepeated(times.get(path.split('.').slice(0, 2).join('.')) ?? '1') : '';
      const formula = this.names.formula(
        home,
        path,
        repeated ? `${before}${source})` : source,
        repeated ? { is: 'list', item: type } : type,
        before.length,
      );
      if (formula) this.formulas.set(path, formula);
    }
  }

  /** Every text is there in every language of the document. */
  private texts(value: unknown, path: string): void {
    if (Array.isArray(value)) {
      value.forEach((each, index) =>
        this.texts(each, join(path, (each as { id?: string } | null)?.id ?? String(index))),
      );
    } else if (value !== null && typeof value === 'object') {
      for (const [key, each] of Object.entries(value)) {
        if (textFields.has(key) && typeof each === 'object' && each !== null) {
          for (const language of this.document.languages) {
            if (!(each as Texts)[language]) this.report(join(path, key), 'model.missingText', { language });
          }
        } else this.texts(each, join(path, key));
      }
    }
  }
}

const textFields = new Set(['name', 'short', 'help', 'reason', 'text']);
const join = (path: string, part: string) => (path ? `${path}.${part}` : part);

/** Every place of a model, the outer ones first. */
const everyHome = (home: Home): Home[] => [home, ...home.inside.flatMap((each) => everyHome(each.home))];

/** Sections in the order of the sheet, those of a build inside behind the one its option is in. */
function sectionsOf({ document, prefix, inside, scope }: Home): PlacedSection[] {
  const quantities = quantitiesOf(document);
  const own = document.sections.map((section): PlacedSection => ({
    ...section,
    rows: section.rows
      .flatMap((row) => [
        scope.get(row)?.id ?? prefix + row,
        ...(quantities.get(row) ?? []).map((id) => prefix + id),
      ])
      .filter((id) => id.startsWith(prefix)),
    ...(prefix === '' ? {} : { place: prefix.slice(0, -1) }),
  }));
  return own.flatMap((section) => [
    section,
    ...inside
      .filter(({ on }) => section.rows.includes(on.split('.')[0] as string))
      .flatMap((each) => sectionsOf(each.home)),
  ]);
}

/** Quantities that a person may change, by feature or yes/no parameter. */
function quantitiesOf({ features, parameters }: ModelDocument): Map<string, string[]> {
  const found = new Map<string, string[]>();
  const add = (row: string, id: string, quantity: unknown): void => {
    if (typeof quantity === 'object' && !(quantity as { fixed?: boolean }).fixed)
      found.set(row, [...(found.get(row) ?? []), id]);
  };
  for (const { id, options } of features)
    for (const option of options)
      if (option.quantity !== undefined) add(id, `${id}/${option.id}/quantity`, option.quantity);
  for (const parameter of parameters)
    if (parameter.type === 'yesno' && parameter.quantity !== undefined)
      add(parameter.id, `${parameter.id}/quantity`, parameter.quantity);
  return found;
}
