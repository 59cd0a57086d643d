import { useMemo, useRef, useState } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Plus, Zap } from 'lucide-react';
import type { ModelDocument, Rule } from '../../../core/model';
import {
  sentenceOf,
  wordsOf,
  type Edit,
  type Language,
  type Sentence,
  type Words,
} from '../../../core/modelling';
import type { FileTables } from '../../../contract';
import { Button, Field, Select, classes, say } from '../../../ui';
import { send, sentences } from '../../api';
import { useSpeech } from '../../speech';
import { steps } from '../problem-path';
import type { Draft } from '../session/useDraft';
import { blankRule, freeRuleId } from './rule-edit';
import { Exchange } from '../parts/Exchange';
import { useRemoval } from '../Removal';
import { RuleEditor } from './RuleEditor';
import { TablesPreview } from './TablesPreview';
import css from './rules.module.css';

interface Props {
  draft: Draft;
  /** The draft's id. */
  id: string;
  /** The rule that is open. */
  open: string | null;
  onOpen: (id: string | null) => void;
  /** A row that is looked for: rules that touch it. */
  row: string | null;
}

const kinds = ['require', 'exclude', 'limit', 'table', 'set', 'usual', 'show', 'say'] as const;

/** Sentences, printed when they are first looked at, and kept as long as the rule and its words are the same. */
const known = new WeakMap<Words, WeakMap<Rule, Sentence>>();
function sentenceFor(rule: Rule, words: Words): Sentence {
  const own = known.get(words) ?? new WeakMap<Rule, Sentence>();
  known.set(words, own);
  const sentence = own.get(rule) ?? sentenceOf(rule, words);
  own.set(rule, sentence);
  return sentence;
}

/** The words of the document; an edit of a rule changes none of them. */
function useWords(document: ModelDocument, language: string): Words {
  const { id, format, name, languages, context, sections, features, parameters, calculations } = document;
  const { library, properties, classes: of } = document;
  return useMemo(() => {
    const empty = { rules: [], numbering: [], prices: [], surcharges: [], materials: [], operations: [] };
    const named = { id, format, name, languages, context, sections, features, parameters, calculations };
    return wordsOf(
      {
        ...named,
        ...empty,
        figures: { more: [] },
        ...(library ? { library } : {}),
        ...(properties ? { properties } : {}),
        ...(of ? { classes: of } : {}),
      },
      language as Language,
    );
  }, [
    id, format, name, languages, context, sections, features, parameters, calculations, library, properties, of, language,
  ]); // prettier-ignore
}

