import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { translator, type Translate } from '../i18n';

const LanguageContext = createContext('en');

/** Gives everything inside the language of the person. */
export function Speech({ language, children }: { language: string; children: ReactNode }) {
  return <LanguageContext value={language}>{children}</LanguageContext>;
}

/** The texts of the page in its language. */
export function useSpeech(): { t: Translate; language: string } {
  const language = useContext(LanguageContext);
  return useMemo(() => ({ t: translator(language), language }), [language]);
}
