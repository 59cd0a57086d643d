import { useMemo } from 'react';
import type { PositionView } from '../../contract';
import { longest } from '../../core/schedule';
import type { GridColumn } from '../../ui/grid';
import { figureColumn, textColumn } from '../parts/grid/columns';
import { useSpeech } from '../speech';
import { Names } from './schedule-rows';

/** Columns of positions, in the order of the cells of a row. */
export function usePositionColumns(positions: readonly PositionView[], edit: boolean): readonly GridColumn[] {
  const words = useSpeech();
  return useMemo(() => {
    const { t, language } = words;
    const names = new Names(positions, language);
    const columns: GridColumn[] = [
      {
        ...textColumn({ id: 'tag', title: t('schedule.field.tag'), width: 120 }, longest.tag, words),
        needed: t('schedule.noTag'),
      },
      textColumn({ id: 'area', title: t('schedule.field.area'), width: 110 }, longest.area, words),
      {
        id: 'of',
        title: t('schedule.field.of'),
        width: 350,
        read: (typed: string) =>
          typed.length > longest.words ? { why: t('input.tooLong') } : { kept: names.read(typed) },
        shown: (kept: string) => names.shown(kept),
      },
      figureColumn({ id: 'quantity', title: t('schedule.field.quantity'), width: 80 }, 3, words),
      textColumn({ id: 'remark', title: t('schedule.field.remark'), width: 170 }, longest.remark, words),
      {
        id: 'state',
        title: t('schedule.field.state'),
        width: 140,
        fixed: true,
        read: (typed: string) => ({ kept: typed }),
        shown: (kept: string) =>
          kept.startsWith('quote ')
            ? t('schedule.is.quote', { number: kept.slice('quote '.length) })
            : t(`schedule.is.${kept as 'gone'}`),
      },
    ];
    return edit ? columns : columns.map((column) => ({ ...column, fixed: true }));
  }, [positions, edit, words]);
}