/** The rules of a model as sentences, found by what they say, what they are, and whether they fire. */
export function Rules({ draft, id, open, onOpen, row }: Props) {
  const { t, language } = useSpeech();
  const [text, setText] = useState('');
  const [kind, setKind] = useState('');
  const [firing, setFiring] = useState(false);
  const [grouped, setGrouped] = useState<Grouping>('not');
  const [tables, setTables] = useState<FileTables | null>(null);
  const { document, session, tried } = draft;
  const removal = useRemoval();
  const words = useWords(document, language);
  const fired = useMemo(() => new Set(tried?.seen?.fired ?? []), [tried]);
  const wrong = useMemo(
    () =>
      new Set(
        (tried?.problems ?? []).flatMap(({ path }) => {
          const [list, id] = steps(path, document);
          return list === 'rules' && id !== undefined ? [id] : [];
        }),
      ),
    [tried, document],
  );
  const shown = useMemo(() => {
    const sought = text.trim().toLowerCase().split(/\s+/).filter(Boolean);
    return document.rules.filter((rule) => {
      if (kind !== '' && rule.kind !== kind) return false;
      if (firing && !fired.has(rule.id)) return false;
      if (sought.length === 0 && row === null) return true;
      const said = `${rule.id} ${sentenceFor(rule, words).text}`.toLowerCase();
      const name = row === null ? '' : (words.rowOf(row)?.name ?? row).toLowerCase();
      return sought.every((each) => said.includes(each)) && said.includes(name);
    });
  }, [document.rules, text, kind, firing, fired, words, row]);
  const entries = useMemo(
    () => inGroups(shown, grouped, (kind) => t(`draft.rule.kind.${kind}`), words, t('draft.rule.by.others')),
    [shown, grouped, words, t],
  );
  const rule = document.rules.find(({ id }) => id === open);
  const add = (): void => {
    const id = freeRuleId(session.seen().document);
    session.edit({ do: 'add', to: ['rules'], part: { ...blankRule(id) } });
    setText('');
    setKind('');
    setFiring(false);
    onOpen(id);
  };
  const readTables = async (file: File): Promise<void> => {
    const answer = await send('POST /read-tables', { file });
    if (answer.ok) setTables(answer.value);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  return (
    <div className={css.rules}>
      {tables && <TablesPreview draft={draft} file={tables} onClose={() => setTables(null)} />}
      <div className={css.filters}>
        <Field label={t('draft.rule.find')} value={text} onChange={({ target }) => setText(target.value)} />
        <Select
          label={t('draft.rows.what')}
          value={kind}
          options={[
            { value: '', text: t('draft.rule.all') },
            ...kinds.map((each) => ({ value: each, text: t(`draft.rule.kind.${each}`) })),
          ]}
          onChange={({ target }) => setKind(target.value)}
        />
        <Select
          label={t('draft.rule.grouped')}
          value={grouped}
          options={groupings.map((each) => ({ value: each, text: t(`draft.rule.by.${each}`) }))}
          onChange={({ target }) => setGrouped(groupings.find((each) => each === target.value) ?? 'not')}
        />
        <label className={css.check}>
          <input type="checkbox" checked={firing} onChange={({ target }) => setFiring(target.checked)} />
          {t('draft.rule.firing')}
        </label>
        <span className={css.quiet}>{t('draft.rule.count', { count: shown.length })}</span>
        <span className={css.push} />
        <Exchange
          compact
          draft={id}
          part="tables"
          out={['dmn']}
          onFile={{ accept: '.dmn,.xml', take: readTables }}
        />
        <Button onClick={add}>
          <Plus size={14} aria-hidden />
          {t('draft.rule.add')}
        </Button>
      </div>
      {shown.length === 0 ? (
        <p className={css.empty}>{t('draft.rule.none')}</p>
      ) : (
        <List {...{ entries, words, fired, wrong, open, onOpen }} />
      )}
      {rule && (
        <RuleEditor
          key={rule.id}
          draft={draft}
          id={id}
          rule={rule}
          fires={fired.has(rule.id)}
          onRule={onOpen}
          onRemove={() => {
            const edit: Edit = { do: 'remove', at: ['rules', rule.id] };
            removal(draft, edit, () => {
              session.edit(edit);
              onOpen(null);
            });
          }}
        />
      )}
    </div>
  );
}

const groupings = ['not', 'kind', 'row'] as const;
type Grouping = (typeof groupings)[number];
/** A rule, or the title of those that follow. */
type Entry = { rule: Rule } | { title: string };

/** The rules under the titles of their groups, each in its order. */
function inGroups(
  rules: readonly Rule[],
  by: Grouping,
  kindName: (kind: Rule['kind']) => string,
  words: Words,
  others: string,
): Entry[] {
  if (by === 'not') return rules.map((rule) => ({ rule }));
  const groups = new Map<string, Rule[]>();
  for (const rule of rules) {
    const [of] = 'of' in rule ? [rule.of].flat() : [];
    const row = of?.split('.')[0];
    const title =
      by === 'kind' ? kindName(rule.kind) : row === undefined ? others : (words.rowOf(row)?.name ?? row);
    groups.set(title, [...(groups.get(title) ?? []), rule]);
  }
  return [...groups].flatMap(([title, some]) => [{ title }, ...some.map((rule) => ({ rule }))]);
}

interface ListProps extends Pick<Props, 'open' | 'onOpen'> {
  entries: readonly Entry[];
  words: Words;
  fired: ReadonlySet<string>;
  wrong: ReadonlySet<string>;
}

function List({ entries, words, fired, wrong, open, onOpen }: ListProps) {
  const { t } = useSpeech();
  const scroller = useRef<HTMLDivElement>(null);
  // oxlint-disable-next-line react/incompatible-library -- nothing of it is handed on
  const virtual = useVirtualizer({
    count: entries.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 40,
    overscan: 8,
    getItemKey: (at) => {
      const entry = entries[at];
      return entry === undefined ? at : 'rule' in entry ? entry.rule.id : `title ${entry.title}`;
    },
    initialRect: { width: 800, height: 600 },
  });
  return (
    <div ref={scroller} className={css.scroller}>
      <ul
        className={css.sentences}
        style={{ height: virtual.getTotalSize() }}
        aria-label={t('draft.part.rules')}
      >
        {virtual.getVirtualItems().map(({ index, key, start }) => {
          const entry = entries[index];
          if (!entry) return null;
          if ('title' in entry)
            return (
              <li
                key={key}
                ref={virtual.measureElement}
                data-index={index}
                className={css.group}
                style={{ transform: `translateY(${String(start)}px)` }}
              >
                {entry.title}
              </li>
            );
          const { rule } = entry;
          return (
            <li
              key={key}
              ref={virtual.measureElement}
              data-index={index}
              style={{ transform: `translateY(${String(start)}px)` }}
            >
              <button
                type="button"
                className={classes(css.rule, wrong.has(rule.id) && css.wrong)}
                aria-current={rule.id === open || undefined}
                onClick={() => onOpen(rule.id)}
              >
                <span className={css.mark}>
                  {fired.has(rule.id) && <Zap size={12} aria-label={t('draft.rule.fires')} />}
                </span>
                <span className={css.kind}>{t(`draft.rule.kind.${rule.kind}`)}</span>
                <span className={css.said}>
                  {sentenceFor(rule, words).pieces.map((piece, at) => (
                    <span key={at} data-piece={piece.is}>
                      {piece.text}
                    </span>
                  ))}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
