/** What differs between two versions of a model, and what an edit did, in words. */
import type { ModelDocument } from '../../core/model';
import { partAt, type Difference, type Edit } from '../../core/modelling';
import type { TextKey } from '../../i18n';
import type { InWords } from '../speech';

/** What a part is called: by its name, else by its id. */
export function partName(document: ModelDocument, at: readonly string[], { t, language }: InWords): string {
  if (at.length === 0) return t('draft.change.model');
  const part = partAt(document, at);
  const name = (part?.['name'] as Record<string, string> | undefined)?.[language];
  return name === undefined || name === '' ? (at.at(-1) ?? '') : `${name} (${at.at(-1) ?? ''})`;
}

/** What a list is called, and whose it is. */
function listName(document: ModelDocument, list: readonly string[], words: InWords): string {
  const key = `draft.list.${(list.at(-1) ?? '').replace(/^drawing\./, '')}`;
  const own = words.t(key as TextKey);
  return list.length === 1 ? own : `${partName(document, list.slice(0, -1), words)}, ${own}`;
}

const mostShown = 160;

/** A value as it is told: texts as they stand, more than that as it is written. */
function valueText(value: unknown, { t }: InWords): string {
  if (value === undefined) return t('draft.change.nothing');
  const text = typeof value === 'string' ? `“${value}”` : JSON.stringify(value);
  return text.length > mostShown ? `${text.slice(0, mostShown)} …` : text;
}

/** A difference as one sentence; `before` and `after` are the documents between which it is. */
export function differenceText(
  difference: Difference,
  { before, after }: { before: ModelDocument; after: ModelDocument },
  words: InWords,
): string {
  const { t } = words;
  switch (difference.is) {
    case 'added': {
      const what = partName(after, [...difference.to, difference.part.id], words);
      return t('draft.change.added', { what, list: listName(after, difference.to, words) });
    }
    case 'removed':
      return t('draft.change.removed', {
        what: partName(before, difference.at, words),
        list: listName(before, difference.at.slice(0, -1), words),
      });
    case 'moved':
      return t('draft.change.moved', { what: partName(after, difference.at, words) });
    case 'set': {
      const what = partName(after, difference.at, words);
      const { name } = difference;
      const [from, to] = [valueText(difference.from, words), valueText(difference.to, words)];
      if (difference.from === undefined) return t('draft.change.setNow', { what, name, to });
      if (difference.to === undefined) return t('draft.change.setNone', { what, name, from });
      return t('draft.change.set', { what, name, from, to });
    }
  }
}

/** An edit as one sentence. */
export function editText(edit: Edit, document: ModelDocument, words: InWords): string {
  const { t } = words;
  switch (edit.do) {
    case 'several': {
      const [only] = edit.edits;
      return only && edit.edits.length === 1
        ? editText(only, document, words)
        : t('draft.change.several', { count: edit.edits.length });
    }
    case 'add':
      return differenceText(
        { is: 'added', to: edit.to, part: edit.part },
        { before: document, after: document },
        words,
      );
    case 'remove':
      return t('draft.change.removed', {
        what: edit.at.at(-1) ?? '',
        list: listName(document, edit.at.slice(0, -1), words),
      });
    case 'move':
      return t('draft.change.moved', { what: partName(document, edit.at, words) });
    case 'rename':
      return t('draft.change.renamed', { what: edit.at.at(-1) ?? '', to: edit.to });
    case 'set':
      return t('draft.change.setNow', {
        what: partName(document, edit.at, words),
        name: edit.name,
        to: valueText(edit.value, words),
      });
  }
}
