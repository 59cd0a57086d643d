import { useEffect, useRef, useState } from 'react';
import { Keyboard, Languages, LogOut, Moon, Sun } from 'lucide-react';
import { Button, Dialog, KeyList, Toaster, say } from '../../ui';
import { ask } from '../api';
import { NewQuote } from '../quotes/NewQuote';
import { Speech, useSpeech } from '../speech';
import { useCommands } from './commands';
import css from './frame.module.css';
import { keysOf } from './keys-of';
import { Find } from './Find';
import { type Place, places } from './places';

interface Props {
  place?: Place | undefined;
  language: string;
  theme: 'light' | 'dark' | 'auto';
  name: string;
  role: 'engineer' | 'manager' | 'director' | 'modeller' | 'dealer';
}

export default function TopBar(props: Props) {
  return (
    <Speech language={props.language}>
      <Bar {...props} />
      <Toaster />
    </Speech>
  );
}

function Bar({ place, language, theme, name, role }: Props) {
  const { t } = useSpeech();
  const [dark, setDark] = useState(theme === 'dark');
  const [keysOpen, setKeysOpen] = useState(false);
  const [newQuote, setNewQuote] = useState(false);
  /** Where the keyboard was before it came here. */
  const from = useRef<HTMLElement>(null);
  const own = places.filter((each) => each.id !== 'orders' || role !== 'dealer');

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement;
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        const at = document.activeElement;
        if (at instanceof HTMLElement && at.id !== 'find') from.current = at;
        document.getElementById('find')?.focus();
      } else if (event.key === '?' && !typing) setKeysOpen(true);
      else if (event.altKey && /^[1-4]$/.test(event.key)) {
        const to = own[Number(event.key) - 1];
        if (to) window.location.assign(to.href);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [own]);

  const setTheme = (next: 'light' | 'dark') => {
    setDark(next === 'dark');
    document.documentElement.dataset.theme = next;
    document.cookie = `theme=${next}; path=/; max-age=31536000; samesite=lax`;
  };
  const setLanguage = async (next: 'en' | 'de') => {
    const answer = await ask('PATCH /me', { input: { language: next } });
    if (answer.ok) window.location.reload();
    else say(t('request.failed'), true);
  };

  useCommands(() => [
    ...(role === 'modeller' ? [] : [{ id: 'new', text: t('newQuote.title'), act: () => setNewQuote(true) }]),
    ...own.map((each, index) => ({
      id: each.id,
      text: t('do.go', { place: t(`place.${each.id}`) }),
      keys: `Alt ${String(index + 1)}`,
      act: () => window.location.assign(each.href),
    })),
    {
      id: 'theme',
      text: t(dark ? 'do.light' : 'do.dark'),
      also: t('frame.theme'),
      act: () => setTheme(dark ? 'light' : 'dark'),
    },
    {
      id: 'language',
      text: t('do.language'),
      also: t('do.languageAlso'),
      act: () => void setLanguage(language === 'de' ? 'en' : 'de'),
    },
    {
      id: 'programs',
      text: t('programs.title'),
      also: 'API',
      act: () => window.location.assign('/programs'),
    },
    { id: 'keys', text: t('keys.title'), keys: '?', act: () => setKeysOpen(true) },
    {
      id: 'signOut',
      text: t('frame.signOut'),
      act: () => document.querySelector<HTMLFormElement>('form[action="/sign-out"]')?.requestSubmit(),
    },
  ]);

  return (
    <header className={css.bar}>
      <a className={css.mark} href="/">
        <svg width="24" height="24" viewBox="0 0 32 32" aria-hidden>
          <path d="M3 5h12v7l5-4v16l-5-4v7H3z" />
          <path d="M29 5H17v3.4l5-4v23.2l-5-4V27h12z" />
        </svg>
        <span className={css.markName}>{t('app.name')}</span>
      </a>
      <nav className={css.places} aria-label={t('frame.main')}>
        {own.map((each) => (
          <a
            key={each.id}
            className={css.place}
            href={each.href}
            aria-current={each.id === place ? 'page' : undefined}
          >
            {t(`place.${each.id}`)}
          </a>
        ))}
      </nav>
      <div className={css.find}>
        <Find from={from} />
      </div>
      <div className={css.tools}>
        <Button
          look="plain"
          onClick={() => setKeysOpen(true)}
          title={`${t('frame.keys')} (?)`}
          aria-label={t('frame.keys')}
        >
          <Keyboard size={16} aria-hidden />
        </Button>
        <Button
          look="plain"
          onClick={() => setTheme(dark ? 'light' : 'dark')}
          title={`${t('frame.theme')}: ${dark ? t('frame.light') : t('frame.dark')}`}
          aria-label={`${t('frame.theme')}: ${dark ? t('frame.light') : t('frame.dark')}`}
        >
          {dark ? <Sun size={16} aria-hidden /> : <Moon size={16} aria-hidden />}
        </Button>
        <Button
          look="plain"
          onClick={() => void setLanguage(language === 'de' ? 'en' : 'de')}
          title={t('frame.language')}
          aria-label={language === 'de' ? 'EN, English' : 'DE, Deutsch'}
        >
          <Languages size={16} aria-hidden />
          {language === 'de' ? 'EN' : 'DE'}
        </Button>
        <form method="post" action="/sign-out">
          <Button look="plain" type="submit" title={t('frame.signOut')} aria-label={t('frame.signOut')}>
            <LogOut size={16} aria-hidden />
          </Button>
        </form>
        <p className={css.person}>
          {name}
          <span className={css.personRole}>{t(`role.${role}`)}</span>
        </p>
      </div>
      <Dialog
        title={t('keys.title')}
        closeText={t('frame.close')}
        open={keysOpen}
        onClose={() => setKeysOpen(false)}
      >
        <KeyList keys={keysOf(place, t, language)} />
      </Dialog>
      <NewQuote open={newQuote} onClose={() => setNewQuote(false)} />
    </header>
  );
}
