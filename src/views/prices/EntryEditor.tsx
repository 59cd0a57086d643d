import { useState } from 'react';
import { X } from 'lucide-react';
import type { ChangeRowView, ListHead } from '../../contract';
import { readExact } from '../../core/exact';
import { cellsOfEntry, entryProblems, priceMethods, type EntryCell, type ListEntry } from '../../core/prices';
import type { PriceEntry, Slice } from '../../core/pricing';
import { own } from '../../i18n';
import { Button, Field, Select } from '../../ui';
import { NumberField } from '../parts/NumberField';
import { useSpeech } from '../speech';
import { entryText } from './entry-words';
import { Tiers } from './Tiers';
import { Tried } from './Tried';
import css from './change.module.css';

interface Props {
  row: ChangeRowView;
  list: ListHead;
  onClose: () => void;
  onPut: (cells: Record<EntryCell, string>) => Promise<void>;
}

type Method = PriceEntry['method'];

/** What an entry becomes where another way of pricing is chosen; what it says already is taken along. */
function asMethod(method: Method, entry: PriceEntry): PriceEntry {
  if (method === entry.method) return entry;
  const figure = entry.method === 'unit' ? entry.price : '0';
  const slices: readonly Slice[] =
    entry.method === 'graduated' || entry.method === 'usage'
      ? entry.slices
      : entry.method === 'bracket'
        ? entry.brackets.map(({ price, ...tier }) => ({ ...tier, rate: price }))
        : [];
  switch (method) {
    case 'unit':
      return { method, price: figure };
    case 'bracket':
      return {
        method,
        brackets:
          slices.length > 0
            ? slices.map(({ rate, ...tier }) => ({ ...tier, price: rate }))
            : [{ from: '1', price: figure }],
      };
    case 'graduated':
    case 'usage':
      return { method, slices: slices.length > 0 ? slices : [{ from: '0', rate: figure }] };
    case 'costPlus':
      return { method, markUp: '0.5' };
    case 'share':
      return { method, rate: '0.05', of: [] };
    case 'formula':
      return { method, formula: '' };
    default:
      return { method };
  }
}

/** An entry of a price change, by its method, tried at quantities at the side. */
export function EntryEditor({ row, list, onClose, onPut }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const first = row.after ?? row.before ?? { entry: { method: 'unit' as const, price: '0' }, every: null };
  const [now, setNow] = useState<ListEntry>(first);
  const [wrong, setWrong] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);
  const mark = (field: string, is: boolean): void =>
    setWrong((before) => {
      const next = new Set(before);
      if (is) next.add(field);
      else next.delete(field);
      return next;
    });
  const { entry, every } = now;
  const set = (next: PriceEntry): void => setNow({ ...now, entry: next });
  const problems = entryProblems(entry, every ?? undefined, {
    sku: row.sku,
    decimals: list.decimals,
    known: () => true,
    inside: row.inside !== '',
  });
  const tier = problems.find(({ code }) => /overlap|hole|backwards|empty/.test(code));
  return (
    <aside className={css.editor} aria-label={t('change.editRow', { sku: row.sku })}>
      <header className={css.editorHead}>
        <h2>
          <span className={css.code}>{row.sku}</span> {own(row.name, language)}
        </h2>
        <Button look="plain" aria-label={t('prices.close')} onClick={onClose}>
          <X size={15} aria-hidden />
        </Button>
      </header>
      <div className={css.editorBody}>
        <p className={css.quiet}>
          {list.code}
          {row.inside !== '' && `, ${t('prices.inside', { bundle: row.inside })}`}
          {row.before && ` · ${t('prices.column.was')} ${entryText(row.before, list.decimals, words)}`}
        </p>
        <Select
          label={t('prices.column.method')}
          value={entry.method}
          options={priceMethods.map((method) => ({ value: method, text: t(`prices.method.${method}`) }))}
          onChange={(event) => {
            setWrong(new Set());
            set(asMethod(event.target.value as Method, entry));
          }}
        />
        <Figures
          key={entry.method}
          entry={entry}
          list={list}
          marked={tier ? { from: String(tier.params?.from ?? ''), why: t(tier.code, tier.params) } : null}
          onEntry={set}
          onWrong={mark}
        />
        <div className={css.pair}>
          <NumberField
            label={t('prices.column.months')}
            value={every ? String(every.baseMonths) : null}
            decimals={0}
            onWrong={(is) => mark('months', is)}
            onValue={(value) =>
              setNow({ ...now, every: value === null ? null : { ...every, baseMonths: Number(value) } })
            }
          />
          {every && (
            <NumberField
              label={t('prices.column.leastMonths')}
              value={every.leastMonths === undefined ? null : String(every.leastMonths)}
              decimals={0}
              onWrong={(is) => mark('leastMonths', is)}
              onValue={(value) =>
                setNow({
                  ...now,
                  every: {
                    baseMonths: every.baseMonths,
                    ...(value === null ? {} : { leastMonths: Number(value) }),
                  },
                })
              }
            />
          )}
        </div>
        {problems
          .filter((problem) => problem !== tier)
          .map((problem) => (
            <p key={problem.code} className={css.wrong} role="alert">
              {t(problem.code, problem.params)}
            </p>
          ))}
        <h3>
          {t('prices.tried')}, {list.currency}
        </h3>
        {problems.length === 0 && <Tried entry={entry} cost={row.cost} decimals={list.decimals} />}
      </div>
      <footer className={css.editorFoot}>
        <Button
          look="main"
          disabled={busy || wrong.size > 0 || problems.length > 0}
          onClick={() => {
            setBusy(true);
            void onPut(cellsOfEntry(now, language, list.decimals)).then(() => setBusy(false));
          }}
        >
          {t('change.put')}
        </Button>
      </footer>
    </aside>
  );
}

