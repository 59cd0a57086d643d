/** What is tried out, kept as a test: the decisions made, and what came of them. */
import type { ModelDocument, ModelTest } from '../../core/model';
import type { Edit } from '../../core/modelling';
import type { Tried } from '../../workers/draft/computation';

/** The edit that keeps it, and the id of the test. */
export function keptTest(
  document: ModelDocument,
  { decisions, picture, context }: NonNullable<Tried['seen']>,
): { edit: Edit; id: string } {
  const taken = new Set((document.tests ?? []).map(({ id }) => id));
  let count = taken.size + 1;
  while (taken.has(`test${String(count)}`)) count++;
  const id = `test${String(count)}`;
  const { state, number } = picture;
  const values = Object.fromEntries(
    Object.entries(state.values).filter(([row]) => !row.includes('/') && !isFree(document, row)),
  ) as NonNullable<ModelTest['expect']['values']>;
  const test: ModelTest = {
    id,
    date: context.date,
    context: context.values,
    decisions: Object.fromEntries(decisions.map(({ on, value }) => [on, value])),
    expect: {
      complete: state.complete,
      values,
      messages: state.messages.map(({ rule }) => rule),
      ...(state.complete && !number.text.includes('·') ? { partNumber: number.text } : {}),
    },
  };
  return { edit: { do: 'add', to: ['tests'], part: { ...test } }, id };
}

/** Whether a row is given from outside, so that no test says what it comes to. */
const isFree = ({ context }: ModelDocument, row: string): boolean =>
  row === 'today' || context.some(({ id }) => id === row);
