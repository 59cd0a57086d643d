/**
 * The Workshop: the try-out after an edit, pasted rows, sentences of a large model, the check-up, and what a draft would
 * change out there.
 */
import { checkUp, createEngine, usualLimits } from '../src/core/engine';
import { generatedModel, large, randomFrom } from '../src/core/engine/testing/generated-models';
import { compileModel, type ModelDocument } from '../src/core/model';
import {
  impactOn,
  outlineRows,
  edited,
  readSentence,
  sentenceOf,
  wordsOf,
  type Edit,
} from '../src/core/modelling';
import { DraftComputation } from '../src/workers/draft/computation';
import { demoDocument } from './demo-documents';

type Row = (name: string, times: number[], goal?: number) => void;

const today = '2026-06-01';
const tariff = { list: 'X', currency: 'EUR', decimals: 2, prices: {} };
const timed = <T>(times: number[], work: () => T): T => {
  const start = performance.now();
  const result = work();
  times.push(performance.now() - start);
  return result;
};
const done = (document: ModelDocument, edit: Edit): ModelDocument => {
  const result = edited(document, edit);
  if (!result.ok) throw new Error(result.problem.code);
  return result.document;
};
const compiled = (document: ModelDocument) => {
  const result = compileModel(document);
  if (!result.ok) throw new Error('a model of the bench compiles');
  return result.model;
};

/** The state of the try-out after each of many edits, as its worker gives it. */
function timeEdits(name: string, document: ModelDocument, goal: number, row: Row): void {
  const computation = new DraftComputation();
  computation.open({ tariff, facts: {}, today });
  const times: number[] = [];
  let now = document;
  for (let number = 1; number <= 25; number++) {
    const [option] = now.features[number % now.features.length]?.options ?? [];
    now = done(now, {
      do: 'set',
      at: ['features', now.features[number % now.features.length]?.id ?? '', 'options', option?.id ?? ''],
      name: 'name.en',
      value: `Another ${String(number)}`,
    });
    const edition = { number, document: now };
    // What runs for the first time is slower; that is the page's opening, not an edit.
    if (number <= 5) computation.try(edition, [], {});
    else timed(times, () => computation.try(edition, [], {}));
  }
  row(`${name}: try-out after an edit`, times, goal);
}

/** A sentence read while it is typed, in a model of many rules beside one of ten. */
function timeSentences(row: Row): void {
  const many = generatedModel(large);
  for (const [name, document] of [
    ['ten rules', { ...many, rules: many.rules.slice(0, 10) }],
    ['1,500 rules', many],
  ] as const) {
    const words = wordsOf(document, 'en');
    const [rule] = document.rules;
    if (!rule) continue;
    const { text } = sentenceOf(rule, words);
    const times: number[] = [];
    for (let at = 0; at < 40; at++)
      timed(times, () => readSentence(text.slice(0, text.length - (at % 5)), [words], rule));
    row(`typing in a sentence, ${name}`, times);
  }
  const words = wordsOf(many, 'en');
  const times: number[] = [];
  timed(times, () => many.rules.map((each) => sentenceOf(each, words)));
  row('1,500 sentences printed', times);
}

/** What a draft would make of a thousand builds, on one thread; two share them. */
function timeImpact(row: Row): void {
  const before = demoDocument('ridgeback');
  const after = done(before, { do: 'set', at: [], name: 'name.en', value: 'Another' });
  const context = { date: today, values: { region: 'eu' } };
  const meansOf = (document: ModelDocument) => ({
    engine: createEngine(compiled(document), context, usualLimits),
    tariff,
    facts: {},
    terms: { quantity: 1, day: today },
  });
  const [was, is] = [meansOf(before), meansOf(after)];
  const random = randomFrom(7);
  const times: number[] = [];
  for (let build = 0; build < 60; build++) {
    const decisions = before.features
      .filter(({ most }) => most === 1)
      .flatMap(({ id, options }) => {
        const option = options[random(options.length)];
        return random(3) === 0 && option ? [{ on: id, value: option.id }] : [];
      });
    timed(times, () => impactOn(was, is, { decisions, special: [] }));
  }
  const sum = times.reduce((all, each) => all + each, 0);
  row('impact on a build of Ridgeback', times);
  row('impact on 1,000 builds, on two threads', [(sum / times.length) * 500], 60_000);
}

/** All of it. */
export function timeWorkshop(row: Row): void {
  timeEdits('Ridgeback', demoDocument('ridgeback'), 150, row);
  timeEdits('large', generatedModel(large), 600, row);
  const pasted: number[] = [];
  const rows = Array.from({ length: 500 }, (_, at) => [
    `Part ${String(at)}`,
    `C${String(at)}`,
    `X-${String(at)}`,
  ]);
  for (let turn = 0; turn < 10; turn++)
    timed(pasted, () =>
      outlineRows(demoDocument('ridgeback'), rows, { language: 'en', into: 'surface', isItem: () => true }),
    );
  row('500 pasted rows previewed', pasted, 1_000);
  timeSentences(row);
  for (const [name, document, goal] of [
    ['Ridgeback', demoDocument('ridgeback'), 5_000],
    ['large', generatedModel(large), undefined],
  ] as const) {
    const times: number[] = [];
    const model = compiled(document);
    timed(times, () => checkUp(model, today, () => true));
    row(`check-up of ${name}`, times, goal);
  }
  timeImpact(row);
}
