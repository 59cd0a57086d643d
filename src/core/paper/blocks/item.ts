/** What a line is, in words: its name and number, what is inside, what covers it, what was chosen. */
import { exact } from '../../exact';
import { runningIn } from '../../pricing';
import type { PaperLine, PaperPart } from '../given';
import { filledRich } from '../placeholders';
import { richWords } from '../rich';
import type { ShownRow } from '../shown-price';
import type { Cell, TextLine } from '../types';
import { fillingOf, line as textLine, type Making } from './making';

/** The first cell of a line: its name and number, and those of what is inside. */
export function itemCell(line: PaperLine, { words, composition }: Making): Cell {
  const { numbers } = composition.lines;
  return {
    lines: [
      textLine(words.own(line.name), 'strong'),
      ...(numbers ? [textLine(line.partNumber, 'code')] : []),
      ...(line.build?.inside ?? []).map(({ name, number }): TextLine => ({
        spans: [{ text: words.own(name) + (numbers ? `  ${number}` : '') }],
        look: 'quiet',
      })),
    ],
  };
}

/** What else is to be said of a line, beneath it; null where there is nothing. */
export function notesCell(
  line: PaperLine,
  making: Making,
  which: string,
  { rateTold, monthTold }: { rateTold: boolean; monthTold: boolean },
): Cell | null {
  const { words, composition } = making;
  const { prices } = composition.lines;
  const told = [
    which,
    ...(prices === 'none' || !monthTold ? [] : monthly(line, making)),
    ...line.special.map((text) => words.say('special', { text })),
    ...line.covers.map(({ name, from, to }) =>
      words.say('cover', { name: words.own(name), from: words.date(from), to: words.date(to) }),
    ),
    ...apart(line, making),
    ...(rateTold && line.taxRate !== null && prices !== 'none'
      ? [words.say('taxAt', { rate: words.percent(line.taxRate) })]
      : []),
    ...underLine(line, making),
  ].filter((text) => text !== '');
  return told.length === 0 ? null : { lines: told.map((text) => textLine(text, 'quiet')) };
}

/** The house's text under each line. */
function underLine(line: PaperLine, making: Making): string[] {
  const text = making.texts[making.composition.lines.under];
  return text ? richWords(filledRich(text, fillingOf(making, line))).split('\n') : [];
}

/** What of it is due by the month. */
function monthly({ price }: PaperLine, { words, given: { currency } }: Making): string[] {
  const running = [...(price.recurring ? [price.recurring] : []), ...runningIn(price)];
  return running.map(({ from, to, perMonth }) =>
    words.say('monthly', {
      from: words.date(from),
      to: words.date(to),
      month: words.amount(perMonth),
      currency,
    }),
  );
}

/** That it does not count in the sums. */
function apart({ optional, alternative, insteadOf }: PaperLine, { words }: Making): string[] {
  if (optional) return [words.say('optional')];
  if (!alternative) return [];
  return [insteadOf === null ? words.say('alternativeAlone') : words.say('alternative', { line: insteadOf })];
}

/** What a row of a line is for, where it does not multiply across. */
export function whichRow(row: ShownRow, several: boolean, line: PaperLine, { words }: Making): string {
  const forAll =
    row.forAll === undefined
      ? ''
      : [
          words.say('forAll', { amount: words.amount(row.forAll) }),
          ...(line.how ? [`(${line.how})`] : []),
        ].join(' ');
  return [whenDue(row, several, words), forAll].filter(Boolean).join('. ');
}

function whenDue({ is, term }: ShownRow, several: boolean, words: Making['words']): string {
  if (is === 'share') return words.say('shareOff');
  if (term)
    return words.say('overTerm', {
      from: words.date(term.from),
      to: words.date(term.to),
      months: words.number(String(term.months)),
      days: term.days > 0 ? words.say('termDays', { count: term.days }) : '',
      base: term.baseMonths,
    });
  if (is === 'once') return words.say('onceALine');
  return several ? words.say('dueOnce') : '';
}

/** What was chosen for its build, as it is to be told; null where there is nothing to tell. */
export function chosenCell({ build }: PaperLine, { words, composition }: Making): Cell | null {
  const rows = build?.rows ?? [];
  const entries = rows.map(({ name, value }) => [words.own(name), words.own(value)] as const);
  switch (composition.lines.chosen) {
    case 'none':
      return null;
    case 'table':
      return entries.length === 0 ? null : { lines: [], entries };
    case 'prose':
      return entries.length === 0
        ? null
        : {
            lines: [textLine(`${entries.map(([name, value]) => `${name}: ${value}`).join('; ')}.`, 'quiet')],
          };
    case 'short': {
      const decided = rows
        .filter((row) => row.decided)
        .map(({ value, name }) => [words.own(name), words.own(value)]);
      return decided.length === 0
        ? null
        : {
            lines: [
              textLine(
                `${decided.map(([name, value]) => (value === words.yes ? name : value)).join(', ')}.`,
                'quiet',
              ),
            ],
          };
    }
  }
}

/** The parts of a build as they are to be told; null where there is nothing to tell. */
export function partsCell(line: PaperLine, { words, composition }: Making): Cell | null {
  const { parts: how, kinds, prices, discounts } = composition.lines;
  if (how === 'none') return null;
  if (how === 'bundles' && (line.partsApart || (line.build?.inside.length ?? 0) === 0)) return null;
  const shown = line.parts.filter(({ kind }) => kinds.includes(kind));
  if (shown.length === 0) return null;
  const quantity = (part: PaperPart): string =>
    part.quantity === undefined ? '' : words.number(part.quantity);
  // Prices of parts are list prices: where discounts are hidden they would tell what was taken off.
  const priced = how !== 'named' && prices === 'each' && discounts !== 'none' && !line.partsApart;
  if (!priced) return { lines: [], entries: shown.map((part) => [words.own(part.name), quantity(part)]) };
  const rest = line.parts
    .filter(({ kind }) => !kinds.includes(kind))
    .reduce((sum, { amount }) => sum.plus(amount), exact(0));
  return {
    lines: [textLine(words.say('madeOf'), 'quiet')],
    entries: [
      ...shown.map((part) => [
        words.own(part.name),
        quantity(part),
        exact(part.amount).isZero() ? '' : words.amount(part.amount),
      ]),
      ...(rest.isZero() ? [] : [[words.say('rest'), '', words.amount(rest.toString())]]),
    ],
  };
}