/** The fields of an entry, by its method. */
function Figures({
  entry,
  list,
  marked,
  onEntry,
  onWrong,
}: {
  entry: PriceEntry;
  list: ListHead;
  marked: { from: string; why: string } | null;
  onEntry: (entry: PriceEntry) => void;
  onWrong: (field: string, wrong: boolean) => void;
}) {
  const { t } = useSpeech();
  // The grid of tiers begins with these and goes on by itself.
  const [first] = useState(entry);
  const amount = (
    label: string,
    value: string | null,
    onValue: (value: string | null) => void,
    field: string,
  ) => (
    <NumberField
      label={`${label}, ${list.currency}`}
      value={value}
      decimals={list.decimals}
      needed={field === 'price'}
      onWrong={(is) => onWrong(field, is)}
      onValue={onValue}
    />
  );
  const share = (label: string, value: string, onValue: (value: string) => void) => (
    <NumberField
      label={`${label}, %`}
      value={percentOf(value)}
      decimals={4}
      needed
      onWrong={(is) => onWrong('share', is)}
      onValue={(given) => onValue(shareOf(given))}
    />
  );
  switch (entry.method) {
    case 'unit':
      return amount(
        t('prices.column.price'),
        entry.price,
        (price) => onEntry({ ...entry, price: price ?? '0' }),
        'price',
      );
    case 'bracket':
      return (
        <Tiers
          label={t('prices.column.tiers')}
          tiers={
            first.method === 'bracket'
              ? first.brackets.map(({ price, ...tier }) => ({ ...tier, rate: price }))
              : []
          }
          marked={marked}
          onTiers={(tiers) => {
            onWrong('tiers', tiers === null);
            if (tiers)
              onEntry({ ...entry, brackets: tiers.map(({ rate, ...tier }) => ({ ...tier, price: rate })) });
          }}
        />
      );
    case 'graduated':
    case 'usage':
      return (
        <>
          <Tiers
            label={t('prices.column.tiers')}
            tiers={first.method === 'graduated' || first.method === 'usage' ? first.slices : []}
            marked={marked}
            onTiers={(tiers) => {
              onWrong('tiers', tiers === null);
              if (tiers) onEntry({ ...entry, slices: tiers });
            }}
          />
          {entry.method === 'usage' &&
            amount(
              t('prices.column.least'),
              entry.least ?? null,
              (least) =>
                onEntry({ method: 'usage', slices: entry.slices, ...(least === null ? {} : { least }) }),
              'least',
            )}
        </>
      );
    case 'costPlus':
      return share(t('change.markUp'), entry.markUp, (markUp) => onEntry({ ...entry, markUp }));
    case 'share':
      return (
        <>
          {share(t('change.share'), entry.rate, (rate) => onEntry({ ...entry, rate }))}
          <Field
            label={t('change.shareOf')}
            defaultValue={entry.of.join(', ')}
            onChange={(event) =>
              onEntry({
                ...entry,
                of: event.target.value
                  .split(/[,;]/)
                  .map((name) => name.trim())
                  .filter((name) => name !== ''),
              })
            }
          />
        </>
      );
    case 'formula':
      return (
        <Field
          label={t('prices.column.formula')}
          value={entry.formula}
          maxLength={2_000}
          spellCheck={false}
          hint={t('change.formulaHint')}
          onChange={(event) => onEntry({ ...entry, formula: event.target.value })}
        />
      );
    default:
      return null;
  }
}

const percentOf = (share: string): string => readExact(share)?.times(100).toString() ?? '0';
const shareOf = (percent: string | null): string =>
  readExact(percent ?? '0')
    ?.div(100)
    .toString() ?? '0';
