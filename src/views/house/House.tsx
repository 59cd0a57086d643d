import { useState } from 'react';
import type { HouseView } from '../../contract';
import { ListPage, Tabs, say } from '../../ui';
import { ask, sentences } from '../api';
import { Speech, useSpeech } from '../speech';
import { CalendarPart } from './CalendarPart';
import { CompanyPart } from './CompanyPart';
import type { Keep } from './keep';
import { MarketsPart } from './MarketsPart';
import { NumbersPart } from './NumbersPart';
import { WorkshopPart } from './WorkshopPart';
import css from './house.module.css';

interface Props {
  language: string;
  first: HouseView;
  /** ISO. */
  today: string;
  /** Countries that the house has to do with. */
  countries: readonly string[];
}

export default function House(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

const parts = ['company', 'calendar', 'markets', 'numbers', 'workshop'] as const;

function Page({ first, today, countries }: Props) {
  const { t } = useSpeech();
  const [view, setView] = useState(first);
  // What somebody else kept meanwhile is begun with anew.
  const [turn, setTurn] = useState(0);
  const [part, setPart] = useState<(typeof parts)[number]>('company');
  const keep: Keep = async (sent) => {
    const answer = await sent;
    if (answer.ok) {
      setView(answer.value);
      say(t('house.kept'));
      return answer;
    }
    say(sentences(answer.failures, t('request.failed')), true);
    if (answer.failures.some(({ code }) => code === 'house.stale')) {
      const now = await ask('GET /house');
      if (now.ok) {
        setView(now.value);
        setTurn((before) => before + 1);
      }
    }
    return answer;
  };
  return (
    <ListPage
      title={t('place.house')}
      filters={
        <div className={css.tabs}>
          <Tabs
            label={t('house.parts')}
            panel="house-part"
            chosen={part}
            onChoose={setPart}
            tabs={parts.map((id) => ({ id, text: t(`house.${id}`) }))}
          />
        </div>
      }
    >
      <div id="house-part" role="tabpanel" aria-label={t(`house.${part}`)} className={css.part}>
        {/* All of them stay, so that nothing that was typed is lost by looking elsewhere. */}
        <div hidden={part !== 'company'} className={css.shown}>
          <CompanyPart key={turn} {...{ view, countries }} onKeep={keep} />
        </div>
        <div hidden={part !== 'calendar'} className={css.shown}>
          <CalendarPart key={turn} {...{ view, today, countries }} onKeep={keep} />
        </div>
        <div hidden={part !== 'markets'} className={css.shown}>
          <MarketsPart key={turn} {...{ view, today, countries }} onKeep={keep} />
        </div>
        <div hidden={part !== 'workshop'} className={css.shown}>
          <WorkshopPart key={turn} view={view} onKeep={keep} />
        </div>
        <div hidden={part !== 'numbers'} className={css.shown}>
          <NumbersPart key={turn} view={view} onKeep={keep} />
        </div>
      </div>
    </ListPage>
  );
}
