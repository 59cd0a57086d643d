import { codeOf, lettersOf, type CompiledModel, type Entry } from '../../model';
import { readExact } from '../../exact';
import { Day } from '../../formula';
import type { Decision } from '../types';

/** Why a decision cannot even be looked at. `params` fill the sentence. */
export interface DecisionProblem {
  on: string;
  code:
    | 'decision.unknown'
    | 'decision.notAnOption'
    | 'decision.notANumber'
    | 'decision.notADay'
    | 'decision.outOfRange'
    | 'decision.betweenSteps'
    | 'decision.tooLong'
    | 'decision.wrongType'
    | 'decision.twice';
  params: Record<string, string>;
}

/** Checks decisions from outside against the model: names, options, ranges and steps. */
export function checkDecisions(model: CompiledModel, decisions: readonly Decision[]): DecisionProblem[] {
  const seen = new Set<string>();
  return decisions.flatMap((decision) => {
    const twice = seen.has(decision.on);
    seen.add(decision.on);
    const problem = twice ? { code: 'decision.twice' as const, params: {} } : problemOf(model, decision);
    return problem ? [{ on: decision.on, ...problem }] : [];
  });
}

function problemOf(model: CompiledModel, { on, value }: Decision): Omit<DecisionProblem, 'on'> | null {
  const [id = '', option, more] = on.split('.');
  const slot = model.slots.get(id);
  const entry: Entry | undefined = slot === undefined ? undefined : model.entries[slot];
  const unknown = { code: 'decision.unknown' as const, params: { on } };
  const wrongType = { code: 'decision.wrongType' as const, params: { on } };
  if (!entry || more !== undefined) return unknown;
  switch (entry.kind) {
    case 'context':
    case 'calculation':
    case 'length':
      return unknown;
    case 'yesno':
      return option !== undefined ? unknown : typeof value === 'boolean' ? null : wrongType;
    case 'feature': {
      const ids = entry.feature.options.map((each) => each.id);
      if (entry.many) {
        if (option === undefined || !ids.includes(option)) return unknown;
        return typeof value === 'boolean' ? null : wrongType;
      }
      if (option !== undefined) return unknown;
      if (value === null) return entry.feature.least === 0 ? null : wrongType;
      return typeof value !== 'string'
        ? wrongType
        : ids.includes(value)
          ? null
          : { code: 'decision.notAnOption', params: { value } };
    }
    case 'number': {
      if (option !== undefined) return unknown;
      if (value === null && entry.grid.optional) return null;
      if (typeof value !== 'string') return wrongType;
      const number = readExact(value);
      const { least, most, step, unit } = entry.parameter;
      if (!number) return { code: 'decision.notANumber', params: { value } };
      if (number.lt(least) || number.gt(most))
        return { code: 'decision.outOfRange', params: { value, least, most, unit } };
      if (codeOf(entry.grid, value) !== null) return null;
      const below = number.minus(least).div(step).floor().times(step).plus(least);
      return {
        code: 'decision.betweenSteps',
        params: { value, step, unit, below: below.toString(), above: below.plus(step).toString() },
      };
    }
    case 'date': {
      if (option !== undefined) return unknown;
      if (value === null && entry.grid.optional) return null;
      if (typeof value !== 'string') return wrongType;
      const { least, most } = entry.parameter;
      if (!Day.read(value)) return { code: 'decision.notADay', params: { value } };
      return codeOf(entry.grid, value) === null
        ? { code: 'decision.outOfRange', params: { value, least, most, unit: '' } }
        : null;
    }
    case 'text': {
      if (option !== undefined) return unknown;
      if (value === null) return entry.parameter.optional ? null : wrongType;
      if (typeof value !== 'string' || value === '') return wrongType;
      const length = lettersOf(value);
      return length > entry.parameter.most
        ? { code: 'decision.tooLong', params: { length: String(length), most: String(entry.parameter.most) } }
        : null;
    }
  }
}
