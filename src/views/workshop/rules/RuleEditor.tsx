import { useEffect, useMemo, useState } from 'react';
import { Trash2 } from 'lucide-react';
import type { Rule } from '../../../core/model';
import { isSameRule, readSentence, sentenceOf, wordsOf, type Language } from '../../../core/modelling';
import { own } from '../../../i18n';
import { Button, Field, Select } from '../../../ui';
import { CodeField } from '../../../ui/code-field';
import { useEcho } from '../../../ui/useEcho';
import { DayField } from '../../parts/DayField';
import { FormulaField } from '../../parts/formula-field/FormulaField';
import { useSpeech } from '../../speech';
import type { Draft } from '../session/useDraft';
import { useScope } from '../session/useScope';
import { formulasOf, ruleEdit, withFormula, withReasons } from './rule-edit';
import { problemIn, sentenceProposals } from './sentence-words';
import { RuleLooked } from './RuleLooked';
import { TableRows } from './TableRows';
import css from './rules.module.css';

interface Props {
  draft: Draft;
  /** The draft's id. */
  id: string;
  rule: Rule;
  fires: boolean;
  onRemove: () => void;
  /** Goes to another rule. */
  onRule: (id: string) => void;
}

/** One rule: its sentence, or its formulas, and when and where it is in force. */
export function RuleEditor({ draft, id, rule, fires, onRemove, onRule }: Props) {
  const words = useSpeech();
  const { t } = words;
  const [asFormulas, setAsFormulas] = useState(false);
  const { document, session } = draft;
  const language = words.language as Language;
  const own = useMemo(() => wordsOf(document, language), [document, language]);
  const sentence = useMemo(() => sentenceOf(rule, own), [rule, own]);
  const set = (next: Rule): Rule => {
    const now = session.seen().document;
    const made = withReasons(next, rule, now);
    const edit = ruleEdit(now, made);
    if (edit) session.edit(edit, `rules/${rule.id}`);
    return made;
  };
  const shown = asFormulas || !sentence.exact;
  return (
    <section className={css.editor} aria-label={t('draft.rule.sentence')}>
      <div className={css.bar}>
        <span className={css.code}>{rule.id}</span>
        <span className={css.quiet}>{t(`draft.rule.kind.${rule.kind}`)}</span>
        <span className={css.quiet}>{fires ? t('draft.rule.fires') : t('draft.rule.firesNot')}</span>
        <span className={css.push} />
        <Button
          look="plain"
          aria-pressed={shown}
          disabled={!sentence.exact}
          onClick={() => setAsFormulas(!shown)}
        >
          {shown ? t('draft.rule.asSentence') : t('draft.rule.formulas')}
        </Button>
        <Button
          look="plain"
          aria-label={t('draft.rule.remove')}
          title={t('draft.rule.remove')}
          onClick={onRemove}
        >
          <Trash2 size={14} aria-hidden />
        </Button>
      </div>
      {shown ? (
        <Formulas draft={draft} rule={rule} onSet={set} />
      ) : (
        <div className={css.sentence}>
          <SentenceField key={rule.id} draft={draft} rule={rule} text={sentence.text} onSet={set} />
        </div>
      )}
      <RuleLooked draft={draft} rule={rule} onRule={onRule} />
      {rule.kind === 'table' && <TableRows id={id} rule={rule} draft={draft} onSet={set} />}
      <Force draft={draft} rule={rule} onSet={set} />
    </section>
  );
}

/** The sentence while it is typed. What is understood becomes the rule at once; what is not stays as typed. */
function SentenceField({
  draft,
  rule,
  text,
  onSet,
}: Pick<Props, 'draft' | 'rule'> & { text: string; onSet: (rule: Rule) => Rule }) {
  const words = useSpeech();
  const { t } = words;
  const [typed, setTyped] = useState(() => (isBlank(rule) ? '' : text));
  const { document } = draft;
  const languages = useMemo(() => {
    const first = words.language as Language;
    return [wordsOf(document, first), wordsOf(document, first === 'en' ? 'de' : 'en')];
  }, [document, words.language]);
  const [first] = languages;
  const read = useMemo(() => readSentence(typed, languages, rule), [typed, languages, rule]);
  /** Rules as they were made here: what they say is what stands in the field, or stood there a key before. */
  const echo = useEcho<Rule>(isSameRule);
  useEffect(() => {
    // Taken back, or changed in another way: then the field shows what the rule says by now.
    if (isBlank(rule) || echo.hears(rule)) return;
    const said = readSentence(typed, languages, rule);
    const still = said.ok && isSameRule(rule, said.rule);
    if (!still) setTyped(text);
    // oxlint-disable-next-line react/exhaustive-deps -- only another rule is a reason
  }, [rule]);
  if (!first) return null;
  return (
    <CodeField
      label={t('draft.rule.sentence')}
      hideLabel
      lines="many"
      value={typed}
      hint={t('draft.rule.hint')}
      problems={read.ok ? noProblems : [problemIn(typed, read.problem, words)]}
      propose={(given, at) => sentenceProposals(given, at, first, rule, words)}
      phrases={{ Completions: t('formula.proposals') }}
      onChange={(next) => {
        setTyped(next);
        const now = readSentence(next, languages, rule);
        if (now.ok) echo.said(onSet(now.rule));
      }}
    />
  );
}

