import { useEffect, useState } from 'react';
import type { BuildItem, ColleaguesView, QuoteView } from '../../../../contract';
import { own } from '../../../../i18n';
import { Button, Select, Tabs } from '../../../../ui';
import { ask } from '../../../api';
import { DayField } from '../../../parts/DayField';
import { useSpeech } from '../../../speech';
import css from './colleagues.module.css';
import type { ColleaguesHere } from './useColleagues';

const ways = ['note', 'technical', 'look', 'followUp', 'handOver'] as const;
type Way = (typeof ways)[number];

interface Props {
  quote: QuoteView;
  view: ColleaguesView;
  did: ColleaguesHere['did'];
  onChanged: () => void;
}

/** What is being written, whatever becomes of it. */
interface Draft {
  words: string;
  /** A person by id, or a role after a colon. */
  whom: string;
  line: string;
  item: string;
  day: string;
}

/** One place to write from: a note, a question, a day to come back, or the whole quote into other hands. */
export function Write({ quote, view, did, onChanged }: Props) {
  const { t } = useSpeech();
  const [way, setWay] = useState<Way>('note');
  const [draft, setDraft] = useState<Draft>(() => begun(quote));
  // A day is taken when its field is left, which may be in the moment in which the next one is typed into.
  const set = (change: Partial<Draft>): void => setDraft((now) => ({ ...now, ...change }));
  const offered = ways.filter((each) => mayWrite(each, quote, view));
  const whom = whomFor(way, view, t);
  const chosen = whom.some(({ value }) => value === draft.whom) ? draft.whom : (whom[0]?.value ?? '');
  const ready = isReady(way, { ...draft, whom: chosen });
  const send = async (): Promise<void> => {
    if (!ready) return;
    const kept = await did(sent(way, quote, { ...draft, whom: chosen }));
    if (!kept) return;
    setDraft(begun(quote));
    if (way === 'handOver') onChanged();
    setWay('note');
  };
  return (
    <form
      method="dialog"
      className={css.write}
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void send();
      }}
    >
      <Tabs
        label={t('colleague.what')}
        tabs={offered.map((id) => ({ id, text: t(`colleague.way.${id}`) }))}
        chosen={way}
        onChoose={setWay}
        panel="colleague-write"
      />
      <div id="colleague-write" className={css.fields} role="tabpanel" aria-label={t(`colleague.way.${way}`)}>
        {way === 'technical' && <AtLine quote={quote} draft={draft} onChange={set} />}
        {whom.length > 0 && (
          <Select
            label={t(
              way === 'handOver' ? 'colleague.to' : way === 'followUp' ? 'colleague.for' : 'colleague.of',
            )}
            options={whom}
            value={chosen}
            onChange={(event) => set({ whom: event.target.value })}
          />
        )}
        {way === 'followUp' && (
          <label className={css.day}>
            <span>{t('colleague.day')}</span>
            <DayField label={t('colleague.day')} value={draft.day} onPick={(day) => set({ day })} />
          </label>
        )}
        <textarea
          rows={way === 'followUp' ? 2 : 3}
          aria-label={t(`colleague.words.${way}`)}
          placeholder={t(`colleague.words.${way}`)}
          maxLength={4_000}
          value={draft.words}
          onChange={(event) => set({ words: event.target.value })}
        />
        <p className={css.acts}>
          <Button look="main" type="submit" disabled={!ready}>
            {t(`colleague.go.${way}`)}
          </Button>
          <span className={css.quiet}>{t(`colleague.says.${way}`)}</span>
        </p>
      </div>
    </form>
  );
}

const begun = ({ lines }: QuoteView): Draft => ({
  words: '',
  whom: '',
  line: (lines.find(({ buildId }) => buildId !== undefined) ?? lines[0])?.id ?? '',
  item: '',
  day: '',
});

function mayWrite(way: Way, { lines }: QuoteView, { may, people }: ColleaguesView): boolean {
  switch (way) {
    case 'technical':
      return may.ask && lines.length > 0;
    case 'look':
      return may.ask && people.length > 0;
    case 'handOver':
      return may.handOver && people.some(({ quotes }) => quotes);
    default:
      return true;
  }
}

function whomFor(
  way: Way,
  { people }: ColleaguesView,
  t: ReturnType<typeof useSpeech>['t'],
): { value: string; text: string }[] {
  const named = people.map(({ id, name, role }) => ({ value: id, text: `${name}, ${t(`role.${role}`)}` }));
  switch (way) {
    case 'note':
      return [];
    case 'technical':
      return [
        { value: ':modeller', text: t('colleague.any.modeller') },
        { value: ':manager', text: t('colleague.any.manager') },
        ...named,
      ];
    case 'look':
      return named;
    case 'followUp':
      return [{ value: ':', text: t('colleague.me') }, ...named];
    case 'handOver':
      return named.filter(({ value }) => people.some(({ id, quotes }) => id === value && quotes));
  }
}

function isReady(way: Way, { words, whom, line, day }: Draft): boolean {
  if (way === 'followUp') return day !== '';
  if (way === 'handOver') return whom !== '';
  return words.trim() !== '' && (way === 'note' || whom !== '') && (way !== 'technical' || line !== '');
}

function sent(way: Way, { id, version }: QuoteView, { words, whom, line, item, day }: Draft) {
  const at = { id };
  const [person, role] = whom.startsWith(':') ? [null, whom.slice(1)] : [whom, null];
  switch (way) {
    case 'note':
      return ask('POST /quotes/{id}/notes', { at, input: { words } });
    case 'technical':
    case 'look':
      return ask('POST /quotes/{id}/requests', {
        at,
        input: {
          kind: way,
          of: person,
          role: role as 'modeller' | 'manager' | null,
          line: way === 'technical' ? line : null,
          item: way === 'technical' && item !== '' ? item : null,
          words,
        },
      });
    case 'followUp':
      return ask('POST /quotes/{id}/follow-ups', { at, input: { day, words, for: person } });
    case 'handOver':
      return ask('POST /quotes/{id}/hand-over', { at, input: { version, to: whom, words } });
  }
}

/** At which line something is asked, and in the place of which item of its build a special part is wanted. */
function AtLine({
  quote,
  draft: { line, item },
  onChange,
}: {
  quote: QuoteView;
  draft: Draft;
  onChange: (change: Partial<Draft>) => void;
}) {
  const { t, language } = useSpeech();
  const [items, setItems] = useState<{ of: string; items: BuildItem[] }>({ of: '', items: [] });
  useEffect(() => {
    let over = false;
    void ask('GET /quotes/{id}/lines/{line}/items', { at: { id: quote.id, line } }).then((answer) => {
      if (!over && answer.ok) setItems({ of: line, items: answer.value });
    });
    return () => {
      over = true;
    };
  }, [quote.id, line]);
  return (
    <>
      <Select
        label={t('colleague.line')}
        value={line}
        options={quote.lines.map(({ id, position, name, partNumber }) => ({
          value: id,
          text: `${String(position)} ${own(name, language)}${partNumber === '' ? '' : `, ${partNumber}`}`,
        }))}
        onChange={(event) => onChange({ line: event.target.value, item: '' })}
      />
      {items.of === line && items.items.length > 0 && (
        <Select
          label={t('colleague.item')}
          value={item}
          options={[
            { value: '', text: t('colleague.noPart') },
            ...items.items.map(({ sku, name }) => ({ value: sku, text: `${own(name, language)}, ${sku}` })),
          ]}
          onChange={(event) => onChange({ item: event.target.value })}
        />
      )}
    </>
  );
}
