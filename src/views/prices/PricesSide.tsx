import { Plus } from 'lucide-react';
import type { PriceChangeHead, PricesView } from '../../contract';
import { date, number, own } from '../../i18n';
import { Button } from '../../ui';
import { Side, SideEntry, SideGroup, SideLink } from '../parts/side/Side';
import { useSpeech } from '../speech';

interface Props {
  view: PricesView;
  chosen: string;
  onList: (list: string) => void;
  onBegin: () => void;
}

/** The lists, and the changes: what is made ready first. */
export function PricesSide({ view, chosen, onList, onBegin }: Props) {
  const { t, language } = useSpeech();
  const standOf = ({ stand, inForce }: PriceChangeHead): string =>
    t(`prices.stand.${stand}`, { from: date(inForce, language) });
  const inOrder = [...view.changes].sort((a, b) => Number(b.stand === 'draft') - Number(a.stand === 'draft'));
  return (
    <Side label={t('place.prices')}>
      <SideGroup title={t('prices.lists')}>
        {view.lists.map(({ code, name, currency, entries }) => (
          <SideEntry
            key={code}
            chosen={code === chosen}
            count={number(String(entries), language)}
            note={`${code} · ${currency}`}
            onChoose={() => onList(code)}
          >
            {own(name, language)}
          </SideEntry>
        ))}
      </SideGroup>
      <SideGroup
        title={t('prices.changes')}
        act={
          <Button look="plain" aria-label={t('prices.begin')} title={t('prices.begin')} onClick={onBegin}>
            <Plus size={15} aria-hidden />
          </Button>
        }
      >
        {inOrder.map((change) => (
          <SideLink
            key={change.id}
            chosen={false}
            href={`/prices/changes/${change.id}`}
            count={number(String(change.rows), language)}
            note={standOf(change)}
          >
            {change.name}
          </SideLink>
        ))}
      </SideGroup>
    </Side>
  );
}