/** Nothing was said yet. */
const isBlank = (rule: Rule): boolean =>
  rule.kind === 'require' && rule.must === 'true' && rule.when === undefined;

const noProblems: readonly [] = [];

/** The formulas of a rule, each in its field. */
function Formulas({ draft, rule, onSet }: Pick<Props, 'draft' | 'rule'> & { onSet: (rule: Rule) => void }) {
  const { t, language } = useSpeech();
  const { scope, nameOf } = useScope(draft.document, language);
  return (
    <div className={css.formulas}>
      {formulasOf(rule).map(({ name, at, source }) => (
        <FormulaField
          key={`${name}${String(at ?? '')}`}
          label={t(`draft.rule.formula.${name}`, { at: String((at ?? 0) + 1) })}
          value={source}
          scope={scope}
          {...(name === 'when' || name === 'must' || name === 'all'
            ? { wanted: { is: 'yesno' } as const }
            : {})}
          nameOf={nameOf}
          onChange={(next) => onSet(withFormula(rule, { name, ...(at === undefined ? {} : { at }) }, next))}
        />
      ))}
    </div>
  );
}

const severities = ['error', 'warning', 'note'] as const;

/** The places where a rule is in force, with one more or fewer; nothing where it is so everywhere. */
function whereWith(
  where: Rule['where'],
  input: string,
  values: readonly { id: string }[],
  { value, on }: { value: string; on: boolean },
): Rule['where'] {
  const before = where?.[input] ?? values.map(({ id }) => id);
  const next = values.flatMap(({ id }) => ((id === value ? on : before.includes(id)) ? [id] : []));
  const { [input]: _, ...others } = where ?? {};
  // In force nowhere is no rule; everywhere needs no words.
  const made = next.length === 0 || next.length === values.length ? others : { ...others, [input]: next };
  return Object.keys(made).length === 0 ? undefined : made;
}

/** When and where a rule is in force, how much weight it has, and why, in each language. */
function Force({ draft, rule, onSet }: Pick<Props, 'draft' | 'rule'> & { onSet: (rule: Rule) => void }) {
  const { t, language } = useSpeech();
  const { document } = draft;
  const change = (part: Readonly<Record<string, unknown>>): void => {
    const next = { ...rule, ...part } as Record<string, unknown>;
    onSet(
      Object.fromEntries(Object.entries(next).filter(([, value]) => value !== undefined)) as unknown as Rule,
    );
  };
  const weighed =
    rule.kind === 'require' || rule.kind === 'exclude' || rule.kind === 'limit' || rule.kind === 'table';
  return (
    <div className={css.force}>
      {document.languages.map((language) => (
        <Reason
          key={`${rule.id} ${language}`}
          label={language === 'de' ? t('draft.rule.german') : t('draft.rule.english')}
          value={rule.reason[language] ?? ''}
          onChange={(text) => change({ reason: { ...rule.reason, [language]: text } })}
        />
      ))}
      {weighed && (
        <Select
          label={t('draft.rule.severity')}
          value={rule.severity ?? 'error'}
          options={severities.map((each) => ({ value: each, text: t(`draft.rule.wide.${each}`) }))}
          onChange={({ target }) => {
            const severity = severities.find((each) => each === target.value) ?? 'error';
            change({ severity: severity === 'error' ? undefined : severity });
          }}
        />
      )}
      {document.context.map(({ id, name, values }) => (
        <fieldset key={id} className={css.where}>
          <legend>{own(name, language) || id}</legend>
          {values.map((value) => (
            <label key={value.id}>
              <input
                type="checkbox"
                checked={rule.where?.[id]?.includes(value.id) ?? true}
                onChange={({ target }) =>
                  change({
                    where: whereWith(rule.where, id, values, { value: value.id, on: target.checked }),
                  })
                }
              />
              {own(value.name, language) || value.id}
            </label>
          ))}
        </fieldset>
      ))}
      <Day
        label={t('draft.rule.from')}
        value={rule.from ?? ''}
        onPick={(day) => change({ from: day === '' ? undefined : day })}
      />
      <Day
        label={t('draft.rule.until')}
        value={rule.until ?? ''}
        onPick={(day) => change({ until: day === '' ? undefined : day })}
      />
    </div>
  );
}

function Day(props: { label: string; value: string; onPick: (day: string) => void }) {
  return (
    <div className={css.day}>
      <span>{props.label}</span>
      <DayField {...props} />
    </div>
  );
}

/** Why, in one language: kept when the field is left. */
function Reason({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
}) {
  /** What is typed and not kept yet. */
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <Field
      label={label}
      value={typed ?? value}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={() => {
        if (typed !== null && typed.trim() !== value) onChange(typed.trim());
        setTyped(null);
      }}
    />
  );
}
