/** Texts by language: each page fetches those of its room, in its own language alone. */
import { createInstance, type TFunction } from 'i18next';
import { textBundles, textsOf, type Language, type TextBundle, type Texts } from './text-bundles';

type Leaves<T, P extends string = ''> = {
  [K in keyof T & string]: T[K] extends string ? `${P}${K}` : Leaves<T[K], `${P}${K}.`>;
}[keyof T & string];
/** The key of a text, such as "bench.put". */
export type TextKey = Leaves<Texts>;
/** Gives the text of a key, filled in. */
export type Translate = (key: TextKey, params?: Record<string, string | number>) => string;

const languageOf = (code: string): Language => (code === 'de' ? 'de' : 'en');
const page = typeof document === 'undefined' ? undefined : document.documentElement;
// Outside of pages all are there; a page names what it says, in the attribute that its frame gives it.
const spoken: readonly Language[] = page ? [languageOf(page.lang)] : ['en', 'de'];
const said = page?.dataset.texts?.split(' ') as TextBundle[] | undefined;
const locales = new Map(
  await Promise.all(spoken.map(async (each) => [each, await textsOf(each, said ?? textBundles)] as const)),
);
const localeOf = (language: string): { known: Language; texts: object } => {
  const asked = languageOf(language);
  const [first] = locales;
  const [known, texts] = locales.has(asked) ? [asked, locales.get(asked)] : (first ?? []);
  if (!known || !texts) throw new Error('no language is loaded');
  return { known, texts };
};

const made = new Map<Language, Translate>();

/**
 * The texts of a language: of the page's own in a page, of any on the server, where an unknown one gives
 * English.
 */
export function translator(language: string): Translate {
  const { known, texts } = localeOf(language);
  let t = made.get(known);
  if (!t) {
    const instance = createInstance();
    void instance.init({
      lng: known,
      resources: { [known]: { translation: texts } },
      initAsync: false,
      showSupportNotice: false,
      interpolation: { escapeValue: false },
    });
    t = withKept(instance.t);
    made.set(known, t);
  }
  return t;
}

const mostKept = 5000;

/** A text is looked up and filled in once: a sheet asks for the same few hundreds of times. */
function withKept(look: TFunction): Translate {
  const kept = new Map<string, string>();
  return (key, params) => {
    const asked = params ? `${key} ${JSON.stringify(params)}` : key;
    // What has no unit leaves no gap where it would stand.
    const known =
      kept.get(asked) ??
      (params?.unit === '' ? look(key, params).replace(/ +(?=[.,:;?]|$)/g, '') : look(key, params ?? {}));
    if (kept.size >= mostKept) kept.clear();
    kept.set(asked, known);
    return known;
  };
}

/** Whether a code has a text of its own. */
export function hasText(code: string): code is TextKey {
  const [group = '', ...rest] = code.split('.');
  let at: unknown = (localeOf('en').texts as Record<string, unknown>)[group];
  for (const part of rest)
    at = at !== null && typeof at === 'object' ? (at as Record<string, unknown>)[part] : undefined;
  return typeof at === 'string';
}

/** The text of a model, item or the like in a language, or in whatever language it has. */
export const own = (texts: Readonly<Record<string, string>> | undefined, language: string): string =>
  texts?.[language] ?? texts?.en ?? Object.values(texts ?? {})[0] ?? '';

const germanKeys: Readonly<Record<string, string>> = {
  Ctrl: 'Strg',
  Shift: '⇧',
  Space: 'Leertaste',
  Enter: 'Eingabe',
  Insert: 'Einfg',
  Delete: 'Entf',
  Home: 'Pos1',
  End: 'Ende',
  PgUp: 'Bild ↑',
  PgDn: 'Bild ↓',
};

/** Keys as the keyboards of a language name them: "Ctrl Z" is "Strg Z". */
export const keysIn = (keys: string, language: string): string =>
  language === 'de'
    ? keys
        .split(' ')
        .map((key) => germanKeys[key] ?? key)
        .join(' ')
    : keys;
