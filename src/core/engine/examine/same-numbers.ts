/**
 * Builds that a part number does not tell apart though other goods belong to them, and builds whose number is
 * not read back.
 *
 * Of each value that a row can have a build is taken and its number written and read in every way in which it
 * can be read. Then another build of the same number is asked for: by another reading any, by its own one
 * with another value of the row, whatever else has to change.
 */
import { Exact } from '../../exact';
import { Reading, type CompiledModel, type PlainValue, type Values } from '../../model';
import { candidates, partNumber, registeredDecisions, sequenceKey, type Candidate } from '../../numbering';
import { always, not, type Lit, type Witness } from '../../solver';
import type { Encoding } from '../encoding/encoding';
import type { Context } from '../types';
import { goodsOf, rowsOfGoods } from './goods';
import { plainIn } from '../answers/plain-values';
import type { WitnessCache } from '../answers/witness-cache';
import { litsOfCandidate } from '../answers/read';
import type { Variable } from '../encoding/variables';

/** Two builds that differ in goods and have one part number. */
export interface SameNumber {
  kind: 'sameNumber' | 'unreadableNumber';
  /** The row that was changed. */
  row: string;
  number: string;
  example: Values;
  second?: Values;
  /** Rows in which the two differ. */
  rows?: string[];
  goods?: { at: string; first?: string; second?: string }[];
}

/** Literals in force, witnesses known, and what a person can decide. */
interface Means {
  encoding: Encoding;
  force: readonly Lit[];
  witnesses: WitnessCache;
  variables: readonly Variable[];
}

/** Builds looked at of a row, and readings of a number. */
const mostOfRow = 12;
const mostReadings = 12;

export function* sameNumbers(model: CompiledModel, context: Context, means: Means): Generator<SameNumber> {
  if (model.document.numbering.length === 0) return;
  const search = new Search(model, context, means);
  const goods = rowsOfGoods(model);
  const told = new Set<string>();
  for (const variable of means.variables) {
    const { id } = variable.row;
    if (told.has(id)) continue;
    for (const first of search.builds(variable)) {
      const found =
        search.unread(first) ??
        (goods.has(id) || !id.includes('/') ? search.second(first, variable) : undefined);
      if (!found) continue;
      told.add(id);
      yield { ...found, row: id };
      break;
    }
  }
}

interface Numbered {
  build: Witness;
  values: Values;
  number: string;
  key: string | null;
  /** Ways to read the number, with what each assumes. */
  readings: { candidate: Candidate; lits: readonly Lit[] }[];
}

class Search {
  private readonly known = new Map<string, Numbered['readings']>();
  /** Told once each. */
  private readonly unreadable = new Set<string>();

  constructor(
    private readonly model: CompiledModel,
    private readonly context: Context,
    private readonly means: Means,
  ) {}

  /** A build of each value of a row; of a number one, and those of its least and most value. */
  *builds({ row, codes, shown, hidden }: Variable): Generator<Numbered> {
    const { solver } = this.means.encoding;
    const wishes =
      codes.length > 0
        ? [...codes.map(({ wish }) => wish.lits), ...(hidden ? [hidden.lits] : [])]
        : [
            shown.lits,
            ...(row.kind === 'number'
              ? [
                  [...shown.lits, solver.atMost(row.number, 0)],
                  [...shown.lits, not(solver.atMost(row.number, row.entry.grid.count - 2))],
                ]
              : []),
          ];
    // Of several options each alone too: codes that are alike are met there.
    if (row.kind === 'many')
      wishes.unshift(
        ...row.taken
          .map((lit) => row.taken.map((each) => (each === lit ? each : not(each))))
          .filter((lits) =>
            codes.some(({ wish, value }) => value === true && wish.lits.every((lit) => lits.includes(lit))),
          ),
      );
    for (const lits of wishes.slice(0, mostOfRow)) {
      const build = this.ask(lits);
      if (build) yield this.numbered(build);
    }
  }

  /** Whether the number of a build is read as this build at all. */
  unread({ number, values, readings }: Numbered): Omit<SameNumber, 'row'> | undefined {
    if (
      readings.length >= mostReadings ||
      this.unreadable.has(number) ||
      readings.some(({ candidate }) => this.says(candidate, values))
    )
      return undefined;
    this.unreadable.add(number);
    return { kind: 'unreadableNumber', number, example: values };
  }

  second(first: Numbered, variable: Variable): Omit<SameNumber, 'row'> | undefined {
    for (const { candidate, lits } of first.readings) {
      const others = this.says(candidate, first.values) ? this.otherwise(variable, first.build) : [[]];
      for (const other of others) {
        const build = this.ask([...lits, ...other, ...this.words(first.build, variable)], first.build);
        if (!build) continue;
        const values = this.valuesOf(build);
        if (this.numberOf(values) !== first.number || sequenceKey(this.model, values) !== first.key) continue;
        const goods = differences(goodsOf(this.model, first.values), goodsOf(this.model, values));
        if (goods.length === 0) continue;
        const rows = Object.keys(values).filter(
          (id) => JSON.stringify(values[id]) !== JSON.stringify(first.values[id]),
        );
        if (!rows.includes(variable.row.id)) continue;
        return {
          kind: 'sameNumber',
          number: first.number,
          example: first.values,
          second: values,
          rows,
          goods,
        };
      }
    }
    return undefined;
  }

