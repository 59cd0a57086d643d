/** Texts by language, and the one place where money, numbers, dates and units are written. */
import { createInstance, type TFunction } from 'i18next';
import { de } from './de';
import { en } from './en';

export * from './format';

type Widened<T> = { [K in keyof T]: T[K] extends string ? string : Widened<T[K]> };
export type Locale = Widened<typeof en>;
export type Language = 'en' | 'de';

type Leaves<T, P extends string = ''> = { [K in keyof T & string]: T[K] extends string ? `${P}${K}` : Leaves<T[K], `${P}${K}.`> }[keyof T & string];
/** The key of a text, such as "bench.put". */
export type TextKey = Leaves<typeof en>;
/** Gives the text of a key, filled in. */
export type Translate = (key: TextKey, params?: Record<string, string | number>) => string;

const locales: Record<Language, Locale> = { en, de };
const made = new Map<Language, Translate>();

/** The texts of one language; any other language gives English. */
export function translator(language: string): Translate {
  const known: Language = language === 'de' ? 'de' : 'en';
  let t = made.get(known);
  if (!t) {
    const instance = createInstance();
    void instance.init({ lng: known, resources: { [known]: { translation: locales[known] } }, initAsync: false, showSupportNotice: false, interpolation: { escapeValue: false } });
    t = withPlainKept(instance.t);
    made.set(known, t);
  }
  return t;
}

/** Texts without anything to fill in are looked up once: a sheet asks for the same few hundreds of times. */
function withPlainKept(look: TFunction): Translate {
  const plain = new Map<string, string>();
  return (key, params) => {
    if (params) return look(key, params);
    const known = plain.get(key) ?? look(key, {});
    plain.set(key, known);
    return known;
  };
}

/** Whether a code has a text of its own. */
export function hasText(code: string): code is TextKey {
  const [group = '', ...rest] = code.split('.');
  let at: unknown = (en as unknown as Record<string, unknown>)[group];
  for (const part of rest) at = at !== null && typeof at === 'object' ? (at as Record<string, unknown>)[part] : undefined;
  return typeof at === 'string';
}

/** The text of a model, item or the like in a language, or in whatever language it has. */
export const own = (texts: Readonly<Record<string, string>> | undefined, language: string): string => texts?.[language] ?? texts?.en ?? Object.values(texts ?? {})[0] ?? '';
