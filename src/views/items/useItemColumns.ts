import { useMemo } from 'react';
import type { FamilyView } from '../../contract';
import { itemKinds, skuPattern } from '../../core/items';
import { own } from '../../i18n';
import type { GridColumn } from '../../ui/grid';
import { choiceColumn, figureColumn, markColumn, textColumn } from '../parts/grid/columns';
import { unitText } from '../parts/unit-text';
import { useSpeech } from '../speech';

/** Units that are proposed; any other can be typed. */
const units = ['pc', 'set', 'pair', 'm', 'm2', 'kg', 't', 'l', 'h'];

/** Columns of items, in the order of `itemCells`. */
export function useItemColumns(families: readonly FamilyView[]): readonly GridColumn[] {
  const words = useSpeech();
  return useMemo(() => {
    const { t, language } = words;
    const needed = t('input.required');
    const title = (id: string): string => t(`items.field.${id}` as 'items.field.sku');
    return [
      {
        id: 'sku',
        title: title('sku'),
        width: 116,
        kind: 'code' as const,
        needed,
        read: (typed: string) =>
          skuPattern.test(typed.toUpperCase())
            ? { kept: typed.toUpperCase() }
            : { why: t('item.badNumber', { sku: typed }) },
      },
      textColumn(
        { id: 'en', title: t('items.nameIn', { language: t('items.languages.en') }), width: 152 },
        200,
        words,
      ),
      textColumn(
        { id: 'de', title: t('items.nameIn', { language: t('items.languages.de') }), width: 152 },
        200,
        words,
      ),
      choiceColumn(
        { id: 'family', title: title('family'), width: 112 },
        families.map(({ code, name }) => ({ kept: code, text: own(name, language) })),
        (typed) => t('items.noFamily', { value: typed }),
      ),
      choiceColumn(
        { id: 'kind', title: title('kind'), width: 74 },
        itemKinds.map((kind) => ({ kept: kind, text: t(`items.kind.${kind}`) })),
        (typed) => t('items.noKind', { value: typed }),
      ),
      {
        ...textColumn({ id: 'unit', title: title('unit'), width: 50 }, 12, words),
        choices: units.map((unit) => unitText(unit, t)),
        read: (typed: string) => ({
          kept: units.find((unit) => unitText(unit, t).toLowerCase() === typed.toLowerCase()) ?? typed,
        }),
        shown: (kept: string) => unitText(kept, t),
      },
      figureColumn({ id: 'cost', title: title('cost'), width: 82 }, 6, words, 2),
      figureColumn({ id: 'leadDays', title: title('leadDays'), width: 54 }, 0, words),
      figureColumn({ id: 'mass', title: title('mass'), width: 72 }, 6, words),
      markColumn({ id: 'active', title: title('active'), width: 52 }),
      markColumn({ id: 'sold', title: title('sold'), width: 52 }),
      markColumn({ id: 'discountable', title: title('discountable'), width: 66 }),
    ];
  }, [words, families]);
}
