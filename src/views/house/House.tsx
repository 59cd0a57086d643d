import { useState } from 'react';
import type { HouseView } from '../../contract';
import { ListPage, Tabs, say } from '../../ui';
import { sentences, type Answer } from '../api';
import { Speech, useSpeech } from '../speech';
import { CalendarPart } from './CalendarPart';
import { CompanyPart } from './CompanyPart';
import { NumbersPart } from './NumbersPart';
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

/** Sends a part; tells whether it is kept. */
export type Keep = (sent: Promise<Answer<HouseView>>) => Promise<Answer<HouseView>>;

const parts = ['company', 'calendar', 'numbers'] as const;

function Page({ first, today, countries }: Props) {
  const { t } = useSpeech();
  const [view, setView] = useState(first);
  const [part, setPart] = useState<(typeof parts)[number]>('company');
  const keep: Keep = async (sent) => {
    const answer = await sent;
    if (answer.ok) {
      setView(answer.value);
      say(t('house.kept'));
    } else say(sentences(answer.failures, t('request.failed')), true);
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
          <CompanyPart view={view} onKeep={keep} />
        </div>
        <div hidden={part !== 'calendar'} className={css.shown}>
          <CalendarPart {...{ view, today, countries }} onKeep={keep} />
        </div>
        <div hidden={part !== 'numbers'} className={css.shown}>
          <NumbersPart view={view} onKeep={keep} />
        </div>
      </div>
    </ListPage>
  );
}
