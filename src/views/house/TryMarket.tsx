import { useMemo, useState } from 'react';
import type { HouseView } from '../../contract';
import { shownUnit, shownValue } from '../../core/exact';
import { marketOf, numberBy, type Market } from '../../core/quotes';
import { date, moneyIn, number, own } from '../../i18n';
import { Select } from '../../ui';
import { useSpeech } from '../speech';
import css from './house.module.css';

interface Props {
  view: HouseView;
  today: string;
  countries: readonly string[];
  /** As they are typed; null while that cannot be read. */
  markets: readonly Market[] | null;
}

/** What a customer of a country would get: list, language, and how things are written there. */
export function TryMarket({ view, today, countries, markets }: Props) {
  const { t, language } = useSpeech();
  const [country, setCountry] = useState(view.company.country);
  const names = useMemo(() => new Intl.DisplayNames([language], { type: 'region' }), [language]);
  const known = [...new Set([...countries, ...(markets ?? []).flatMap((each) => each.countries)])].sort();
  const market = markets && marketOf(markets, country);
  return (
    <fieldset className={css.tryMarket}>
      <legend className={css.legend}>{t('house.try')}</legend>
      <Select
        label={t('house.market.customerIn')}
        options={known.map((code) => ({ value: code, text: names.of(code) ?? code }))}
        value={country}
        onChange={(event) => setCountry(event.target.value)}
      />
      {market && <Shown {...{ view, today, market }} />}
    </fieldset>
  );
}

function Shown({ view, today, market }: Pick<Props, 'view' | 'today'> & { market: Market }) {
  const { t, language } = useSpeech();
  const { priceLists, numbers } = view;
  const list = priceLists.find(({ code }) => code === market.priceList);
  const { language: writing, units } = market;
  const length = `${number(shownValue('18', 'm', units), writing)} ${shownUnit('m', units)}`;
  const year = Number(today.slice(0, 4));
  const shown: [string, string][] = [
    [t('house.market.one'), market.name === '' ? t('house.market.none') : `${market.name} (${market.code})`],
    [t('house.market.priceList'), list ? own(list.name, language) : t('house.market.anyList')],
    [t('house.market.language'), t(`house.market.writes.${writing}`)],
    [t('house.market.day'), date(today, writing)],
    [t('house.market.amount'), moneyIn('31382.5', '', writing).trim()],
    [t('house.market.length'), length],
    [t('house.market.paper'), t(`house.market.is.${market.paper}`)],
    [t('house.market.tax'), t(`house.market.is.${market.tax}`)],
    [t('house.range.quote'), numberBy(numbers.quote.pattern, { year, count: 42, market: market.code })],
  ];
  return (
    <dl className={css.shownMarket}>
      {shown.map(([name, value]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}
