import { useEffect, useMemo, useState } from 'react';
import type { PaperHouseView, PaperText, PaperView } from '../../../contract';
import {
  placeholderValue,
  paperScope,
  richProblems,
  textFilled,
  type PaperGiven,
  type RichText,
} from '../../../core/paper';
import { own, sentence } from '../../../i18n';
import { Button, Field } from '../../../ui';
import { RichTextField } from '../../../ui/rich-text';
import { ask } from '../../api';
import { FormulaField } from '../../parts/formula-field/FormulaField';
import { useSpeech } from '../../speech';
import { useRichWords } from '../settings/rich-words';
import { paperWords } from '../../../i18n/paper-words';
import type { Editing } from './types';
import css from './paper-house.module.css';

interface Props extends Editing {
  text: PaperText;
  house: PaperHouseView;
  tried: PaperView | null;
}

const languages = ['en', 'de'] as const;
const noSubject: Readonly<Record<string, string>> = {};

/** What a document of a quote is made of, to see what placeholders come to. */
function useGiven(tried: PaperView | null): PaperGiven | null {
  const [given, setGiven] = useState<PaperGiven | null>(null);
  const id = tried?.quote.id;
  useEffect(() => {
    if (id === undefined) return undefined;
    let gone = false;
    void ask('GET /quotes/{id}/paper/given', { at: { id } }).then((answer) => {
      if (!gone && answer.ok) setGiven(answer.value);
    });
    return () => {
      gone = true;
    };
  }, [id]);
  return given;
}

/** A text in both languages, its placeholders checked, and how it reads on a real quote. */
export function TextEditor({ text, tried, onKeep, onChanged, onSure }: Props) {
  const { t, language } = useSpeech();
  const given = useGiven(tried);
  const [name, setName] = useState(text.name);
  const [words, setWords] = useState<Readonly<Record<string, RichText>>>(text.words);
  const [subject, setSubject] = useState<Readonly<Record<string, string>>>(text.subject ?? noSubject);
  const changed = name !== text.name || words !== text.words || subject !== (text.subject ?? noSubject);
  const title = own(name, language);
  useEffect(() => onChanged(changed ? title : null), [changed, title, onChanged]);
  const problems = languages.flatMap((each) => richProblems(words[each] ?? [], text.place));
  const keep = (): Promise<boolean> =>
    onKeep(
      ask('PUT /paper/texts/{code}', {
        at: { code: text.code },
        input: {
          version: text.version,
          content: {
            name,
            place: text.place,
            words: { en: words.en ?? [], de: words.de ?? [] },
            ...(text.place === 'mail' ? { subject } : {}),
          },
        },
      }),
    );
  const drop = (): Promise<boolean> =>
    onKeep(ask('DELETE /paper/texts/{code}', { at: { code: text.code }, input: { version: text.version } }));
  return (
    <section className={css.text} aria-label={own(text.name, language)}>
      <header className={css.bar}>
        <h1>{title}</h1>
        <span className={css.quiet}>{t(`paperHouse.places.${text.place}`)}</span>
        <Button onClick={() => onSure({ is: 'drop', name: title, go: () => void drop() })}>
          {t('paperHouse.drop')}
        </Button>
        <Button look="main" disabled={!changed || problems.length > 0} onClick={() => void keep()}>
          {t('paperHouse.keep')}
        </Button>
      </header>
      <div className={css.languages}>
        {languages.map((each) => (
          <OneLanguage
            key={each}
            language={each}
            text={text}
            given={given}
            name={name[each] ?? ''}
            words={words[each] ?? []}
            subject={text.place === 'mail' ? (subject[each] ?? '') : null}
            onSubject={(value) => setSubject({ ...subject, [each]: value })}
            onName={(value) => setName({ ...name, [each]: value })}
            onWords={(value) => setWords({ ...words, [each]: value })}
          />
        ))}
      </div>
    </section>
  );
}

interface OneProps {
  language: 'en' | 'de';
  text: PaperText;
  given: PaperGiven | null;
  name: string;
  words: RichText;
  /** Of a mail; null where it is none. */
  subject: string | null;
  onSubject: (subject: string) => void;
  onName: (name: string) => void;
  onWords: (words: RichText) => void;
}

function OneLanguage({
  language: of,
  text,
  given,
  name,
  words,
  subject,
  onSubject,
  onName,
  onWords,
}: OneProps) {
  const { t, language } = useSpeech();
  const rich = useRichWords();
  const title = t(`composer.languages.${of}`);
  const problem = useMemo(() => {
    const [first] = richProblems(words, text.place);
    return first && sentence(language, first.problem.code, first.problem.params);
  }, [words, text.place, language]);
  const line = given?.lines[0] ?? null;
  const filling = given && {
    given,
    line: text.place === 'line' ? line : null,
    words: paperWords(of, given.decimals),
  };
  return (
    <section className={css.one} aria-label={title}>
      <h2>{title}</h2>
      <Field
        label={t('paperHouse.name')}
        value={name}
        maxLength={120}
        onChange={(event) => onName(event.target.value)}
      />
      {subject !== null && (
        <Field
          label={t('paperHouse.subjectIn', { language: title })}
          value={subject}
          maxLength={120}
          onChange={(event) => onSubject(event.target.value)}
        />
      )}
      <RichTextField
        label={t('paperHouse.wordsIn', { language: title })}
        value={words}
        words={rich}
        problem={problem}
        more={(insert) => <Placeholder place={text.place} filling={filling} onInsert={insert} />}
        onChange={onWords}
      />
      {filling && (
        <>
          <h3>{t('paperHouse.reads', { number: filling.given.number })}</h3>
          <div className={css.reads} lang={of}>
            {textFilled(words, filling).map((part, at) =>
              part.is === 'paragraph' ? (
                <p key={at}>{part.spans.map(({ text: run }) => run).join('')}</p>
              ) : (
                <ul key={at}>
                  {part.items.map((item, index) => (
                    <li key={index}>{item.map(({ text: run }) => run).join('')}</li>
                  ))}
                </ul>
              ),
            )}
          </div>
        </>
      )}
    </section>
  );
}

interface PlaceholderProps {
  place: PaperText['place'];
  filling: Parameters<typeof placeholderValue>[1] | null;
  onInsert: (text: string) => void;
}

/** A placeholder that is put where the cursor is: with what may be read proposed, and what it comes to beside it. */
function Placeholder({ place, filling, onInsert }: PlaceholderProps) {
  const { t } = useSpeech();
  const [open, setOpen] = useState(false);
  const [source, setSource] = useState('');
  const comes = filling && source.trim() !== '' ? placeholderValue(source, filling) : null;
  const insert = (typed = source): void => {
    if (typed.trim() === '') return;
    onInsert(`{${typed.trim()}}`);
    setSource('');
    setOpen(false);
  };
  return (
    <>
      <Button look="plain" aria-expanded={open} onClick={() => setOpen(!open)}>
        {t('paperHouse.placeholder')}
      </Button>
      {open && (
        <div className={css.placeholder}>
          <FormulaField
            label={t('paperHouse.placeholder')}
            hideLabel
            value={source}
            scope={paperScope(place)}
            {...(comes === null ? {} : { comesTo: comes })}
            onChange={setSource}
            onEnter={insert}
          />
          <Button onClick={() => insert()}>{t('paperHouse.insert')}</Button>
        </div>
      )}
    </>
  );
}
