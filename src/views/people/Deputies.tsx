import { useState } from 'react';
import { X } from 'lucide-react';
import { granted, type PeopleView, type PersonView } from '../../contract';
import { date } from '../../i18n';
import { Button, Select } from '../../ui';
import { ask } from '../api';
import { DayField } from '../parts/DayField';
import { useSpeech } from '../speech';
import type { Send } from './send';
import css from './people.module.css';

interface Props {
  view: PeopleView;
  person: PersonView;
  today: string;
  onSent: Send;
}

type Deputy = PersonView['deputies'][number];

/** Who answers sign-offs in the place of somebody, from day to day. */
export function Deputies({ view, person, today, onSent }: Props) {
  const { t, language } = useSpeech();
  const keep = (deputies: readonly Omit<Deputy, 'name'>[]) =>
    onSent(
      ask('PUT /people/{id}/deputies', {
        at: { id: person.id },
        input: {
          version: person.version,
          deputies: deputies.map(({ deputy, from, to }) => ({ deputy, from, to })),
        },
      }),
    );
  return (
    <section className={css.section} aria-label={t('people.deputies')}>
      <h3>{t('people.deputies')}</h3>
      {person.deputies.length === 0 && <p className={css.quiet}>{t('people.noDeputies')}</p>}
      <ul className={css.deputies}>
        {person.deputies.map((each, at) => (
          <li key={`${each.deputy}${each.from}`} data-over={each.to < today || undefined}>
            <span>{each.name}</span>
            <span className={css.span}>
              {date(each.from, language)} – {date(each.to, language)}
            </span>
            <Button
              look="plain"
              aria-label={t('people.removeDeputy', { name: each.name })}
              onClick={() => void keep(person.deputies.filter((_, other) => other !== at))}
            >
              <X size={13} aria-hidden />
            </Button>
          </li>
        ))}
      </ul>
      <Another
        {...{ view, person, today }}
        onAdd={async (deputy) => (await keep([...person.deputies, deputy])).ok}
      />
      <p className={css.quiet}>{t('people.deputyHint')}</p>
    </section>
  );
}

/** One more: who, from when, until when. */
function Another({
  view,
  person,
  today,
  onAdd,
}: Pick<Props, 'view' | 'person' | 'today'> & { onAdd: (deputy: Omit<Deputy, 'name'>) => Promise<boolean> }) {
  const { t } = useSpeech();
  const could = view.people.filter(
    ({ id, role, asideAt }) => id !== person.id && asideAt === null && granted[role].includes('costs'),
  );
  const empty = { deputy: '', from: today, to: '' };
  const [said, setSaid] = useState(empty);
  const whole = said.deputy !== '' && said.from !== '' && said.to !== '';
  return (
    <form
      className={css.another}
      onSubmit={(event) => {
        event.preventDefault();
        if (whole) void onAdd(said).then((kept) => kept && setSaid(empty));
      }}
    >
      <Select
        label={t('people.deputy')}
        options={[{ value: '', text: '–' }, ...could.map(({ id, name }) => ({ value: id, text: name }))]}
        value={said.deputy}
        onChange={(event) => setSaid({ ...said, deputy: event.target.value })}
      />
      {(['from', 'to'] as const).map((end) => (
        <div key={end} className={css.day}>
          <span className={css.quiet}>{t(`house.${end}`)}</span>
          <DayField
            label={t(`house.${end}`)}
            value={said[end]}
            min={end === 'to' ? said.from : today}
            onPick={(day) => setSaid({ ...said, [end]: day })}
          />
        </div>
      ))}
      <Button type="submit" disabled={!whole}>
        {t('people.addDeputy')}
      </Button>
    </form>
  );
}
