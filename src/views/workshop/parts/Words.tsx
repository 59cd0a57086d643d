import { useMemo } from 'react';
import { partAt, readWords, textKey, textsIn, valueAt, type Edit } from '../../../core/modelling';
import { say } from '../../../ui';
import { Grid, isWrong, type GridColumn, type Row } from '../../../ui/grid';
import { useGridWords } from '../../parts/grid/useGridWords';
import { sentence } from '../../../i18n';
import { useSpeech } from '../../speech';
import { plainAt } from '../grids/part-columns';
import { Exchange } from './Exchange';
import { useDocumentGrid, type GridBack } from '../grids/useListGrid';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

/** All texts, one column a language, for whoever translates. */
export function Words({ draft, id }: { draft: Draft; id: string }) {
  const { t, language } = useSpeech();
  const words = useGridWords();
  const { languages } = draft.document;
  const columns = useMemo((): GridColumn[] => {
    const title: Readonly<Record<string, string>> = {
      en: t('draft.rows.english'),
      de: t('draft.rows.german'),
    };
    return [
      {
        id: 'place',
        title: t('draft.rows.place'),
        width: 260,
        kind: 'code',
        fixed: true,
        read: (kept) => ({ kept }),
      },
      ...languages.map((language): GridColumn => ({
        id: language,
        title: title[language] ?? language,
        width: 340,
        read: (kept) => ({ kept }),
      })),
    ];
  }, [languages, t]);
  const back = useMemo<GridBack>(
    () => ({
      rowsOf: (document) =>
        textsIn(document).map((each): Row => ({
          id: textKey(each),
          depth: 0,
          cells: [
            textKey(each),
            ...document.languages.map((language) =>
              plainAt(partAt(document, each.at) ?? {}, `${each.name}.${language}`),
            ),
          ],
        })),
      editOf: (document, rows) => {
        const edits = rows.flatMap(({ id, cells }): Edit[] => {
          const way = id.split('/');
          const at = way.slice(0, -1);
          const part = partAt(document, at);
          if (!part) return [];
          return document.languages.flatMap((language, place): Edit[] => {
            const cell = cells[place + 1];
            const name = `${way.at(-1) ?? ''}.${language}`;
            if (cell === undefined || isWrong(cell) || cell === (valueAt(part, name) ?? '')) return [];
            return [{ do: 'set', at, name, ...(cell === '' ? {} : { value: cell }) }];
          });
        });
        return edits.length === 0 ? null : { edit: { do: 'several', edits }, ids: new Map() };
      },
    }),
    [],
  );
  const grid = useDocumentGrid(draft, back, { columns });
  /** A translator's sheet: what it says is done at once, and told of, with what is of no text here. */
  const take = (rows: string[][]): void => {
    const read = readWords(draft.session.seen().document, rows);
    const problem = draft.session.edit(read.edit);
    if (problem) say(sentence(language, problem.code, { ...problem.params }), true);
    else
      say(
        [
          t('draft.exchange.words', { count: read.changed }),
          ...(read.unknown.length > 0
            ? [
                t('draft.exchange.unknown', {
                  count: read.unknown.length,
                  places: read.unknown
                    .slice(0, 5)
                    .map(({ row, place }) => `${String(row + 1)}: ${place}`)
                    .join(', '),
                }),
              ]
            : []),
        ].join(' '),
        read.unknown.length > 0,
      );
  };
  return (
    <div className={css.outline}>
      <div className={css.tools}>
        <span className={css.push} />
        <Exchange draft={id} part="words" out={['xlsx', 'csv']} onRows={take} />
      </div>
      <Grid label={t('draft.part.words')} grid={grid} words={words} className={css.grid} />
    </div>
  );
}
