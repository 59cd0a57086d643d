import { open, Reading, type CompiledModel, type CompiledRule, type Values } from '../../model';
import type { Encoding } from '../encoding/encoding';
import type { Message } from '../types';

/** The rules that warn or note. */
export const speakingRules = (encoding: Encoding): CompiledRule[] =>
  encoding.model.rules.filter(
    ({ rule, severity }) => (severity !== 'error' || rule.kind === 'say') && encoding.inForce(rule),
  );

/** Warnings and notes that hold for the settled values. */
export function messagesOf(model: CompiledModel, rules: readonly CompiledRule[], values: Values): Message[] {
  const reading = new Reading(model, values);
  return rules.flatMap(({ rule, severity, when, must, all, rows }) => {
    const is = (formula: Parameters<Reading['run']>[0]) => reading.run(formula);
    const applies = !when || is(when) === true;
    const listed = rows?.some((row) => row.every((cell) => is(cell) === true));
    const unsettledRow = rows?.some((row) => row.some((cell) => is(cell) === open));
    const broken =
      rule.kind === 'say'
        ? true
        : rule.kind === 'table'
          ? !unsettledRow && listed === (rule.listed === 'forbidden')
          : all
            ? all.every((each) => is(each) === true)
            : must.some((each) => is(each) !== true && is(each) !== open);
    return applies && broken
      ? [
          {
            rule: rule.id,
            severity: severity as Message['severity'],
            text: rule.reason,
            ...(rule.help === undefined ? {} : { help: rule.help }),
          },
        ]
      : [];
  });
}
