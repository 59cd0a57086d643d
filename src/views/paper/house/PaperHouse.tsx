import { useState } from 'react';
import { Plus } from 'lucide-react';
import type { PaperHouseView, PaperView } from '../../../contract';
import { own } from '../../../i18n';
import { Button, classes, say, Select } from '../../../ui';
import { ask, sentences } from '../../api';
import { useStays } from '../../parts/useStays';
import { Speech, useSpeech } from '../../speech';
import { NewPaper } from './NewPaper';
import { Sure } from '../../parts/Sure';
import type { SureOf } from './sure-of';
import { TemplateEditor } from './TemplateEditor';
import { TextEditor } from './TextEditor';
import type { KeepPaper, OpenPaper } from './types';
import css from './paper-house.module.css';

interface Props {
  language: string;
  view: PaperHouseView;
  /** The quote that it is tried on first. */
  tried: PaperView | null;
}

export default function PaperHouse({ language, view, tried }: Props) {
  return (
    <Speech language={language}>
      <Page view={view} tried={tried} />
    </Speech>
  );
}

function Page({ view: given, tried: first }: Omit<Props, 'language'>) {
  const { t } = useSpeech();
  const [view, setView] = useState(given);
  const [tried, setTried] = useState(first);
  const [open, setOpen] = useState<OpenPaper | null>(
    view.templates[0] ? { of: 'templates', code: view.templates[0].code } : null,
  );
  const [adding, setAdding] = useState<OpenPaper['of'] | null>(null);
  // What is open, where something in it is not in force yet.
  const [unkept, setUnkept] = useState<string | null>(null);
  const [sure, setSure] = useState<SureOf | null>(null);
  useStays(unkept !== null);
  const leave = (go: () => void): void => {
    if (unkept === null) go();
    else setSure({ is: 'leave', name: unkept, go });
  };
  const follow = (next: OpenPaper): void => {
    if (next.of === open?.of && next.code === open.code) return;
    leave(() => {
      setUnkept(null);
      setOpen(next);
    });
  };
  const keep: KeepPaper = async (answer) => {
    const kept = await answer;
    if (kept.ok) {
      setView(kept.value);
      setUnkept(null);
      say(t('paperHouse.kept'));
    } else say(sentences(kept.failures, t('request.failed')), true);
    return kept.ok;
  };
  const tryOn = async (id: string): Promise<void> => {
    const seen = await ask('GET /quotes/{id}/paper', { at: { id } });
    if (seen.ok) setTried(seen.value);
    else say(sentences(seen.failures, t('request.failed')), true);
  };
  const text = open?.of === 'texts' ? view.texts.find(({ code }) => code === open.code) : undefined;
  const template =
    open?.of === 'templates' ? view.templates.find(({ code }) => code === open.code) : undefined;
  return (
    <div className={css.page}>
      <nav className={css.list} aria-label={t('paperHouse.list')}>
        <Select
          label={t('paperHouse.tryOn')}
          value={tried?.quote.id ?? ''}
          options={view.quotes.map(({ id, number, customer }) => ({
            value: id,
            text: `${number} · ${customer}`,
          }))}
          onChange={({ target: { value } }) => {
            // A template is held against the quote from its beginning; a text stays as it is written.
            if (open?.of === 'texts') void tryOn(value);
            else leave(() => void tryOn(value));
          }}
        />
        <Names
          view={view}
          of="templates"
          open={open}
          onOpen={follow}
          onAdd={() => leave(() => setAdding('templates'))}
        />
        <Names
          view={view}
          of="texts"
          open={open}
          onOpen={follow}
          onAdd={() => leave(() => setAdding('texts'))}
        />
      </nav>
      {template && tried && (
        <TemplateEditor
          key={`${template.code} ${String(template.version)} ${tried.quote.id}`}
          template={template}
          house={view}
          tried={tried}
          onKeep={keep}
          onChanged={setUnkept}
          onSure={setSure}
        />
      )}
      {text && (
        <TextEditor
          key={`${text.code} ${String(text.version)}`}
          text={text}
          tried={tried}
          house={view}
          onKeep={keep}
          onChanged={setUnkept}
          onSure={setSure}
        />
      )}
      {sure && (
        <Sure
          title={t(`paperHouse.sure.${sure.is}.title`, { name: sure.name })}
          says={t(`paperHouse.sure.${sure.is}.says`)}
          no={t(`paperHouse.sure.${sure.is}.no`)}
          yes={t(`paperHouse.sure.${sure.is}.yes`)}
          onYes={sure.go}
          onClose={() => setSure(null)}
        />
      )}
      {adding && (
        <NewPaper
          of={adding}
          view={view}
          onClose={() => setAdding(null)}
          onKeep={keep}
          onMade={(code) => {
            setAdding(null);
            setUnkept(null);
            setOpen({ of: adding, code });
          }}
        />
      )}
    </div>
  );
}

interface NamesProps {
  view: PaperHouseView;
  of: OpenPaper['of'];
  open: OpenPaper | null;
  onOpen: (open: OpenPaper) => void;
  onAdd: () => void;
}

/** All templates, or all texts, by their names. */
function Names({ view, of, open, onOpen, onAdd }: NamesProps) {
  const { t, language } = useSpeech();
  const rows =
    of === 'templates'
      ? view.templates.map(({ code, content }) => ({ code, name: own(content.name, language), more: '' }))
      : view.texts.map(({ code, name, place }) => ({
          code,
          name: own(name, language),
          more: place === 'line' ? t('paperHouse.underLine') : '',
        }));
  const { compare } = new Intl.Collator(language);
  rows.sort((a, b) => compare(a.name, b.name));
  return (
    <section>
      <h2>
        {t(`paperHouse.${of}`)}
        <Button look="plain" aria-label={t(`paperHouse.add.${of}`)} onClick={onAdd}>
          <Plus size={14} aria-hidden />
        </Button>
      </h2>
      <ul>
        {rows.map(({ code, name, more }) => (
          <li key={code}>
            <button
              type="button"
              className={classes(css.entry)}
              aria-current={(open?.of === of && open.code === code) || undefined}
              onClick={() => onOpen({ of, code })}
            >
              {name} {more !== '' && <span className={css.quiet}>{more}</span>}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
