import { useState, type ReactNode } from 'react';
import { Trash2 } from 'lucide-react';
import type { BenchView, VariantView } from '../../../contract';
import { exact } from '../../../core/exact';
import { money, moneyDifference } from '../../../i18n';
import { Button, classes, say } from '../../../ui';
import { ask, sentences } from '../../api';
import { useAnswer } from '../../parts/useAnswer';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import css from './variants.module.css';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';

interface Props {
  bench: Bench;
  view: BenchView;
  words: Words;
  frozen: boolean;
  onOpen: (variant: string) => void;
}

/**
 * The variants of a group next to each other: what differs, what each costs and weighs, and the way of one
 * or several onto the quote.
 */
export function Variants({ bench, view, words, frozen, onOpen }: Props) {
  const { t } = useSpeech();
  const { settled } = bench;
  // Read again once what was decided is saved; what was read last is shown until then.
  const [asked, setAsked] = useState<unknown>(null);
  if (bench.save === 'saved' && asked !== bench.content) setAsked(bench.content);
  const { last, again } = useAnswer<VariantView[]>(asked, async () => {
    await settled();
    return ask('GET /builds/{id}/variants', { at: { id: view.build.id } });
  });
  const variants = last?.ok ? last.value : [];
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set([view.build.id]));
  const [alternatives, setAlternatives] = useState(false);
  const base = variants.find((each) => each.id === view.build.id) ?? variants[0];
  const send = async () => {
    const quoteId = view.quote?.id;
    if (quoteId === undefined) return;
    const now = await ask('GET /quotes/{id}', { at: { id: quoteId } });
    const builds = variants
      .filter((each) => chosen.has(each.id) && each.line === undefined)
      .map((each) => each.id);
    const answer = now.ok
      ? await ask('POST /quotes/{id}/variants', {
          at: { id: quoteId },
          input: {
            version: now.value.version,
            builds,
            alternatives,
          },
        })
      : now;
    if (answer.ok) window.location.assign(`/quotes/${quoteId}`);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const remove = async (variant: VariantView) => {
    const answer = await ask('DELETE /builds/{id}', { at: { id: variant.id } });
    if (!answer.ok) {
      say(sentences(answer.failures, t('request.failed')), true);
      return;
    }
    const other = variants.find((each) => each.id !== variant.id);
    if (other) onOpen(variant.id === view.build.id ? other.id : view.build.id);
    await again();
  };
  if (!base) return <p className={shared.note}>{t('variant.reading')}</p>;
  if (variants.length === 1) return <p className={shared.note}>{t('variant.only')}</p>;
  const ready = variants.filter((each) => chosen.has(each.id) && each.complete && each.line === undefined);
  return (
    <div className={css.variants}>
      <Table
        {...{ view, words, variants, base, frozen, chosen, onOpen }}
        onChoose={(id) =>
          setChosen(
            chosen.has(id) ? new Set([...chosen].filter((each) => each !== id)) : new Set([...chosen, id]),
          )
        }
        onRemove={(variant) => void remove(variant)}
      />
      {!frozen && view.quote && (
        <div className={css.acts}>
          <Button look="main" disabled={ready.length === 0} onClick={() => void send()}>
            {t('variant.send', { letters: ready.map((each) => each.letter).join(', ') || '–' })}
          </Button>
          <label>
            <input
              type="checkbox"
              checked={alternatives}
              disabled={
                ready.length === 0 ||
                ready.length + variants.filter((each) => each.line !== undefined).length < 2
              }
              onChange={(event) => setAlternatives(event.target.checked)}
            />{' '}
            {t('variant.alternatives')}
          </label>
        </div>
      )}
    </div>
  );
}

interface TableProps extends Pick<Props, 'view' | 'words' | 'frozen' | 'onOpen'> {
  variants: readonly VariantView[];
  /** The one that the others are compared with. */
  base: VariantView;
  chosen: ReadonlySet<string>;
  onChoose: (id: string) => void;
  onRemove: (variant: VariantView) => void;
}

