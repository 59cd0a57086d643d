/** From a part number back to the build it stands for. */
import { compileFormula } from '../formula';
import type { CompiledModel } from '../model';
import { candidates, partNumber, type Candidate, type Misread } from '../numbering';
import { always, type Lit } from '../solver';
import { Encoding, type Context } from './encoding';
import type { Decision, Engine } from './index';
import { plainIn } from './plain-values';

export type ReadBack =
  /** `decisions` give a build with just this number; `sequence` is the registered number in it. */
  | { is: 'build'; decisions: Decision[]; sequence?: number }
  /** The text cannot be read: where, and what was allowed there. */
  | ({ is: 'unreadable' } & Misread)
  /** Every segment can be read, but the rules forbid the build. */
  | { is: 'forbidden'; decisions: Decision[] };

/** Reads a part number back. `registered` tells what a registered number stands for, where the caller keeps a register. */
export function readNumber(engine: Engine, text: string, registered: (sequence: number) => Decision[] = () => []): ReadBack {
  const { model, context } = engine;
  const { found, misread } = candidates(model, text);
  if (found.length === 0) return { is: 'unreadable', ...misread };
  for (const candidate of found) {
    const said = candidate.sequence === undefined ? [] : registered(candidate.sequence);
    const decisions = buildOf(model, context, candidate, said);
    if (!decisions) continue;
    const { values, clashes } = engine.state({ decisions });
    const whole = clashes.length === 0 && partNumber(model, values, candidate.sequence).text === text;
    if (whole) return { is: 'build', decisions, ...(candidate.sequence === undefined ? {} : { sequence: candidate.sequence }) };
  }
  return { is: 'forbidden', decisions: (found[0] as Candidate).decisions };
}

/** Decisions that make what a candidate says true, beside one another; null where the rules forbid it. */
function buildOf(model: CompiledModel, context: Context, { decisions, conditions }: Candidate, said: readonly Decision[]): Decision[] | null {
  const encoding = new Encoding(model, context);
  const { solver } = encoding;
  const assume: Lit[] = [];
  const behind = new Set<string>();
  for (const source of conditions) {
    const compiled = compileFormula(source, model.scope);
    if (!compiled.ok) return null;
    assume.push(encoding.conditions.of(compiled.formula).yes);
    for (const name of compiled.formula.names) rowsBehind(model, name, behind);
  }
  for (const { on, value } of [...decisions, ...said]) {
    const lits = encoding.wanted(on, value);
    if (!lits) return null;
    assume.push(...lits);
  }
  // Of several builds with the same figures the one with the earlier options is meant: standard sizes stand before custom ones.
  const wishes = [...behind].flatMap((id) => {
    const row = encoding.row(id);
    return row?.kind === 'choice' ? row.latent : [];
  });
  const answer = solver.ask({ assume: assume.filter((lit) => lit !== always), wishes });
  if (answer.is !== 'yes') return null;
  const build = answer.witness();
  const own = new Set([...decisions, ...said].map((decision) => decision.on));
  const more = [...behind].flatMap((id): Decision[] => {
    const row = encoding.row(id);
    if (!row || own.has(id) || row.kind === 'many' || !(row.shown === always || build.holds(row.shown))) return [];
    const value = plainIn(row, build);
    return value === null || typeof value === 'object' ? [] : [{ on: id, value: value as string | boolean }];
  });
  return [...decisions, ...said, ...more];
}

function rowsBehind(model: CompiledModel, name: string, found: Set<string>): void {
  const entry = model.entries[model.slots.get(name) ?? -1];
  if (!entry || found.has(name)) return;
  if (entry.kind === 'calculation') for (const each of entry.formula.names) rowsBehind(model, each, found);
  else if (entry.kind !== 'context') found.add(name);
}
