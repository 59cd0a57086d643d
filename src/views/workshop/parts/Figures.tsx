/** Figures: calculations, each with its value in the try-out, what stands beside a build, and what comes from outside. */
import { useMemo } from 'react';
import type { Part } from '../../../core/modelling';
import { number, own } from '../../../i18n';
import { Select } from '../../../ui';
import { useSpeech } from '../../speech';
import { both, formula, named, nameColumns, shownColumn } from '../grids/list-columns';
import { idAt, textAt, wholeAt, type PartColumn } from '../grids/part-columns';
import type { Draft } from '../session/useDraft';
import { ItemFacts } from './ItemFacts';
import { ListPart } from './ListPart';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
}

const freshFigure = (id: string): Part => ({ id, name: named(id), type: 'number', formula: '0' });

/** Calculations, each with its value. */
export function Figures({ draft, id }: Props & { id: string }) {
  const words = useSpeech();
  const { t, language } = words;
  const calculated = draft.tried?.seen?.picture.calculated;
  const valueOf = useMemo(
    () =>
      (id: string): string => {
        const value = calculated?.[id];
        if (value === undefined) return '';
        return /^-?\d+(\.\d+)?$/.test(value) ? number(value, language) : value;
      },
    [calculated, language],
  );
  const columns = useMemo((): PartColumn[] => {
    const gives = (['number', 'text', 'yesno'] as const).map((kept) => ({
      kept,
      text: t(`draft.rows.gives.${kept}`),
    }));
    const { name, other } = nameColumns(words);
    return [
      name,
      shownColumn(t('draft.rows.value'), 100, valueOf),
      formula('formula', t('draft.rows.formula'), 300),
      textAt('unit', { id: 'unit', title: t('draft.rows.unit'), width: 60 }),
      wholeAt('decimals', { id: 'decimals', title: t('draft.rows.decimals'), width: 70 }, words),
      {
        ...textAt('type', { id: 'type', title: t('draft.rows.type'), width: 90 }),
        column: {
          id: 'type',
          title: t('draft.rows.type'),
          width: 90,
          choices: gives.map(({ text }) => text),
          shown: (kept) => gives.find((each) => each.kept === kept)?.text ?? kept,
          read: (typed) => {
            const found = gives.find(({ text }) => text.toLowerCase() === typed.toLowerCase());
            return found ? { kept: found.kept } : { why: t('draft.rows.badKind', { value: typed }) };
          },
        },
      },
      idAt({ id: 'id', title: t('draft.rows.id'), width: 130 }, words),
      other,
    ];
  }, [words, t, valueOf]);
  return (
    <div className={css.figuresPart}>
      <ListPart
        draft={draft}
        list="calculations"
        title={t('draft.rows.calculations')}
        columns={columns}
        fresh={freshFigure}
        comesTo={(id) => valueOf(id) || undefined}
      />
      <ShownFigures draft={draft} id={id} />
      <Context draft={draft} />
    </div>
  );
}

/** Which figures stand beside the build while it is made, and which of them is its mass. */
function ShownFigures({ draft, id }: Props & { id: string }) {
  const { t, language } = useSpeech();
  const { document, session } = draft;
  const { calculations, figures } = document;
  const named = calculations.map(({ id, name }) => ({ value: id, text: own(name, language) || id }));
  const set = (name: 'mass' | 'installation' | 'more', value: unknown): void => {
    session.edit({ do: 'set', at: [], name: `figures.${name}`, ...(value === '' ? {} : { value }) });
  };
  return (
    <fieldset className={css.figures}>
      <legend>{t('draft.rows.beside')}</legend>
      {(['mass', 'installation'] as const).map((name) => (
        <Select
          key={name}
          label={t(`draft.rows.${name}`)}
          value={figures[name] ?? ''}
          options={[{ value: '', text: '–' }, ...named]}
          onChange={({ target }) => set(name, target.value)}
        />
      ))}
      <div className={css.chips} role="group" aria-label={t('draft.rows.more')}>
        <span>{t('draft.rows.more')}</span>
        {named.map(({ value, text }) => (
          <label key={value}>
            <input
              type="checkbox"
              checked={figures.more.includes(value)}
              onChange={({ target }) =>
                set(
                  'more',
                  named.flatMap((each) =>
                    (each.value === value ? target.checked : figures.more.includes(each.value))
                      ? [each.value]
                      : [],
                  ),
                )
              }
            />
            {text}
          </label>
        ))}
      </div>
      <ItemFacts draft={draft} id={id} />
    </fieldset>
  );
}

const freshInput = (id: string): Part => ({ id, name: named(id), values: [] });

/** What is fixed from outside the build, such as the region of use, with what it can be. */
function Context({ draft }: Props) {
  const words = useSpeech();
  const { t } = words;
  const columns = useMemo((): PartColumn[] => {
    const [first, second] = both(words);
    const title = { en: t('draft.rows.english'), de: t('draft.rows.german') };
    const { name, other } = nameColumns(words);
    return [
      name,
      idAt({ id: 'id', title: t('draft.rows.id'), width: 120 }, words),
      valuesAt(first, t('draft.context.values'), draft.document.languages),
      valuesAt(second, `${t('draft.context.values')}, ${title[second]}`, draft.document.languages),
      other,
    ];
  }, [words, t, draft.document.languages]);
  return (
    <ListPart
      draft={draft}
      list="context"
      title={t('draft.context.title')}
      columns={columns}
      fresh={freshInput}
      beside={t('draft.context.hint')}
    />
  );
}

interface InputValue {
  id: string;
  name: Readonly<Record<string, string>>;
}

/** The values of an input as "eu = European Union; uk = United Kingdom", in one language. */
const valuesAt = (language: string, title: string, languages: readonly string[]): PartColumn => ({
  column: { id: `values ${language}`, title, width: 340, read: (typed) => ({ kept: typed }) },
  read: ({ values }) =>
    ((values as readonly InputValue[] | undefined) ?? [])
      .map(({ id, name }) => `${id} = ${name[language] ?? ''}`)
      .join('; '),
  write: (part, kept) => {
    const before = new Map(
      ((part['values'] as readonly InputValue[] | undefined) ?? []).map((each) => [each.id, each]),
    );
    const values = kept
      .split(';')
      .map((each) => each.split('=').map((text) => text.trim()))
      .flatMap(([id = '', name = id]): InputValue[] =>
        id === ''
          ? []
          : [
              {
                id,
                name: {
                  ...Object.fromEntries(languages.map((each) => [each, name])),
                  ...before.get(id)?.name,
                  [language]: name,
                },
              },
            ],
      );
    return { ...part, values };
  },
});
