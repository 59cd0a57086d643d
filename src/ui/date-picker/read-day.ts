/** Days as people write them. */
import { addDays, format, isValid, parse } from 'date-fns';
import { de, enGB } from 'date-fns/locale';

/** Where months stand first, days are read so first. */
const monthFirst = ['M/d/yyyy', 'M/d/yy', 'M-d-yyyy', 'M-d-yy'];
const forms = [
  'yyyy-MM-dd',
  'd.M.yyyy',
  'd.M.yy',
  'd/M/yyyy',
  'd/M/yy',
  'd-M-yyyy',
  'd MMM yyyy',
  'd MMM yy',
  'd MMMM yyyy',
  'd MMMM yy',
  'd. MMM yyyy',
  'd. MMMM yyyy',
  'd.MMM yyyy',
  'MMM d yyyy',
  'MMMM d yyyy',
];
const words: Readonly<Record<string, number>> = { today: 0, heute: 0, tomorrow: 1, morgen: 1 };

/**
 * An ISO day from what is typed: "1.3.27", "1 March 2027", "2027-03-01", "today" or "+14" for so many days
 * from `today` on; null where it is none. "3/4/27" is in April, and in American English in March.
 */
export function readDay(typed: string, language: string, today: Date): string | null {
  const text = typed.trim().replaceAll(',', ' ').replace(/\s+/g, ' ');
  const iso = (date: Date): string => format(date, 'yyyy-MM-dd');
  const word = words[text.toLowerCase()];
  if (word !== undefined) return iso(addDays(today, word));
  const later = /^\+\s*(\d{1,4})$/.exec(text);
  if (later) return iso(addDays(today, Number(later[1])));
  const american = language === 'en-US';
  for (const locale of language === 'de' ? [de, enGB] : [enGB, de]) {
    for (const form of american ? [...monthFirst, ...forms] : forms) {
      const day = parse(text, form, today, { locale });
      if (isValid(day) && day.getFullYear() >= 1900 && day.getFullYear() < 2200) return iso(day);
    }
  }
  return null;
}
