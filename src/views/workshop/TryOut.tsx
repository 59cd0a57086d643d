import { useMemo } from 'react';
import { RotateCcw, FlaskConical, X } from 'lucide-react';
import type { DraftView } from '../../contract';
import { moneyIn, number, own } from '../../i18n';
import { Button, classes, say } from '../../ui';
import { useSpeech } from '../speech';
import { Words as BenchWords } from '../bench/words';
import type { Tried } from '../../workers/draft/computation';
import { keptTest } from './keep-test';
import { TrySection, useAsking } from './TryRows';
import type { Draft } from './session/useDraft';
import css from './try-out.module.css';

interface Props {
  draft: Draft;
  view: DraftView;
  /** The rows of the rule that is looked at. */
  lit: ReadonlySet<string>;
  onRule: (id: string) => void;
  onRow: (id: string) => void;
  /** Where it lies over the work: it is put away. */
  onClose?: (() => void) | undefined;
}

type Seen = NonNullable<Tried['seen']>;

/** The unsaved draft tried out on the real engine: what can be decided, what follows, and which rules say so. */
export function TryOut(props: Props) {
  const { draft, onClose } = props;
  const { t } = useSpeech();
  const { tried, trying } = draft;
  const seen = tried?.seen;
  const problems = tried?.problems ?? [];
  return (
    <aside className={css.try} aria-label={t('draft.try.title')} aria-busy={trying}>
      <header className={css.head}>
        <h2>{t('draft.try.title')}</h2>
        {seen && <Place draft={draft} seen={seen} />}
        <Button
          look="plain"
          onClick={draft.session.begin}
          title={t('draft.try.again')}
          aria-label={t('draft.try.again')}
        >
          <RotateCcw size={14} aria-hidden />
        </Button>
        <Button
          look="plain"
          disabled={!seen || problems.length > 0}
          title={t('draft.try.keep')}
          aria-label={t('draft.try.keep')}
          onClick={() => {
            if (!seen) return;
            const { edit, id } = keptTest(draft.session.seen().document, seen);
            if (!draft.session.edit(edit)) say(t('draft.try.kept', { id }));
          }}
        >
          <FlaskConical size={14} aria-hidden />
        </Button>
        {onClose && (
          <Button look="plain" onClick={onClose} title={t('frame.close')} aria-label={t('frame.close')}>
            <X size={14} aria-hidden />
          </Button>
        )}
      </header>
      {problems.length > 0 && (
        <p className={css.broken} role="status">
          {t('draft.try.problems', { count: problems.length })}. {t('draft.try.broken')}
        </p>
      )}
      {seen && <Shown {...props} seen={seen} />}
    </aside>
  );
}

/** Where it is tried out, such as a region. */
function Place({ draft, seen }: { draft: Draft; seen: Seen }) {
  const { language } = useSpeech();
  return draft.document.context.map(({ id, name, values }) => (
    <select
      key={id}
      aria-label={own(name, language)}
      className={css.place}
      value={seen.context.values[id] ?? ''}
      onChange={({ target }) => draft.session.place(id, target.value)}
    >
      {values.map((value) => (
        <option key={value.id} value={value.id}>
          {own(value.name, language)}
        </option>
      ))}
    </select>
  ));
}

function Shown({ draft, view, seen, lit, onRule, onRow }: Props & { seen: Seen }) {
  const { t, language } = useSpeech();
  const { picture, outline, fired } = seen;
  const { state } = picture;
  const words = useMemo(() => new BenchWords(outline, t, language, 'metric'), [outline, t, language]);
  const asking = useAsking(draft);
  const todo = state.sections.reduce((sum, section) => sum + section.todo, 0);
  const { currency, decimals } = view.tariff;
  const known = new Map(draft.document.calculations.map((each) => [each.id, each]));
  return (
    <>
      <div className={css.body}>
        {outline.sections.every(({ rows }) => rows.length === 0) && (
          <p className={css.quiet}>{t('draft.try.empty')}</p>
        )}
        {outline.sections.map((section) => (
          <TrySection
            key={`${section.place ?? ''}/${section.id}`}
            {...{ section, seen, words, draft, view, lit, asking, onRule, onRow }}
          />
        ))}
        {state.clashes.length > 0 && (
          <p className={css.broken}>
            {t('draft.try.clash', {
              what: state.clashes
                .flatMap(({ causes }) =>
                  causes.flatMap((cause) => (cause.kind === 'rule' ? [own(cause.reason, language)] : [])),
                )
                .join(' '),
            })}
          </p>
        )}
        {state.messages.length > 0 && (
          <section>
            <h3>{t('draft.try.says')}</h3>
            <ul className={css.says}>
              {state.messages.map(({ rule, text, severity }) => (
                <li key={rule} data-severity={severity}>
                  <button type="button" onClick={() => onRule(rule)}>
                    {own(text, language)}
                  </button>
                </li>
              ))}
            </ul>
          </section>
        )}
        <section>
          <h3>{t('draft.try.fires')}</h3>
          {fired.length === 0 ? (
            <p className={css.quiet}>{t('draft.try.noneFire')}</p>
          ) : (
            <ul className={css.fired}>
              {fired.map((id) => (
                <li key={id}>
                  <button type="button" onClick={() => onRule(id)}>
                    {id}
                  </button>
                </li>
              ))}
            </ul>
          )}
        </section>
        {picture.figures.some(({ value }) => value !== null) && (
          <section>
            <h3>{t('draft.try.figures')}</h3>
            <dl className={css.figures}>
              {picture.figures.map(({ id, value }) => {
                const figure = known.get(id);
                return value === null || !figure ? null : (
                  <div key={id}>
                    <dt>{own(figure.name, language)}</dt>
                    <dd>
                      {/^-?\d/.test(value) ? number(value, language, figure.decimals) : value} {figure.unit}
                    </dd>
                  </div>
                );
              })}
            </dl>
          </section>
        )}
      </div>
      <footer className={css.foot}>
        <span className={classes(css.state, state.complete && css.complete)}>
          {state.complete ? t('draft.try.complete') : t('draft.try.toDo', { count: todo })}
        </span>
        <span className={css.number}>{picture.number.text}</span>
        <span className={css.price}>{moneyIn(picture.price.list, currency, language, decimals)}</span>
        <span className={css.quiet}>
          {picture.leadDays === null ? '' : t('draft.try.days', { days: String(picture.leadDays) })}
        </span>
      </footer>
    </>
  );
}
