import { useMemo } from 'react';
import { priceMethods } from '../../core/prices';
import { readWritten } from '../../core/exact';
import { skuPattern } from '../../core/items';
import type { ListHead } from '../../contract';
import { money } from '../../i18n';
import type { GridColumn } from '../../ui/grid';
import { choiceColumn, textColumn } from '../parts/grid/columns';
import { useSpeech } from '../speech';

/** Columns of a price change, in the order of `changeCells`. */
export function useChangeColumns(lists: readonly ListHead[]): readonly GridColumn[] {
  const words = useSpeech();
  return useMemo(() => {
    const { t, language } = words;
    const title = (id: string): string => t(`prices.column.${id}` as 'prices.column.sku');
    const told = (id: string, width: number, kind?: 'figure'): GridColumn => ({
      id,
      title: title(id),
      width,
      fixed: true,
      ...(kind ? { kind } : {}),
      read: (typed) => ({ kept: typed }),
    });
    return [
      {
        id: 'sku',
        title: title('sku'),
        width: 112,
        kind: 'code' as const,
        needed: t('input.required'),
        read: (typed: string) =>
          skuPattern.test(typed.toUpperCase())
            ? { kept: typed.toUpperCase() }
            : { why: t('cell.noItem', { value: typed }) },
      },
      told('name', 176),
      choiceColumn(
        { id: 'list', title: title('list'), width: 92 },
        lists.map(({ code }) => ({ kept: code, text: code })),
        (typed) => t('cell.noList', { value: typed }),
      ),
      textColumn({ id: 'inside', title: title('inside'), width: 84 }, 40, words),
      choiceColumn(
        { id: 'method', title: title('method'), width: 104 },
        ([...priceMethods, 'none'] as const).map((method) => ({
          kept: method,
          text: t(`prices.method.${method}`),
        })),
        (typed) => t('cell.noMethod', { value: typed }),
      ),
      {
        ...textColumn({ id: 'is', title: title('is'), width: 132 }, 2_000, words),
        kind: 'figure' as const,
        // A plain number is shown as money is; tiers and shares as they are typed.
        shown: (kept: string) => {
          const read = readWritten(kept, language);
          return read.is === 'number' ? money(read.value, language, Math.max(2, read.decimals)) : kept;
        },
        typed: (kept: string) => kept,
      },
      {
        ...textColumn({ id: 'months', title: title('months'), width: 62 }, 4, words),
        kind: 'figure' as const,
      },
      told('was', 118, 'figure'),
      told('change', 74, 'figure'),
      {
        ...told('cost', 82, 'figure'),
        shown: (kept: string) => (kept === '' ? '' : money(kept, language, 2)),
      },
      told('margin', 64, 'figure'),
      told('note', 190),
    ];
  }, [words, lists]);
}