/** Row by row what differs, then what each costs, takes and comes to. */
function Table(props: TableProps) {
  const { view, words, variants, base } = props;
  const { t, language } = useSpeech();
  const { decimals, currency } = view.tariff;
  const valueIn = (variant: VariantView, row: string) =>
    variant.shown.includes(row) ? words.value(row, variant.values[row]) : '–';
  const figureIn = (variant: VariantView, id: string): string => {
    const calculation = view.outline.calculations.find((each) => each.id === id);
    const value = variant.figures.find((each) => each.id === id)?.value ?? null;
    if (value === null) return '·';
    return calculation?.type === 'number'
      ? words.figure(value, calculation.unit ?? '', calculation.decimals ?? 2)
      : value;
  };
  const differs = (of: (variant: VariantView) => string) => new Set(variants.map(of)).size > 1;
  const rows = view.outline.sections
    .flatMap((section) => section.rows)
    .filter((row) => differs((each) => valueIn(each, row)));
  const figures = base.figures.map(({ id }) => id).filter((id) => differs((each) => figureIn(each, id)));
  return (
    <table className={classes(shared.table, css.table)}>
      <thead>
        <tr>
          <th scope="col">{t('variant.differs', { count: rows.length })}</th>
          {variants.map((each) => (
            <Letter key={each.id} variant={each} {...props} />
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <Compared key={row} name={words.row(row)} variants={variants} cell={(each) => valueIn(each, row)} />
        ))}
        <Compared
          className={css.sum}
          name={`${t('bench.net')} ${currency}`}
          variants={variants}
          cell={({ id, unitNet }) => (
            <>
              <span className={shared.code}>{money(unitNet, language, decimals)}</span>{' '}
              {id !== base.id && (
                <span className={shared.quiet}>
                  {moneyDifference(exact(unitNet).minus(base.unitNet).toString(), language, decimals)}
                </span>
              )}
            </>
          )}
        />
        <Compared
          name={t('bench.lead')}
          variants={variants}
          cell={({ leadDays }) => (leadDays === null ? '·' : t('bench.days', { count: leadDays }))}
        />
        {figures.map((id) => (
          <Compared key={id} name={words.row(id)} variants={variants} cell={(each) => figureIn(each, id)} />
        ))}
        <Compared
          name={t('build.partNumber')}
          variants={variants}
          cellClass={shared.code}
          cell={({ partNumber, line }) => (
            <>
              {partNumber}
              {line !== undefined && <span className={shared.quiet}> {t('variant.onLine', { line })}</span>}
            </>
          )}
        />
      </tbody>
    </table>
  );
}

/** One thing of every variant. */
function Compared({
  name,
  variants,
  cell,
  className,
  cellClass,
}: {
  name: string;
  variants: readonly VariantView[];
  cell: (variant: VariantView) => ReactNode;
  className?: string | undefined;
  cellClass?: string | undefined;
}) {
  return (
    <tr className={className}>
      <th scope="row">{name}</th>
      {variants.map((each) => (
        <td key={each.id} className={cellClass}>
          {cell(each)}
        </td>
      ))}
    </tr>
  );
}

/** A variant by its letter: chosen for the quote, opened, taken away. */
function Letter({
  variant: each,
  view,
  frozen,
  chosen,
  onChoose,
  onOpen,
  onRemove,
}: TableProps & { variant: VariantView }) {
  const { t } = useSpeech();
  const { id, letter } = each;
  const here = id === view.build.id;
  const free = !frozen && each.line === undefined;
  return (
    <th scope="col" className={classes(css.letter, here && css.here)}>
      {free && (
        <input
          type="checkbox"
          aria-label={t('variant.choose', { letter })}
          checked={chosen.has(id)}
          disabled={!each.complete}
          onChange={() => onChoose(id)}
        />
      )}
      <button
        type="button"
        className={css.open}
        onClick={() => {
          if (!here) onOpen(id);
        }}
      >
        {letter}
      </button>
      {free && (
        <Button
          look="plain"
          aria-label={t('variant.remove', { letter })}
          title={t('variant.remove', { letter })}
          onClick={() => onRemove(each)}
        >
          <Trash2 size={12} aria-hidden />
        </Button>
      )}
    </th>
  );
}
