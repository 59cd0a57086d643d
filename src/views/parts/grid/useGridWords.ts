import { useMemo } from 'react';
import { keysIn, number } from '../../../i18n';
import type { GridWords } from '../../../ui/grid';
import { useSpeech } from '../../speech';

/** What a grid says, in the language of the page. */
export function useGridWords(): GridWords {
  const { t, language } = useSpeech();
  return useMemo(() => {
    const figure = (count: number): string => number(String(count), language);
    return {
      rows: (count) => t('grid.rows', { count, figure: figure(count) }),
      marked: (count) => t('grid.marked', { count: figure(count) }),
      wrong: (count) => t('grid.wrong', { count, figure: figure(count) }),
      tooMany: (most) => t('grid.tooMany', { most: figure(most) }),
      beside: (count) => t('grid.beside', { count, figure: figure(count) }),
      undone: t('grid.undone'),
      redone: t('grid.redone'),
      empty: t('grid.empty'),
      add: t('grid.add'),
      more: t('grid.more'),
      row: (at) => t('grid.row', { number: figure(at) }),
      open: (row) => t('grid.open', { row }),
      fold: (row) => t('grid.fold', { row }),
      acts: {
        above: t('grid.act.above'),
        below: t('grid.act.below'),
        double: t('grid.act.double'),
        remove: t('grid.act.remove'),
        up: t('grid.act.up'),
        down: t('grid.act.down'),
        in: t('grid.act.in'),
        out: t('grid.act.out'),
      },
      keys: (keys) => keysIn(keys, language),
    };
  }, [t, language]);
}
