/** The rows of the try-out: those of the Bench, each with the way to its rules. */
import { useMemo, useState } from 'react';
import type { DraftView } from '../../contract';
import type { Target } from '../../core/engine';
import type { Outline } from '../../core/model';
import { rulesOfRow } from '../../core/modelling';
import { own } from '../../i18n';
import { useLatest } from '../../ui';
import type { Why } from '../../workers/bench/types';
import type { Tried } from '../../workers/draft/computation';
import { WhyPanel } from '../bench/panels/WhyPanel';
import type { RowActs } from '../bench/sheet/row-props';
import { SheetRow } from '../bench/sheet/SheetRow';
import type { Words } from '../bench/words';
import { useSpeech } from '../speech';
import type { Draft } from './session/useDraft';
import css from './try-out.module.css';

/** What is asked of an option that is not free, and the answer. */
export interface Asking {
  asked: { target: Target; why: Why } | null;
  close: () => void;
  acts: RowActs;
  /** The row that somebody was at last. */
  marked: string | null;
  mark: (row: string) => void;
}

/** What can be done at the rows; the same functions all the time. */
export function useAsking({ session }: Draft): Asking {
  const [asked, setAsked] = useState<Asking['asked']>(null);
  const [marked, mark] = useState<string | null>(null);
  const latest = useLatest(session);
  const acts = useMemo(
    (): RowActs => ({
      onDecide: ({ on, value }) => {
        setAsked(null);
        latest.current.decide(on, value);
      },
      onConsider: () => undefined,
      onRelease: (on) => {
        setAsked(null);
        latest.current.decide(on, undefined);
      },
      onWhy: (target) =>
        void latest.current.why(target).then((why) => {
          if (why) setAsked({ target, why });
        }),
      onAnew: () => setAsked(null),
    }),
    [latest],
  );
  return { asked, close: () => setAsked(null), acts, marked, mark };
}

interface Props {
  section: Outline['sections'][number];
  seen: NonNullable<Tried['seen']>;
  words: Words;
  draft: Draft;
  view: DraftView;
  lit: ReadonlySet<string>;
  asking: Asking;
  onRule: (id: string) => void;
  onRow: (id: string) => void;
}

/** The rows of a section that are there in what is tried. */
export function TrySection(props: Props) {
  const { section, seen, words } = props;
  const there = section.rows.filter((id) => seen.picture.state.rows[id]?.shown);
  const known = useMemo(
    () => new Map([...seen.outline.features, ...seen.outline.parameters].map((each) => [each.id, each])),
    [seen.outline],
  );
  if (there.length === 0) return null;
  return (
    <section>
      <h3>{words.section(section)}</h3>
      {there.map((id) => (
        <TryRow key={id} id={id} row={known.get(id)} {...props} />
      ))}
    </section>
  );
}

const nothing = {};

/** A row as the Bench has it; beneath it what was asked of it, and its rules where somebody was at it last. */
function TryRow({
  id,
  row,
  seen,
  words,
  draft,
  view,
  lit,
  asking,
  onRule,
  onRow,
}: Props & { id: string; row: Outline['features'][number] | Outline['parameters'][number] | undefined }) {
  const { t, language } = useSpeech();
  const [helped, setHelped] = useState(false);
  const { document } = draft;
  const { asked, acts, close, marked, mark } = asking;
  const within = marked === id;
  const rules = useMemo(() => (within ? rulesOfRow(document, id) : []), [within, document, id]);
  const state = seen.picture.state.rows[id];
  if (!state) return null;
  const here = asked?.target.on.split('.')[0] === id ? asked : null;
  return (
    <div
      className={css.row}
      data-lit={lit.has(id) || undefined}
      data-todo={state.todo || undefined}
      // After the key or the click, so that nothing moves beneath the pointer between its down and its up.
      onClick={() => mark(id)}
      onKeyUp={() => mark(id)}
    >
      <SheetRow
        id={id}
        row={row}
        sketched={false}
        state={state}
        words={words}
        differences={nothing}
        remarks={nothing}
        decimals={view.tariff.decimals}
        frozen={false}
        folded={false}
        facts={view.facts}
        advice={seen.picture.advice[id]}
        moved={false}
        drawn
        watch={undefined}
        helped={helped}
        onHelp={(on) => setHelped(on !== undefined)}
        {...acts}
      >
        {helped && row?.help && <p className={css.quiet}>{own(row.help, language)}</p>}
        {here && (
          <WhyPanel
            title={t('bench.why', { what: words.label(id) })}
            why={here.why}
            words={words}
            decimals={view.tariff.decimals}
            onClose={close}
            onTake={(way) => {
              close();
              draft.session.take(way.decisions);
            }}
          />
        )}
      </SheetRow>
      {within && rules.length > 0 && (
        <p className={css.ofRow}>
          <button type="button" onClick={() => onRow(id)}>
            {t('draft.try.rules', { count: rules.length })}
          </button>
          {rules.slice(0, 6).map((rule) => (
            <button key={rule} type="button" className={css.code} onClick={() => onRule(rule)}>
              {rule}
            </button>
          ))}
        </p>
      )}
    </div>
  );
}
