import { formulaProblem, readFormula, writeFormula } from '../../core/prices';
import type { ListHead } from '../../contract';
import { Field } from '../../ui';
import { useSpeech } from '../speech';

interface Props {
  value: string;
  lists: readonly ListHead[];
  label?: string;
  onText: (text: string) => void;
}

/** A formula of a price change, read as it is typed. */
export function FormulaField({ value, lists, label, onText }: Props) {
  const { t, language } = useSpeech();
  const read = readFormula(value, language, lists);
  const problem = read.ok ? formulaProblem(read.formula) : null;
  const error = !read.ok
    ? t('prices.notUnderstood', { part: read.part })
    : problem && problem !== 'empty'
      ? t(`changeFormula.${problem}`)
      : undefined;
  return (
    <Field
      label={label ?? t('prices.formula')}
      value={value}
      maxLength={200}
      spellCheck={false}
      error={error}
      hint={
        read.ok && read.formula.length > 0
          ? t('prices.understood', { formula: writeFormula(read.formula, language) })
          : t('prices.formulaHint')
      }
      onChange={(event) => onText(event.target.value)}
    />
  );
}

/** Whether a formula can be made as it is typed. */
export function isFormula(value: string, language: string, lists: readonly ListHead[]): boolean {
  const read = readFormula(value, language, lists);
  return read.ok && formulaProblem(read.formula) === null;
}
