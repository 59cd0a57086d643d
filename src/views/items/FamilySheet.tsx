import { useMemo, useState } from 'react';
import { X } from 'lucide-react';
import type { FamilyView, ItemsView } from '../../contract';
import { own } from '../../i18n';
import { Button, Field, Select, say } from '../../ui';
import { Grid, isBlank, useGrid, type GridColumn } from '../../ui/grid';
import { ask, sentences, type Answer } from '../api';
import { choiceColumn, figureColumn, textColumn } from '../parts/grid/columns';
import { useGridWords } from '../parts/grid/useGridWords';
import { useSpeech } from '../speech';
import { within } from './families';
import { propertyOf, propertyRow, propertyTypes, readOptions } from './family-rows';
import shared from '../parts/side/room-page.module.css';
import css from './items.module.css';

interface Props {
  /** "" for a new one. */
  code: string;
  families: readonly FamilyView[];
  onClose: () => void;
  onKept: (view: ItemsView, code: string | null) => void;
}

/** A family: what it is called, what it is inside of, and by what its items are described. */
export function FamilySheet({ code, families, onClose, onKept }: Props) {
  const { t, language } = useSpeech();
  const family = families.find((each) => each.code === code);
  const [name, setName] = useState(family?.name ?? {});
  const [parent, setParent] = useState(family?.parent ?? '');
  const [chosen, setCode] = useState(code);
  const grid = useGrid(
    useMemo(() => (family?.properties ?? []).map(propertyRow), [family]),
    { columns: usePropertyColumns(), most: 100 },
  );
  const words = useGridWords();
  const from = inherited(families, parent);
  const send = async (answer: Promise<Answer<ItemsView>>, then: string | null): Promise<void> => {
    const kept = await answer;
    if (!kept.ok) say(sentences(kept.failures, t('request.failed')), true);
    else {
      say(t('house.kept'));
      onKept(kept.value, then);
    }
  };
  const keep = (): Promise<void> =>
    send(
      ask('PUT /catalogue/families/{code}', {
        at: { code: chosen },
        input: {
          ...(family ? { version: family.version } : {}),
          name: Object.fromEntries(Object.entries(name).filter(([, text]) => text !== '')),
          parent: parent === '' ? null : parent,
          properties: grid.rows.filter((row) => !isBlank(row)).map(propertyOf),
        },
      }),
      chosen,
    );
  // One cannot be put inside itself, or inside what is inside it.
  const inner = family ? within(families, family.code) : new Set<string>();
  const title = family ? own(family.name, language) : t('items.addFamily');
  return (
    <aside className={css.sheet} aria-label={title}>
      <header className={css.sheetHead}>
        <h2>{title}</h2>
        <Button look="plain" aria-label={t('frame.close')} onClick={onClose}>
          <X size={16} aria-hidden />
        </Button>
      </header>
      <div className={css.sheetFields}>
        {!family && (
          <Field
            label={t('items.familyCode')}
            value={chosen}
            maxLength={40}
            onChange={(event) => setCode(event.target.value)}
          />
        )}
        {(['en', 'de'] as const).map((each) => (
          <Field
            key={each}
            label={t('items.nameIn', { language: t(`items.languages.${each}`) })}
            value={name[each] ?? ''}
            maxLength={200}
            onChange={(event) => setName({ ...name, [each]: event.target.value })}
          />
        ))}
        <Select
          label={t('items.insideOf')}
          value={parent}
          options={[
            { value: '', text: t('items.insideNone') },
            ...families
              .filter((each) => !inner.has(each.code))
              .map((each) => ({ value: each.code, text: own(each.name, language) })),
          ]}
          onChange={(event) => setParent(event.target.value)}
        />
      </div>
      <section className={css.properties}>
        <h3>{t('items.properties')}</h3>
        {from.length > 0 && (
          <p className={shared.quiet}>
            {t('items.inherited', {
              names: from.map((each) => own(each.name, language)).join(', '),
            })}
          </p>
        )}
        <Grid label={t('items.properties')} grid={grid} words={words} className={css.propertyGrid} />
        <p className={shared.quiet}>{t('items.propertyHint')}</p>
      </section>
      <footer className={shared.foot}>
        {family && (
          <Button
            onClick={() =>
              void send(
                ask('DELETE /catalogue/families/{code}', {
                  at: { code },
                  input: { version: family.version },
                }),
                null,
              )
            }
          >
            {t('items.dropFamily')}
          </Button>
        )}
        <Button look="main" disabled={chosen === '' || grid.wrong.length > 0} onClick={() => void keep()}>
          {t('house.keep')}
        </Button>
      </footer>
    </aside>
  );
}

/** Properties that come down from what a family is inside of. */
function inherited(families: readonly FamilyView[], parent: string): FamilyView['properties'] {
  const own = families.find(({ code }) => code === parent);
  return own
    ? [
        ...inherited(
          families.filter((each) => each !== own),
          own.parent ?? '',
        ),
        ...own.properties,
      ]
    : [];
}

function usePropertyColumns(): readonly GridColumn[] {
  const words = useSpeech();
  return useMemo(() => {
    const { t } = words;
    const needed = t('input.required');
    return [
      {
        id: 'id',
        title: t('items.property.id'),
        width: 88,
        kind: 'code' as const,
        needed,
        read: (typed: string) =>
          /^[a-z][a-zA-Z0-9]{0,39}$/.test(typed)
            ? { kept: typed }
            : { why: t('family.badId', { id: typed }) },
      },
      textColumn({ id: 'en', title: t('items.languages.en'), width: 96, needed }, 200, words),
      textColumn({ id: 'de', title: t('items.languages.de'), width: 96 }, 200, words),
      choiceColumn(
        { id: 'is', title: t('items.property.is'), width: 84, needed },
        propertyTypes.map((is) => ({ kept: is, text: t(`items.type.${is}`) })),
        (typed) => t('items.noType', { value: typed }),
      ),
      textColumn({ id: 'unit', title: t('items.field.unit'), width: 60 }, 12, words),
      figureColumn({ id: 'decimals', title: t('items.property.decimals'), width: 76 }, 0, words),
      {
        id: 'options',
        title: t('items.property.options'),
        width: 220,
        read: (typed: string) => (readOptions(typed) ? { kept: typed } : { why: t('items.noOptions') }),
      },
    ];
  }, [words]);
}
