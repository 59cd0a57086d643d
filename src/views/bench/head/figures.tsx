/** How a figure comes about. */
import { exact } from '../../../core/exact';
import { partOverTerm, type BuildPrice } from '../../../core/pricing';
import { specialFacts, specialTariff } from '../../../core/builds';
import { type BenchView } from '../../../contract';
import { money, number, own } from '../../../i18n';
import { partHowInAll } from '../../../i18n/part-how';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import css from '../panels/side.module.css';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';

/** The priced parts that a list price is the sum of, each that recurs over its term. */
export function ListParts({ price, decimals }: { price: BuildPrice; decimals: number }) {
  const { t, language } = useSpeech();
  return (
    <table className={css.parts}>
      <tbody>
        {price.parts.map((part) => (
          <tr key={part.id}>
            <td>
              {own(part.name, language)}{' '}
              <span className={shared.quiet}>{partHowInAll(part, t, language, decimals)}</span>
            </td>
            <td>{money(partOverTerm(part).toString(), language, decimals)}</td>
          </tr>
        ))}
        {price.open.length > 0 && (
          <tr>
            <td className={shared.quiet} colSpan={2}>
              {t('bench.openParts', { count: price.open.length })}
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** Material, hours, software and services at cost, the dearest first. */
export function CostParts({ bench, view }: { bench: Bench; view: BenchView }) {
  const { t, language } = useSpeech();
  const { costs = {}, rates = {}, asSold = [], decimals } = specialTariff(view.tariff, bench.content.special);
  const {
    making: { materials, operations },
    price,
  } = bench.picture;
  const special = new Map(bench.content.special.map((part) => [part.item, part.text]));
  const rows = [
    ...materials.map((need) => ({
      id: need.row,
      name: special.get(need.item) ?? own(view.itemNames[need.item], language),
      how: `${number(need.quantity, language, 2)} × ${money(costs[need.item] ?? '0', language, decimals)}`,
      amount: exact(costs[need.item] ?? '0').times(need.quantity),
    })),
    ...operations.map((step) => ({
      id: step.row,
      name: own(step.name, language),
      how: `${number(step.hours, language, 2)} h × ${money(rates[step.centre] ?? '0', language, decimals)}`,
      amount: exact(rates[step.centre] ?? '0').times(step.hours),
    })),
    ...price.parts
      .filter((part) => part.item !== undefined && asSold.includes(part.item))
      .map(({ id, name, item = '', quantity = '1', recurs }) => ({
        id,
        name: own(name, language),
        how: `${number(quantity, language, 2)} × ${money(costs[item] ?? '0', language, decimals)}${recurs ? ` ${t('walk.forMonths', { count: recurs.baseMonths })}` : ''}`,
        amount: exact(costs[item] ?? '0').times(quantity),
      })),
  ].sort((a, b) => b.amount.cmp(a.amount));
  return (
    <table className={css.parts}>
      <tbody>
        {rows.map((row) => (
          <tr key={row.id}>
            <td>
              {row.name} <span className={shared.quiet}>{row.how}</span>
            </td>
            <td>{money(row.amount.toString(), language, decimals)}</td>
          </tr>
        ))}
        {rows.length === 0 && (
          <tr>
            <td>{t('bench.nothing')}</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** The items that take longest, and the days that the model adds. */
export function LeadParts({ bench, view }: { bench: Bench; view: BenchView }) {
  const { t, language } = useSpeech();
  const facts = specialFacts(view.facts, bench.content.special);
  const { making, leadDays } = bench.picture;
  const seen = new Set<string>();
  const items = making.materials
    .filter((need) => !seen.has(need.item) && seen.add(need.item))
    .map((need) => ({ item: need.item, days: facts[need.item]?.leadDays ?? 0 }))
    .sort((a, b) => b.days - a.days);
  const longest = items[0]?.days ?? 0;
  const added = (leadDays ?? longest) - longest;
  return (
    <table className={css.parts}>
      <tbody>
        {items.slice(0, 4).map(({ item, days }) => (
          <tr key={item}>
            <td>{own(view.itemNames[item], language)}</td>
            <td>{t('unit.days', { count: days })}</td>
          </tr>
        ))}
        {added > 0 && (
          <tr>
            <td>{t('bench.extraDays')}</td>
            <td>{`+${t('unit.days', { count: added })}`}</td>
          </tr>
        )}
        <tr>
          <td className={shared.quiet} colSpan={2}>
            {t('bench.longest')}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

/** A calculation: its formula, and the values it is worked out from; a row leads to itself. */
export function FormulaParts({
  id,
  bench,
  view,
  words,
  onGo,
}: {
  id: string;
  bench: Bench;
  view: BenchView;
  words: Words;
  onGo: (row: string) => void;
}) {
  const { outline } = view;
  const { calculated, state } = bench.picture;
  const calculation = outline.calculations.find((each) => each.id === id);
  if (!calculation) return null;
  const plain = calculation.formula.replace(/"[^"]*"/g, '');
  const names = [...new Set(plain.match(/[A-Za-z][A-Za-z0-9]*/g) ?? [])];
  const rows = names.flatMap((name): { id: string; value: string; row: boolean }[] => {
    const other = outline.calculations.find((each) => each.id === name);
    const value = calculated[name];
    if (other)
      return [
        {
          id: name,
          row: false,
          value:
            value === undefined
              ? '·'
              : other.type === 'number'
                ? words.figure(value, other.unit ?? '', other.decimals ?? 2)
                : value,
        },
      ];
    return state.rows[name]?.shown
      ? [{ id: name, row: true, value: words.value(name, state.values[name]) }]
      : [];
  });
  return (
    <>
      <table className={css.parts}>
        <tbody>
          {rows.map((row) => (
            <tr key={row.id}>
              <td>
                {row.row ? (
                  <button type="button" className={css.link} onClick={() => onGo(row.id)}>
                    {words.row(row.id)}
                  </button>
                ) : (
                  words.row(row.id)
                )}
              </td>
              <td>{row.value}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <code className={css.formula}>{calculation.formula}</code>
    </>
  );
}
