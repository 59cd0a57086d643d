import { describe, expect, it } from 'vitest';
import { answerPieces, answerTypes } from './answer-fields';

const typeOf = (name: string) => answerTypes().find((each) => each.name === name);

describe('what is answered, for people who read it', () => {
  it('is told field by field, with what each means and whether it may be absent', () => {
    const fields = typeOf('VariantView')?.fields ?? [];
    expect(fields.find(({ name }) => name === 'shown')).toEqual({
      name: 'shown',
      kind: [{ text: 'string' }, { text: '[]' }],
      optional: false,
      says: 'Rows that are there in it.',
    });
    expect(fields.find(({ name }) => name === 'line')?.optional).toBe(true);
    expect(fields.find(({ name }) => name === 'leadDays')?.kind).toContainEqual({ text: 'null' });
  });

  it('goes into what has no name of its own, and names what has one', () => {
    const fields = typeOf('MoveView')?.fields.map(({ name }) => name);
    expect(fields).toEqual(expect.arrayContaining(['changes', 'changes[].row', 'list.before']));
    expect(typeOf('QuotePage')?.fields.find(({ name }) => name === 'rows')?.kind[0]).toEqual({
      type: 'QuoteRow',
    });
  });

  it('leads from every name to a type that is described', () => {
    const names = new Set(answerTypes().map(({ name }) => name));
    const pieces = answerTypes().flatMap(({ kind, fields }) => [
      ...kind,
      ...fields.flatMap((each) => each.kind),
    ]);
    expect(pieces.filter((piece) => 'type' in piece && !names.has(piece.type))).toEqual([]);
  });

  it('takes the name of an answer apart', () => {
    expect(answerPieces('QuoteView | QuoteChanges')).toEqual([
      { type: 'QuoteView' },
      { text: ' | ' },
      { type: 'QuoteChanges' },
    ]);
    expect(answerPieces('Hit[]')).toEqual([{ type: 'Hit' }, { text: '[]' }]);
    expect(answerPieces('null')).toEqual([{ text: 'null' }]);
  });
});
