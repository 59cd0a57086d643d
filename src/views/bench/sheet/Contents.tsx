import { memo, useState } from 'react';
import { Plus } from 'lucide-react';
import { foundBy } from '../../../core/finding';
import type { BenchPicture } from '../../../core/builds';
import type { BenchView } from '../../../contract';
import { own } from '../../../i18n';
import { Combobox, classes, type ComboOption } from '../../../ui';
import { useSpeech } from '../../speech';
import css from './contents.module.css';
import type { Words } from '../words';

interface Props {
  view: BenchView;
  picture: BenchPicture;
  words: Words;
  frozen: boolean;
  onGo: (row: string) => void;
  onOpen: (variant: string) => void;
  onAdd: (empty: boolean) => void;
  onCompare: () => void;
}

const mostFound = 12;
/** Where the field that finds rows is, for who jumps to it. */
export const finderId = 'bench-find';

/**
 * Variants, a field that finds rows and options by typing, and a line per section with what is still to do.
 */
export const Contents = memo(
  function Contents({ view, picture, words, frozen, onGo, onOpen, onAdd, onCompare }: Props) {
    const { t, language } = useSpeech();
    const { outline, variants, build } = view;
    const { rows, sections } = picture.state;
    return (
      <nav className={css.contents} aria-label={t('bench.contents')}>
        <div className={css.variants} role="group" aria-label={t('variant.title')}>
          {variants.map((each) => (
            <button
              key={each.id}
              type="button"
              className={css.variant}
              aria-pressed={each.id === build.id}
              aria-label={t('variant.one', { letter: each.letter })}
              onClick={() => {
                if (each.id !== build.id) onOpen(each.id);
              }}
            >
              {each.letter}
            </button>
          ))}
          {!frozen && (
            <button
              type="button"
              className={css.variant}
              aria-label={t('variant.add')}
              title={t('variant.add')}
              onClick={() => onAdd(false)}
            >
              <Plus size={13} aria-hidden />
            </button>
          )}
          {variants.length > 1 && (
            <button
              type="button"
              className={css.compare}
              title={`${t('variant.compare')} (F7)`}
              onClick={onCompare}
            >
              {t('variant.compare')}
            </button>
          )}
        </div>
        <Find view={view} picture={picture} words={words} onGo={onGo} />
        {sections.map((section, index) => {
          const first = outline.sections[index];
          const firstRow = first?.rows.find((id) => rows[id]?.shown);
          if (!section.shown || !first) return null;
          const inside = first.place !== undefined;
          return (
            <button
              key={`${first.place ?? ''}/${first.id}`}
              type="button"
              aria-label={inside ? words.section(first) : undefined}
              className={classes(css.section, inside && css.sectionInside)}
              data-place={
                first.place === outline.sections[index - 1]?.place ? undefined : words.place(first.place)
              }
              onClick={() =>
                firstRow && onGo(first.rows.find((id) => rows[id]?.shown && rows[id].todo) ?? firstRow)
              }
            >
              {own(first.name, language)}
              <span
                className={classes(css.count, section.todo > 0 && css.todo, section.clashes > 0 && css.bad)}
              >
                {section.clashes > 0
                  ? t('bench.clash', { count: section.clashes })
                  : section.todo > 0
                    ? t('bench.todo', { count: section.todo })
                    : ''}
              </span>
            </button>
          );
        })}
      </nav>
    );
  },
  (before, after) =>
    before.picture === after.picture && before.view === after.view && before.words === after.words,
);

/** Finds a row by its name, or by the name of one of its options. */
function Find({ view, picture, words, onGo }: Pick<Props, 'view' | 'picture' | 'words' | 'onGo'>) {
  const { t } = useSpeech();
  const [text, setText] = useState('');
  const found = (): ComboOption[] => {
    const entries = view.outline.sections.flatMap((section) =>
      section.rows
        .filter((id) => picture.state.rows[id]?.shown)
        .flatMap((id) => {
          const row = words.row(id);
          const options = (picture.state.rows[id]?.options ?? []).map((option) => ({
            id,
            text: words.option(id, option.id),
            detail: row,
            texts: [words.option(id, option.id), row],
            whole: false,
          }));
          return [{ id, text: row, detail: words.section(section), texts: [row], whole: true }, ...options];
        }),
    );
    const hits = foundBy(entries, text, (each) => each.texts);
    // A row that is found by its own name stands for its options.
    const whole = new Set(hits.filter((each) => each.whole).map((each) => each.id));
    return hits.filter((each) => each.whole || !whole.has(each.id)).slice(0, mostFound);
  };
  return (
    <div className={css.find}>
      <Combobox
        inputId={finderId}
        label={t('bench.find')}
        hideLabel
        placeholder={`${t('bench.find')}  /`}
        text={text}
        options={
          text.trim() ? found().map((hit, index) => ({ ...hit, id: `${String(index)}:${hit.id}` })) : []
        }
        none={t('bench.noneFound', { text })}
        onText={setText}
        onChoose={({ id }) => {
          setText('');
          onGo(id.slice(id.indexOf(':') + 1));
        }}
      />
    </div>
  );
}
