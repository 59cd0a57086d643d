import { X } from 'lucide-react';
import { granted, type PeopleView, type PeopleWithLink, type PersonView } from '../../contract';
import { Button } from '../../ui';
import { ask } from '../api';
import { useSpeech } from '../speech';
import { Deputies } from './Deputies';
import { LinkMade } from './LinkMade';
import { signsInText } from './person-state';
import type { Send } from './send';
import { WhoForm } from './WhoForm';
import css from './people.module.css';

interface Props {
  view: PeopleView;
  /** Whose sheet it is; null for somebody new. */
  id: string | null;
  today: string;
  own: string;
  /** The link that was made last. */
  link: PeopleWithLink | null;
  onSent: Send;
  onClose: () => void;
}

/** One person: who they are, how they come in, and who stands in for them. */
export function PersonSheet({ view, id, today, own, link, onSent, onClose }: Props) {
  const { t } = useSpeech();
  const person = view.people.find((each) => each.id === id) ?? null;
  return (
    <aside className={css.sheet} aria-label={person?.name ?? t('people.add')}>
      <header className={css.head}>
        <h2>{person?.name ?? t('people.add')}</h2>
        <Button look="plain" aria-label={t('frame.close')} onClick={onClose}>
          <X size={16} aria-hidden />
        </Button>
      </header>
      <WhoForm
        // What somebody else kept meanwhile is begun with anew.
        key={`${person?.id ?? ''} ${String(person?.version)}`}
        {...{ view, person, own, onSent }}
      />
      {person && (
        <>
          <ComingIn {...{ person, link, onSent }} />
          {granted[person.role].includes('sign') && person.asideAt === null && (
            <Deputies {...{ view, person, today, onSent }} />
          )}
        </>
      )}
    </aside>
  );
}

/** Whether somebody can sign in, a link by which they set their password, and putting them aside. */
function ComingIn({
  person,
  link,
  onSent,
}: {
  person: PersonView;
  link: PeopleWithLink | null;
  onSent: Send;
}) {
  const words = useSpeech();
  const { t } = words;
  const { id, version, asideAt, drafts } = person;
  const aside = (to: boolean): void =>
    void onSent(ask('PUT /people/{id}/aside', { at: { id }, input: { version, aside: to } }));
  return (
    <section className={css.section} aria-label={t('people.signsIn')}>
      <h3>{t('people.signsIn')}</h3>
      <p className={css.said}>{signsInText(person, words)}</p>
      {link?.person === id && person.linkUntil !== null && <LinkMade link={link} />}
      <div className={css.acts}>
        {asideAt === null ? (
          <>
            <Button onClick={() => void onSent(ask('POST /people/{id}/link', { at: { id } }))}>
              {t('people.makeLink')}
            </Button>
            <Button onClick={() => aside(true)}>{t('people.putAside')}</Button>
          </>
        ) : (
          <Button onClick={() => aside(false)}>{t('people.takeBack')}</Button>
        )}
      </div>
      <p className={css.quiet}>
        {asideAt === null ? t('people.linkHint') : t('people.asideHint')}
        {drafts > 0 && ` ${t('people.hasDrafts', { count: drafts })}`}
      </p>
    </section>
  );
}
