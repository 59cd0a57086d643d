/** Price: parts, surcharges and prices inside, with what each lists at in the try-out. */
import { useEffect, useMemo, useState } from 'react';
import type { DraftEntries, DraftView } from '../../../contract';
import type { Part } from '../../../core/modelling';
import { moneyIn, number } from '../../../i18n';
import { Tabs } from '../../../ui';
import { ask } from '../../api';
import { useSpeech } from '../../speech';
import { formula, named, nameColumns, shownColumn } from '../grids/list-columns';
import { idAt, itemAt, textAt, type PartColumn } from '../grids/part-columns';
import type { Draft } from '../session/useDraft';
import { DocumentFormula } from './DocumentFormula';
import { ListPart } from './ListPart';
import css from '../workshop.module.css';

interface Props {
  draft: Draft;
  view: DraftView;
}

const freshPrice = (id: string): Part => ({ id, name: named(id), item: '', quantity: '1' });
const freshInside = (id: string): Part => ({ id, name: named(id), of: [], rate: '0' });
const freshSurcharge = (id: string): Part => ({ id, name: named(id), of: [], rate: '0', when: 'true' });

/** Price parts and surcharges, and what the try-out lists at. */
export function Prices({ draft, view }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const price = draft.tried?.seen?.picture.price;
  const { items, tariff } = view;
  const amounts = useMemo(
    () => new Map((price?.parts ?? []).map(({ id, amount }) => [id, number(amount, language)])),
    [price, language],
  );
  const entries = useEntries(view.id, draft);
  const listed = `${t('draft.try.list')}, ${tariff.currency}`;
  const parts = useMemo((): PartColumn[] => {
    const { name, other } = nameColumns(words);
    return [
      name,
      itemAt('item', { id: 'item', title: t('draft.rows.item'), width: 120 }, items, words),
      {
        ...shownColumn(listed, 130, () => ''),
        read: ({ id, item }) =>
          amounts.get(id) ??
          (typeof item === 'string' && item !== '' && !isPriced(tariff, item)
            ? t('draft.rows.notPriced', { list: tariff.list })
            : ''),
      },
      {
        ...shownColumn(t('draft.rows.lists'), 300, () => ''),
        column: { ...shownColumn(t('draft.rows.lists'), 300, () => '').column, id: 'lists' },
        read: ({ item }) =>
          typeof item === 'string' && item !== '' && entries
            ? entries.lists
                .map(({ code, currency }, at) => {
                  const price = entries.items[item]?.[at];
                  if (price === null || price === undefined) return t('draft.rows.noList', { list: code });
                  return /^\d/.test(price)
                    ? moneyIn(price, currency, language, 2)
                    : `${currency} ${t(`draft.rows.by.${price as 'bracket'}`)}`;
                })
                .join(' · ')
            : '',
      },
      formula('quantity', t('draft.rows.quantity'), 180),
      formula('when', t('draft.rows.when'), 260),
      idAt({ id: 'id', title: t('draft.rows.id'), width: 130 }, words),
      other,
    ];
  }, [words, t, language, items, tariff, amounts, listed, entries]);
  const shares = useMemo((): PartColumn[] => {
    const { name, other } = nameColumns(words);
    return [
      name,
      {
        ...textAt('of', { id: 'of', title: t('draft.rows.of'), width: 200, kind: 'code' }),
        read: (part) => ((part['of'] as readonly string[] | undefined) ?? []).join(', '),
        write: (part, kept) => ({ ...part, of: kept.split(/[\s,;]+/).filter(Boolean) }),
      },
      formula('rate', t('draft.rows.rate'), 90),
      shownColumn(listed, 120, (id) => amounts.get(id) ?? ''),
      formula('when', t('draft.rows.when'), 220),
      idAt({ id: 'id', title: t('draft.rows.id'), width: 150 }, words),
      other,
    ];
  }, [words, t, amounts, listed]);
  const [tab, setTab] = useState<List>('prices');
  const title = t(`draft.rows.${tab === 'insidePrices' ? 'inside' : tab}`);
  return (
    <div className={css.withTabs}>
      <Tabs
        label={t('draft.part.price')}
        tabs={lists.map((id) => ({ id, text: t(`draft.rows.${id === 'insidePrices' ? 'inside' : id}`) }))}
        chosen={tab}
        onChoose={setTab}
        panel="price-list"
      />
      <div id="price-list" role="tabpanel" aria-label={title} className={css.panel}>
        <ListPart
          key={tab}
          draft={draft}
          list={tab}
          title={title}
          columns={tab === 'prices' ? parts : shares}
          fresh={fresh[tab]}
        />
      </div>
      <div className={css.formulas}>
        <DocumentFormula
          draft={draft}
          name="term.months"
          label={t('draft.rows.months')}
          wanted={{ is: 'number', unit: 'any' }}
          whole="term"
        />
        {draft.document.term && (
          <DocumentFormula
            draft={draft}
            name="term.start"
            label={t('draft.rows.start')}
            wanted={{ is: 'date' }}
          />
        )}
      </div>
    </div>
  );
}

const lists = ['prices', 'surcharges', 'insidePrices'] as const;
type List = (typeof lists)[number];
const fresh = { prices: freshPrice, surcharges: freshSurcharge, insidePrices: freshInside };

const isPriced = ({ prices, entries }: DraftView['tariff'], sku: string): boolean =>
  prices[sku] !== undefined || entries?.[sku] !== undefined;

/** What the items of the draft list at, as it is stored. */
function useEntries(id: string, { saving, version }: Draft): DraftEntries | null {
  const [entries, setEntries] = useState<DraftEntries | null>(null);
  useEffect(() => {
    if (saving !== 'saved') return;
    void ask('GET /drafts/{id}/entries', { at: { id } }).then((answer) => {
      if (answer.ok) setEntries(answer.value);
    });
  }, [id, saving, version]);
  return entries;
}
