import { useMemo } from 'react';
import {
  readCondition,
  readLevels,
  termKinds,
  writeCondition,
  writeLevels,
  type TermField,
  type TermKindId,
} from '../../core/terms';
import type { TermChoices } from '../../contract';
import { skuPattern } from '../../core/items';
import { exact, readWritten } from '../../core/exact';
import { own } from '../../i18n';
import type { GridColumn } from '../../ui/grid';
import {
  choiceColumn,
  countryColumn,
  dayColumn,
  figureColumn,
  markColumn,
  shareColumn,
  textColumn,
} from '../parts/grid/columns';
import { useSpeech, type InWords } from '../speech';

/** Columns of a kind of terms, in the order of its fields; then from and to, and where a row stands. */
export function useTermColumns(kind: TermKindId, choices: TermChoices): readonly GridColumn[] {
  const words = useSpeech();
  return useMemo(() => {
    const { t } = words;
    const { fields, dated } = termKinds[kind];
    return [
      ...fields.map((field) => columnOf(kind, field, choices, words)),
      ...(dated
        ? [
            dayColumn({ id: 'from', title: t('terms.from'), width: 96 }, words),
            dayColumn({ id: 'to', title: t('terms.to'), width: 96 }, words),
            {
              id: 'stand',
              title: t('terms.stand'),
              width: 84,
              fixed: true,
              read: (typed: string) => ({ kept: typed }),
              shown: (kept: string) => t(`terms.is.${kept}` as 'terms.is.now'),
            },
          ]
        : []),
    ];
  }, [words, kind, choices]);
}

const widths: Partial<Record<TermField['is'], number>> = {
  text: 170,
  share: 76,
  amount: 92,
  count: 84,
  mark: 52,
  word: 112,
  role: 118,
  family: 128,
  item: 112,
  list: 104,
  class: 98,
  customer: 176,
  country: 118,
  currency: 78,
  region: 70,
  levels: 176,
  condition: 330,
  code: 92,
};

function columnOf(kind: TermKindId, field: TermField, choices: TermChoices, words: InWords): GridColumn {
  const { t, language } = words;
  const { id, is, needed } = field;
  const head = {
    id,
    title: t(`terms.field.${id}` as 'terms.field.role'),
    width: widths[is] ?? 120,
    ...(needed ? { needed: t('input.required') } : {}),
  };
  const unknown = (value: string): string => t('term.unknown', { value });
  const among = (all: readonly { kept: string; text: string }[]): GridColumn =>
    choiceColumn(head, all, unknown);
  switch (is) {
    case 'text':
      return textColumn(head, 200, words);
    case 'share':
      return shareColumn(head, words);
    case 'amount':
      return figureColumn(head, 6, words, 2);
    case 'count':
      return figureColumn(head, 0, words);
    case 'mark':
      return markColumn(head);
    case 'word':
      return among(
        (field.options ?? []).map((word) => ({
          kept: word,
          text: t(`terms.word.${word}` as 'terms.word.whole'),
        })),
      );
    case 'role':
      return among(choices.roles.map((role) => ({ kept: role, text: t(`role.${role}` as 'role.engineer') })));
    case 'family':
      return among(choices.families.map(({ code, name }) => ({ kept: code, text: own(name, language) })));
    case 'item':
      return {
        ...head,
        kind: 'code',
        read: (typed) =>
          skuPattern.test(typed.toUpperCase()) ? { kept: typed.toUpperCase() } : { why: unknown(typed) },
      };
    case 'list':
      return among(choices.lists.map(({ code }) => ({ kept: code, text: code })));
    case 'class':
      return among(
        choices.classes.map((each) => ({ kept: each, text: t(`terms.class.${each}` as 'terms.class.key') })),
      );
    case 'customer':
      return among(
        choices.customers.map(({ number, name }) => ({ kept: number, text: `${number} ${name}` })),
      );
    case 'country':
      return countryColumn(head, ['GB', 'DE', 'SE', 'US', 'CA', 'FR', 'NL', 'AT', 'CH', 'IE'], words);
    case 'region':
      return among(choices.regions.map((region) => ({ kept: region, text: region })));
    case 'currency':
      return { ...head, kind: 'code', read: (typed) => ({ kept: typed.toUpperCase() }) };
    case 'code':
      return {
        ...head,
        kind: 'code',
        ...(kind === 'tax' ? { choices: choices.taxClasses } : {}),
        read: (typed) => ({ kept: typed }),
      };
    case 'levels':
      return levelsColumn(head, words);
    case 'condition':
      return conditionColumn(head, words);
  }
}

/** "4: 4 %; 12: 7 %", as one writes it in the language. */
function levelsColumn(
  head: Pick<GridColumn, 'id' | 'title' | 'width'>,
  { t, language }: InWords,
): GridColumn {
  const written = (text: string): string => (language === 'de' ? text.replace('.', ',') : text);
  const number = (typed: string): string | null => {
    const read = readWritten(typed, language);
    return read.is === 'number' ? read.value : read.is === 'twoWays' ? read.values[0] : null;
  };
  return {
    ...head,
    read: (typed) => {
      const parts = typed.split(';').map((part) => /^\s*(\S+)\s*:\s*(.+?)\s*%?\s*$/.exec(part));
      const levels = parts.map((part) => {
        const [from, rate] = [number(part?.[1] ?? ''), number(part?.[2] ?? '')];
        return from === null || rate === null ? null : { from, rate: exact(rate).div(100).toString() };
      });
      const all = levels.flatMap((level) => level ?? []);
      const text = writeLevels(all);
      return all.length === levels.length && readLevels(text) !== null
        ? { kept: text }
        : { why: t('term.levels') };
    },
    shown: (kept) =>
      (readLevels(kept) ?? [])
        .map(({ from, rate }) => `${written(from)}: ${written(exact(rate).times(100).toString())} %`)
        .join('; '),
  };
}

/** A condition as a sentence where it can be one; typed as a sentence or as a formula. */
const conditionColumn = (
  head: Pick<GridColumn, 'id' | 'title' | 'width'>,
  { language }: InWords,
): GridColumn => ({
  ...head,
  read: (typed) => ({ kept: readCondition(typed, language) ?? typed }),
  shown: (kept) => writeCondition(kept, language) ?? kept,
});
