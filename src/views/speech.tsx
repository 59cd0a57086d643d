import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { translator, type Translate } from '../i18n';

const LanguageContext = createContext('en');

/** Gives everything inside the language of the person. */
export function Speech({ language, children }: { language: string; children: ReactNode }) {
  return <LanguageContext value={language}>{children}</LanguageContext>;
}

/** A language, and how its texts are said. */
export interface InWords {
  t: Translate;
  language: string;
}

/** The texts of the page in its language. */
export function useSpeech(): InWords {
  const language = useContext(LanguageContext);
  return useMemo(() => ({ t: translator(language), language }), [language]);
}
