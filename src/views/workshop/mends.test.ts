/** Mends of findings: what is found is no longer found then. */
import { expect, it } from 'vitest';
import { demoDocument } from '../../../scripts/demo-documents';
import { checkUp, type Finding } from '../../core/engine';
import { compileModel, type ModelDocument, type Rule } from '../../core/model';
import { edited } from '../../core/modelling';
import { mendOf } from './mends';

const day = '2026-06-01';
const reason = { en: 'x', de: 'x' };
const base = demoDocument('tarn');
const found = (document: ModelDocument): readonly Finding[] => {
  const result = compileModel(document);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return checkUp(result.model, day, () => true).findings;
};
const withRules = (...rules: Rule[]): ModelDocument => ({
  ...base,
  rules: [...base.rules, ...rules],
  tests: [],
});

it('take away what repeats, and put in what is missing', () => {
  const [pads] = base.features;
  const pad = pads?.id ?? '';
  const [first, ...rest] = (pads?.options ?? []).map(({ id }) => JSON.stringify(id));
  const row = [first ?? ''];
  const documents: [Finding['kind'], ModelDocument][] = [
    [
      'repeatsOthers',
      withRules(
        { id: 'one', kind: 'require', when: `${pad} = ${rest[0] ?? ''}`, must: 'not(wireless)', reason },
        { id: 'two', kind: 'require', when: `${pad} = ${rest[0] ?? ''}`, must: 'not(wireless)', reason },
      ),
    ],
    [
      'rowsOverlap',
      withRules({
        id: 'table',
        kind: 'table',
        of: [pad],
        rows: [row, row, ...rest.map((each) => [each])],
        listed: 'allowed',
        reason,
      }),
    ],
    [
      'tableHole',
      withRules({ id: 'table', kind: 'table', of: [pad], rows: [row], listed: 'allowed', reason }),
    ],
  ];
  for (const [kind, broken] of documents) {
    const finding = found(broken).find((each) => each.kind === kind);
    const mend = finding && mendOf(finding, broken);
    expect(mend, kind).toBeTruthy();
    if (!finding || !mend) continue;
    const mended = edited(broken, mend.edit);
    if (!mended.ok) throw new Error('a mend can be done');
    const left = found(mended.document);
    expect(
      left.some((each) => each.kind === kind && each.at === finding.at && each.other === finding.other),
      kind,
    ).toBe(false);
  }
});

it('are none where somebody has to think', () => {
  expect(mendOf({ kind: 'contradict', at: 'rules.a', other: 'rules.b' }, base)).toBeNull();
  expect(mendOf({ kind: 'sameNumber', at: 'features.pad' }, base)).toBeNull();
});
