/** A person in words: whether they can sign in, and who stands in for them. */
import type { PersonView } from '../../contract';
import { date } from '../../i18n';
import type { InWords } from '../speech';

/** What keeps somebody from signing in, what waits for them, or when they were last here. */
export function signsInText(
  { asideAt, hasPassword, linkUntil, seenAt }: PersonView,
  { t, language }: InWords,
): string {
  if (asideAt !== null) return t('people.asideSince', { day: date(asideAt, language) });
  if (linkUntil !== null) return t('people.linkWaits', { day: date(linkUntil, language) });
  if (!hasPassword) return t('people.noPassword');
  return seenAt === null ? t('people.notSeen') : t('people.seen', { day: date(seenAt, language) });
}

/** Who stands in for somebody today, or will next; nothing where nobody does. */
export function deputyText({ deputies }: PersonView, today: string, { t, language }: InWords): string {
  const next = deputies.find(({ to }) => to >= today);
  if (!next) return '';
  return next.from <= today
    ? t('people.deputyUntil', { name: next.name, day: date(next.to, language) })
    : t('people.deputyFrom', { name: next.name, day: date(next.from, language) });
}
