/** How figures are written. Amounts come as decimal text and are never turned into binary floats. */

/** Plain English has the British forms. */
const locale = (language: string): string =>
  language === 'de' ? 'de-DE' : language === 'en-US' ? 'en-US' : 'en-GB';
const cache = new Map<string, Intl.NumberFormat>();

/** With so many decimals at least and at most. */
function formatter(language: string, least: number, most: number): Intl.NumberFormat {
  const key = `${language} ${String(least)} ${String(most)}`;
  const known = cache.get(key);
  if (known) return known;
  const made = new Intl.NumberFormat(locale(language), {
    roundingMode: 'halfExpand',
    minimumFractionDigits: least,
    maximumFractionDigits: most,
  });
  cache.set(key, made);
  return made;
}

/** Intl reads decimal text exactly; the types do not say so yet. */
const asNumber = (text: string): number => text as unknown as number;

/** An amount without its currency: "31,382.35". */
export const money = (amount: string, language: string, decimals = 2): string =>
  formatter(language, decimals, decimals).format(asNumber(amount));

/** With its sign, for differences: "+1,240.00", "−80.00"; "±0" for none. */
export function moneyDifference(amount: string, language: string, decimals = 2): string {
  if (/^-?0*(\.0*)?$/.test(amount)) return '±0';
  const written = money(amount.replace(/^-/, ''), language, decimals);
  return amount.startsWith('-') ? `−${written}` : `+${written}`;
}

/** An amount with its currency. */
export const moneyIn = (amount: string, currency: string, language: string, decimals = 2): string =>
  `${money(amount, language, decimals)} ${currency}`;

/** A number with at most so many decimals. */
export const number = (value: string, language: string, most = 3): string =>
  formatter(language, 0, most).format(asNumber(value));

/** A share as a percentage: "0.05" is "5 %". */
export function percent(share: string, language: string, most = 2): string {
  const hundredfold = shift(share, 2);
  return `${number(hundredfold, language, most)} %`;
}

/** Moves the decimal point to the right, exactly. */
export function shift(value: string, places: number): string {
  const negative = value.startsWith('-');
  const [whole = '0', fraction = ''] = value.replace('-', '').split('.');
  const padded = fraction.padEnd(places, '0');
  const digits = `${whole}${padded.slice(0, places)}`.replace(/^0+(?=\d)/, '');
  const rest = padded.slice(places).replace(/0+$/, '');
  return `${negative && /[1-9]/.test(digits + rest) ? '-' : ''}${digits}${rest ? `.${rest}` : ''}`;
}

const dates = new Map<string, Intl.DateTimeFormat>();

function dateFormatter(language: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${language}${JSON.stringify(options)}`;
  const made = dates.get(key) ?? new Intl.DateTimeFormat(locale(language), options);
  dates.set(key, made);
  return made;
}

/** A day as people write it. */
export const date = (iso: string, language: string): string =>
  dateFormatter(language, { day: '2-digit', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(
    new Date(iso),
  );

/** An instant as people write it, in the time of whoever reads. */
export const dateTime = (iso: string, language: string): string =>
  dateFormatter(language, { day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' }).format(
    new Date(iso),
  );

/** An instant to the second, as it is looked up long after. */
export const instant = (iso: string, language: string): string =>
  dateFormatter(language, { dateStyle: 'medium', timeStyle: 'medium' }).format(new Date(iso));

const spokenUnits: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  months: { en: 'months', de: 'Monate' },
  years: { en: 'years', de: 'Jahre' },
  days: { en: 'days', de: 'Tage' },
  m2: { en: 'm²', de: 'm²' },
  m3: { en: 'm³', de: 'm³' },
};

/** A unit of a model as it is read: "months" is "Monate" in German, and m2 is m². */
export const unitIn = (unit: string, language: string): string =>
  spokenUnits[unit]?.[language] ?? spokenUnits[unit]?.en ?? unit;
