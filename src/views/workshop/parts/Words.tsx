import { useMemo } from 'react';
import type { ModelDocument } from '../../../core/model';
import { listAt, partAt, valueAt, type Edit } from '../../../core/modelling';
import { Grid, isWrong, type GridColumn, type Row } from '../../../ui/grid';
import { useGridWords } from '../../parts/grid/useGridWords';
import { useSpeech } from '../../speech';
import { plainAt } from '../grids/part-columns';
import { useDocumentGrid, type GridBack } from '../grids/useListGrid';
import type { Draft } from '../session/useDraft';
import css from '../workshop.module.css';

/** A text of a document: the way to the part that has it, and its name there. */
interface TextAt {
  at: readonly string[];
  name: string;
}

const named = ['name', 'short', 'help', 'reason', 'text'];
const lists = [
  'context', 'sections', 'features', 'parameters', 'calculations', 'rules', 'prices', 'surcharges', 'insidePrices',
  'operations', 'properties',
]; // prettier-ignore

/** Every text of a document, those in which a language is missing first. */
function textsOf(document: ModelDocument): TextAt[] {
  const ways = lists.flatMap((list) =>
    listAt(document, [list]).flatMap(({ id }) => [
      [list, id],
      ...['options', 'values'].flatMap((inner) =>
        listAt(document, [list, id, inner]).map((each) => [list, id, inner, each.id]),
      ),
    ]),
  );
  const all = [[], ...ways].flatMap((at) => {
    const part = partAt(document, at) ?? {};
    return named.flatMap((name) =>
      typeof part[name] === 'object' && part[name] !== null ? [{ at, name }] : [],
    );
  });
  const lacks = (text: TextAt): boolean =>
    document.languages.some(
      (language) => !valueAt(partAt(document, text.at) ?? {}, `${text.name}.${language}`),
    );
  return [...all.filter(lacks), ...all.filter((each) => !lacks(each))];
}

const keyOf = ({ at, name }: TextAt): string => [...at, name].join('/');

/** All texts, one column a language, for whoever translates. */
export function Words({ draft }: { draft: Draft }) {
  const { t } = useSpeech();
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
        textsOf(document).map((each): Row => ({
          id: keyOf(each),
          depth: 0,
          cells: [
            keyOf(each),
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
  return (
    <div className={css.fill}>
      <Grid label={t('draft.part.words')} grid={grid} words={words} className={css.grid} />
    </div>
  );
}
