/** From a part number back to the build it stands for. */
import { compileFormula, type Formula } from '../../formula';
import { rowsRead, type CompiledModel } from '../../model';
import { candidates, partNumber, type Candidate, type Misread } from '../../numbering';
import { always, never, not, type Lit } from '../../solver';
import { Encoding } from '../encoding/encoding';
import type { Context, Decision } from '../types';
import type { Engine } from '../engine';
import { plainIn } from './plain-values';

/** What a part number was read as. */
export type ReadBack =
  /**
   * `decisions` give a build with just this number, once the texts that are to be typed are; `sequence` is
   * the registered number in it.
   */
  | { is: 'build'; decisions: Decision[]; typed: string[]; sequence?: number }
  /** The text cannot be read: where, and what was allowed there. */
  | ({ is: 'unreadable' } & Misread)
  /** Every segment can be read, but the rules forbid the build. */
  | { is: 'forbidden'; decisions: Decision[] };

/**
 * Reads a part number back. `registered` tells what a registered number stands for, where the caller keeps a
 * register.
 */
export function readNumber(
  engine: Engine,
  text: string,
  registered: (sequence: number) => Decision[] = () => [],
): ReadBack {
  const { model, context } = engine;
  const { found, misread } = candidates(model, text);
  if (found.length === 0) return { is: 'unreadable', ...misread };
  for (const candidate of found) {
    const said = candidate.sequence === undefined ? [] : registered(candidate.sequence);
    const build = buildOf(model, context, candidate, said);
    if (!build) continue;
    const { decisions, typed } = build;
    const { values, clashes } = engine.state({ decisions: [...decisions, ...typed] });
    const whole = clashes.length === 0 && partNumber(model, values, candidate.sequence).text === text;
    if (whole)
      return {
        is: 'build',
        decisions,
        typed: typed.map(({ on }) => on),
        ...(candidate.sequence === undefined ? {} : { sequence: candidate.sequence }),
      };
  }
  return { is: 'forbidden', decisions: (found[0] as Candidate).decisions };
}

/** Literals that hold where a build is what a candidate says; null where the model has no such values. */
export function litsOfCandidate(
  encoding: Encoding,
  { decisions, figures, conditions, silent }: Candidate,
  said: readonly Decision[],
): Lit[] | null {
  const { model } = encoding;
  const assume: Lit[] = [];
  for (const { path, met } of conditions) {
    const { yes } = encoding.conditions.of(model.formulas.get(path) as Formula);
    assume.push(met ? yes : not(yes));
  }
  for (const { of, options } of silent) {
    const row = encoding.row(of);
    if (row?.kind === 'choice' || row?.kind === 'many')
      assume.push(...options.map((id) => not(row.taken[row.ids.indexOf(id)] as Lit)));
  }
  for (const { of, times, value } of figures) {
    const compiled = compileFormula(
      `round half up(x * ${times}, 0) = ${value}`,
      new Map([['x', { slot: model.slots.get(of) ?? -1, type: { is: 'number', unit: 'any' } }]]),
    );
    if (!compiled.ok) return null;
    assume.push(encoding.conditions.of(compiled.formula).yes);
  }
  for (const { on, value } of [...decisions, ...said]) {
    const lits = encoding.wanted(on, value);
    if (!lits) return null;
    assume.push(...lits);
  }
  return assume.filter((lit) => lit !== always);
}

/**
 * Decisions that make what a candidate says true, beside one another, and stand-ins for texts that are to be
 * typed; null where the rules forbid it.
 */
function buildOf(
  model: CompiledModel,
  context: Context,
  candidate: Candidate,
  said: readonly Decision[],
): { decisions: Decision[]; typed: Decision[] } | null {
  const encoding = new Encoding(model, context);
  const { solver } = encoding;
  const { decisions, figures, conditions, silent } = candidate;
  const assume = litsOfCandidate(encoding, candidate, said);
  if (!assume) return null;
  const behind = new Set(
    conditions.flatMap(({ path }) => [...rowsRead(model, [model.formulas.get(path) as Formula])]),
  );
  for (const { of } of figures) rowsBehind(model, of, behind);
  // Of several builds with the same figures the one with the earlier options is meant: standard sizes stand
  // before custom ones.
  const wishes = [...behind].flatMap((id) => {
    const row = encoding.row(id);
    return row?.kind === 'choice' ? row.latent : [];
  });
  const answer = solver.ask({ assume, wishes });
  if (answer.is !== 'yes') return null;
  const build = answer.witness();
  const own = new Set([...decisions, ...said].map((decision) => decision.on));
  const [more, typed]: Decision[][] = [[], []];
  for (const { of, options } of silent) {
    const row = encoding.row(of);
    if (!row || !(row.shown === always || build.holds(row.shown))) continue;
    if (row.kind === 'choice' && row.none !== never && build.holds(row.none))
      more?.push({ on: of, value: null });
    if (row.kind === 'many') more?.push(...options.map((id) => ({ on: `${of}.${id}`, value: false })));
  }
  for (const id of behind) {
    const row = encoding.row(id);
    if (!row || own.has(id) || row.kind === 'many' || !(row.shown === always || build.holds(row.shown)))
      continue;
    const value = plainIn(row, build);
    if (typeof value === 'object' && value !== null) continue;
    // What a text says is for a person to type.
    (row.kind === 'number' && row.entry.kind === 'length' ? typed : more)?.push({
      on: id,
      value: value,
    });
  }
  return { decisions: [...decisions, ...said, ...(more ?? [])], typed: typed ?? [] };
}

function rowsBehind(model: CompiledModel, name: string, found: Set<string>): void {
  const entry = model.entries[model.slots.get(name) ?? -1];
  if (!entry || found.has(name)) return;
  if (entry.kind === 'calculation') for (const each of entry.formula.names) rowsBehind(model, each, found);
  else if (entry.kind !== 'context') found.add(name);
}
