import { useMemo } from 'react';
import { firstTwice, type HouseView } from '../../contract';
import { writings, type Market } from '../../core/quotes';
import { own } from '../../i18n';
import { Grid, isBlank, isWrong, useGrid, type Row } from '../../ui/grid';
import { ask } from '../api';
import { choiceColumn, countriesColumn, textColumn } from '../parts/grid/columns';
import { useGridWords } from '../parts/grid/useGridWords';
import { useSpeech } from '../speech';
import type { Keep } from './keep';
import { TryMarket } from './TryMarket';
import { SentForm } from './SentForm';
import css from './house.module.css';

interface Props {
  view: HouseView;
  today: string;
  countries: readonly string[];
  onKeep: Keep;
}

const mostMarkets = 200;

/** Where the house sells: countries together, with what is usual there, and what comes of it for a customer. */
export function MarketsPart({ view, today, countries, onKeep }: Props) {
  const { t } = useSpeech();
  const { version, markets } = view.markets;
  const grid = useGrid(
    useMemo(() => rowsOf(markets), [markets]),
    { columns: useColumns(view, countries), most: mostMarkets },
  );
  const words = useGridWords();
  const typed = useMemo(() => marketsIn(grid.rows), [grid.rows]);
  const twice = firstTwice(typed);
  const lacking = typed.findIndex(({ code, countries: own }) => code === '' || own.length === 0);
  const wrong =
    (grid.wrong.length > 0 && t('house.toMend')) ||
    (lacking >= 0 && `${words.row(lacking + 1)}: ${t('house.market.lacks')}`) ||
    (twice && `${words.row(twice.at + 1)}: ${t(twice.message)}`) ||
    undefined;
  const keep = async (): Promise<void> => {
    const answer = await onKeep(ask('PUT /house/markets', { input: { version, markets: typed } }));
    if (answer.ok) grid.session.begin(rowsOf(answer.value.markets.markets));
  };
  return (
    <SentForm
      changed={grid.changed}
      wrong={wrong}
      onKeep={keep}
      onBack={() => grid.session.begin(rowsOf(markets))}
    >
      <div className={css.markets}>
        <div className={css.closed}>
          <h2 className={css.legend}>{t('house.markets')}</h2>
          <Grid label={t('house.markets')} grid={grid} words={words} />
          <p className={css.quiet}>{t('house.market.hint')}</p>
        </div>
        <TryMarket {...{ view, today, countries }} markets={wrong === undefined ? typed : null} />
      </div>
    </SentForm>
  );
}

function useColumns({ priceLists, regions }: HouseView, countries: readonly string[]) {
  const words = useSpeech();
  return useMemo(() => {
    const { t, language } = words;
    const needed = t('input.required');
    const choice = (
      id: 'priceList' | 'tax' | 'language' | 'units' | 'paper' | 'region',
      width: number,
      choices: readonly { kept: string; text: string }[],
      must = true,
    ) =>
      choiceColumn(
        { id, title: t(`house.market.${id}`), width, ...(must ? { needed } : {}) },
        choices,
        (typed) => t('house.market.noChoice', { value: typed }),
      );
    return [
      textColumn({ id: 'code', title: t('house.market.code'), width: 70, needed }, 6, words),
      textColumn({ id: 'name', title: t('house.name'), width: 160, needed }, 60, words),
      countriesColumn(
        { id: 'countries', title: t('house.market.countries'), width: 150, needed },
        countries,
        words,
      ),
      choice(
        'priceList',
        160,
        priceLists.map(({ code, name }) => ({ kept: code, text: own(name, language) })),
        false,
      ),
      choice(
        'tax',
        130,
        (['added', 'apart'] as const).map((kept) => ({ kept, text: t(`house.market.is.${kept}`) })),
      ),
      choice(
        'language',
        150,
        writings.map((kept) => ({ kept, text: t(`house.market.writes.${kept}`) })),
      ),
      choice(
        'units',
        110,
        (['metric', 'imperial'] as const).map((kept) => ({ kept, text: t(`house.market.is.${kept}`) })),
      ),
      choice(
        'paper',
        90,
        (['A4', 'letter'] as const).map((kept) => ({ kept, text: t(`house.market.is.${kept}`) })),
      ),
      choice(
        'region',
        110,
        regions.map((kept) => ({ kept, text: kept })),
        false,
      ),
    ];
  }, [countries, priceLists, regions, words]);
}

const rowsOf = (markets: readonly Market[]): Row[] =>
  markets.map(({ code, name, countries, priceList, tax, language, units, paper, region }, at) => ({
    id: `market-${String(at)}`,
    depth: 0,
    cells: [code, name, countries.join(', '), priceList ?? '', tax, language, units, paper, region],
  }));

/** Markets by what stands in the rows; what cannot be read is as if it were not there. */
const marketsIn = (rows: readonly Row[]): (Market & { countries: string[] })[] =>
  rows
    .filter((row) => !isBlank(row))
    .map(({ cells }) => {
      const [code = '', name = '', countries = '', priceList = '', tax, language, units, paper, region = ''] =
        cells.map((cell) => (isWrong(cell) ? '' : cell));
      return {
        code: code.toUpperCase(),
        name,
        countries: countries === '' ? [] : countries.split(', '),
        priceList: priceList === '' ? null : priceList,
        tax: tax as Market['tax'],
        language: language as Market['language'],
        units: units as Market['units'],
        paper: paper as Market['paper'],
        region,
      };
    });