  /** The cases in which a row has another value than in a build. */
  private otherwise({ row, codes, shown, hidden }: Variable, build: Witness): (readonly Lit[])[] {
    const there = build.meets(shown.lits);
    if (!there) return [shown.lits];
    const away = hidden ? [hidden.lits] : [];
    if (row.kind === 'number') {
      const { solver } = this.means.encoding;
      const code = build.codes[row.number] as number;
      // Words are not told by numbers, but their being there is.
      if (row.entry.kind === 'length')
        return row.entry.grid.optional
          ? [
              [...shown.lits, code === 0 ? not(solver.atMost(row.number, 0)) : solver.atMost(row.number, 0)],
              ...away,
            ]
          : away;
      return [
        [...shown.lits, solver.atMost(row.number, code - 1)],
        [...shown.lits, not(solver.atMost(row.number, code))],
        ...away,
      ];
    }
    return [
      ...codes.filter(({ wish }) => build.meets(wish.lits)).map(({ otherwise }) => otherwise.lits),
      ...away,
    ];
  }

  /** What keeps the other texts as long as they are in a build. */
  private words(build: Witness, { row: except }: Variable): Lit[] {
    const { rows, solver } = this.means.encoding;
    return rows.flatMap((row) => {
      if (
        row === except ||
        row.kind !== 'number' ||
        row.entry.kind !== 'length' ||
        !(row.shown === always || build.holds(row.shown))
      )
        return [];
      const code = build.codes[row.number] as number;
      return [not(solver.atMost(row.number, code - 1)), solver.atMost(row.number, code)];
    });
  }

  /** Whether a reading of a number is true of a build. */
  private says({ decisions, figures, conditions, silent }: Candidate, values: Values): boolean {
    const reading = new Reading(this.model, values);
    return (
      silent.every(
        ({ of, options }) =>
          !options.some((id) => values[of] === id || (Array.isArray(values[of]) && values[of].includes(id))),
      ) &&
      conditions.every(({ path, met }) => (reading.holdsAt(path) === true) === met) &&
      figures.every(({ of, times, value }) => {
        const figure = reading.named(of);
        return (
          figure instanceof Exact && figure.times(times).toDecimalPlaces(0, Exact.ROUND_HALF_UP).eq(value)
        );
      }) &&
      decisions.every(({ on, value }) => {
        const [id = '', option] = on.split('.');
        const own = values[id];
        return option === undefined ? own === value : (Array.isArray(own) && own.includes(option)) === value;
      })
    );
  }

  private ask(lits: readonly Lit[], base: Witness | null = this.means.witnesses.base): Witness | null {
    const { encoding, force } = this.means;
    const answer = encoding.solver.ask({ assume: [...force, ...lits].filter((lit) => lit !== always), base });
    return answer.is === 'yes' ? answer.witness() : null;
  }

  private numbered(build: Witness): Numbered {
    const values = this.valuesOf(build);
    const number = this.numberOf(values);
    const key = sequenceKey(this.model, values);
    const same = `${number} ${key ?? ''}`;
    const readings = this.known.get(same) ?? this.readings(number, key);
    this.known.set(same, readings);
    return { build, values, number, key, readings };
  }

  private readings(number: string, key: string | null): Numbered['readings'] {
    const said = key === null ? [] : registeredDecisions(key);
    return candidates(this.model, number)
      .found.slice(0, mostReadings)
      .flatMap((candidate) => {
        const lits = litsOfCandidate(
          this.means.encoding,
          candidate,
          candidate.sequence === undefined ? [] : said,
        );
        return lits ? [{ candidate, lits }] : [];
      });
  }

  /** With what is registered behind it, which stands for one number. */
  private numberOf(values: Values): string {
    return partNumber(this.model, values, 1).text;
  }

  private valuesOf(build: Witness): Record<string, PlainValue> {
    const { encoding } = this.means;
    return {
      today: this.context.date,
      ...this.context.values,
      ...Object.fromEntries(encoding.rows.map((row) => [row.id, plainIn(row, build)])),
    };
  }
}

function differences(
  first: ReadonlyMap<string, string>,
  second: ReadonlyMap<string, string>,
): { at: string; first?: string; second?: string }[] {
  return [...new Set([...first.keys(), ...second.keys()])].flatMap((at) => {
    const [one, other] = [first.get(at), second.get(at)];
    return one === other
      ? []
      : [
          {
            at,
            ...(one === undefined ? {} : { first: one }),
            ...(other === undefined ? {} : { second: other }),
          },
        ];
  });
}
