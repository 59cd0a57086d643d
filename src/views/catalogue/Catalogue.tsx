import { useState } from 'react';
import { Plus, SlidersHorizontal } from 'lucide-react';
import type { CatalogueItem, CatalogueView, QuoteRow } from '../../contract';
import { passesFilters, type PropertyFilters } from '../../core/items';
import { money, number, own } from '../../i18n';
import { Button, DataTable, Field, Select, say, type Column } from '../../ui';
import { putOnQuote } from '../parts/put-on-quote';
import { ask, sentences } from '../api';
import { useFound } from '../parts/useFound';
import { unitText } from '../parts/unit-text';
import { NewQuote } from '../quotes/NewQuote';
import { Speech, useSpeech } from '../speech';
import { Filters } from './Filters';
import css from './catalogue.module.css';

interface Props {
  language: string;
  view: CatalogueView;
  /** Drafts that items and builds can go on. */
  quotes: QuoteRow[];
  quoteId?: string | undefined;
  find: string;
  mayQuote: boolean;
}

export default function Catalogue(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

const textsOf = (item: CatalogueItem) => [item.sku, ...Object.values(item.name)];

function Page({ view, quotes, quoteId, find, mayQuote }: Props) {
  const { t, language } = useSpeech();
  const [family, setFamily] = useState<string>();
  const { field, rows: matches } = useFound(view.items, textsOf, find);
  const [chosen, setChosen] = useState(quoteId ?? '');
  const [opening, setOpening] = useState(false);

  const [filters, setFilters] = useState<PropertyFilters>({});
  const inFamily = family ? matches.filter((item) => item.family === family) : matches;
  const shown = inFamily.filter(({ properties }) => passesFilters(properties, filters));

  const acts = useActs(chosen, () => setOpening(true));
  const columns = useColumns(view, mayQuote ? acts : undefined);
  return (
    <div className={css.page}>
      <Families
        view={view}
        matches={matches}
        family={family}
        onFamily={(next) => {
          setFamily(next);
          setFilters({});
        }}
      />
      <div className={css.main}>
        <div className={css.head}>
          <div>
            <h1>{t('catalogue.title')}</h1>
            <p className={css.quiet}>
              {t('catalogue.items', { count: shown.length })} · {own(view.priceList.name, language)}
            </p>
          </div>
          <Field label={t('catalogue.find')} autoFocus {...field} />
          {mayQuote && (
            <Select
              label={t('catalogue.toQuote')}
              value={chosen}
              onChange={(event) => setChosen(event.target.value)}
              options={[
                { value: '', text: t('catalogue.pickQuote') },
                ...quotes.map((quote) => ({ value: quote.id, text: `${quote.number} ${quote.customer}` })),
              ]}
            />
          )}
        </div>
        <Filters
          key={family ?? ''}
          properties={view.families.find(({ code }) => code === family)?.properties ?? []}
          filters={filters}
          onFilters={setFilters}
        />
        <DataTable
          label={t('catalogue.title')}
          columns={columns}
          rows={shown}
          rowId={(item) => item.sku}
          empty={t('catalogue.none', { text: field.value })}
        />
      </div>
      <NewQuote open={opening} onClose={() => setOpening(false)} />
    </div>
  );
}

/** The families, each with how many of its items are found. */
function Families({
  view,
  matches,
  family,
  onFamily,
}: {
  view: CatalogueView;
  matches: readonly CatalogueItem[];
  family: string | undefined;
  onFamily: (family: string | undefined) => void;
}) {
  const { t, language } = useSpeech();
  const all = [
    { code: undefined, text: t('catalogue.all') },
    ...view.families.map(({ code, name }) => ({ code, text: own(name, language) })),
  ];
  return (
    <nav className={css.families} aria-label={t('catalogue.families')}>
      {all.map(({ code, text }) => (
        <button
          key={code ?? 'all'}
          type="button"
          className={css.family}
          aria-pressed={family === code}
          onClick={() => onFamily(code)}
        >
          {text}
          <span className={css.count}>
            {code ? matches.filter((item) => item.family === code).length : matches.length}
          </span>
        </button>
      ))}
    </nav>
  );
}

/** What can be done with an item: it, or a build of it, goes onto the chosen quote. */
interface Acts {
  configure: (item: CatalogueItem) => Promise<void>;
  add: (item: CatalogueItem) => Promise<void>;
}

function useActs(chosen: string, onNeedQuote: () => void): Acts {
  const { t } = useSpeech();
  const needsQuote = (): boolean => {
    if (chosen) return false;
    say(t('catalogue.needQuote'), true);
    onNeedQuote();
    return true;
  };
  const configure = async (item: CatalogueItem) => {
    if (needsQuote()) return;
    const answer = await ask('POST /builds', { input: { quoteId: chosen, modelId: item.model } });
    // What leaves nothing to decide goes on at once; its line leads to the Bench as any.
    const put = answer.ok && answer.value.ready ? await putOnQuote(chosen, answer.value.id) : null;
    if (put?.ok) window.location.assign(`/quotes/${chosen}`);
    else if (answer.ok) window.location.assign(`/bench/${answer.value.id}`);
    else say(sentences(answer.failures, t('request.failed')), true);
  };
  const add = async (item: CatalogueItem) => {
    if (needsQuote()) return;
    const quote = await ask('GET /quotes/{id}', { at: { id: chosen } });
    const answer = quote.ok
      ? await ask('POST /quotes/{id}/lines', {
          at: { id: chosen },
          input: {
            version: quote.value.version,
            sku: item.sku,
            quantity: item.usual,
          },
        })
      : quote;
    if (answer.ok && quote.ok) say(t('catalogue.added', { sku: item.sku, number: quote.value.number }));
    else if (!answer.ok) say(sentences(answer.failures, t('request.failed')), true);
  };
  return { configure, add };
}

function useColumns(view: CatalogueView, acts: Acts | undefined): Column<CatalogueItem>[] {
  const { t, language } = useSpeech();
  const { decimals, currency } = view.priceList;
  const cost: Column<CatalogueItem> = {
    id: 'cost',
    title: t('catalogue.cost'),
    kind: 'figure',
    width: '100px',
    sort: (item) => Number(item.cost ?? 0),
    cell: (item) => (item.cost && item.kind !== 'model' ? money(item.cost, language, decimals) : ''),
  };
  return [
    {
      id: 'sku',
      title: t('catalogue.item'),
      kind: 'code',
      width: '130px',
      sort: (item) => item.sku,
      cell: (item) => item.sku,
    },
    {
      id: 'name',
      title: t('catalogue.name'),
      sort: (item) => own(item.name, language),
      cell: (item) => own(item.name, language),
    },
    {
      id: 'mass',
      title: `${t('catalogue.mass')} kg`,
      kind: 'figure',
      width: '90px',
      sort: (item) => Number(item.mass ?? 0),
      cell: (item) => (item.mass ? number(item.mass, language, 1) : ''),
    },
    {
      id: 'lead',
      title: t('catalogue.lead'),
      kind: 'figure',
      width: '90px',
      sort: (item) => item.leadDays,
      cell: (item) => t('unit.days', { count: item.leadDays }),
    },
    { id: 'unit', title: t('catalogue.unit'), width: '60px', cell: (item) => unitText(item.unit, t) },
    ...(view.items.some((item) => item.cost !== undefined) ? [cost] : []),
    {
      id: 'price',
      title: `${t('catalogue.price')} ${currency}`,
      kind: 'figure',
      width: '110px',
      sort: (item) => Number(item.price ?? 0),
      cell: (item) =>
        item.price ? (
          money(item.price, language, decimals)
        ) : item.model ? (
          ''
        ) : (
          <span className={css.quiet}>{t('catalogue.noPrice')}</span>
        ),
    },
    {
      id: 'act',
      title: '',
      cell: (item) => acts && <Act item={item} acts={acts} />,
    },
  ];
}

/** What is configured is configured; what has a price is added. */
function Act({ item, acts }: { item: CatalogueItem; acts: Acts }) {
  const { t, language } = useSpeech();
  if (item.model)
    return (
      <Button
        className={css.act}
        onClick={() => void acts.configure(item)}
        aria-label={`${t('catalogue.configure')} ${own(item.name, language)}`}
        title={t('catalogue.configure')}
      >
        <SlidersHorizontal size={13} aria-hidden />
        <span>{t('catalogue.configure')}</span>
      </Button>
    );
  return item.price ? (
    <Button
      className={css.act}
      look="plain"
      onClick={() => void acts.add(item)}
      aria-label={`${t('catalogue.add')} ${item.sku}`}
      title={t('catalogue.add')}
    >
      <Plus size={13} aria-hidden />
      <span>{t('catalogue.add')}</span>
    </Button>
  ) : null;
}
