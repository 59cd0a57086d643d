import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { ChevronDown, Keyboard, Languages, LogOut, Moon, Sun } from 'lucide-react';
import { granted, type Role } from '../../contract/permissions';
import { Button, Dialog, KeyList, Toaster, say } from '../../ui';
import { ask } from '../api';
import { useLive } from '../parts/useLive';
import { NewQuote } from '../quotes/NewQuote';
import { Speech, useSpeech } from '../speech';
import { useCommands } from './commands';
import { Find } from './Find';
import css from './frame.module.css';
import { entriesFor, keysOf, type Entry } from './room';
import { rooms } from './rooms';

interface Props {
  /** The room one is in, by its id. */
  room?: string | undefined;
  language: string;
  theme: 'light' | 'dark' | 'auto';
  name: string;
  role: Role;
}

/** The bar above every room: the rooms, search-or-do, and what a person sets for themselves. */
export default function TopBar(props: Props) {
  return (
    <Speech language={props.language}>
      <Bar {...props} />
      <Toaster />
    </Speech>
  );
}

function Bar({ room, language, theme, name, role }: Props) {
  const { t } = useSpeech();
  const looks = useLooks(theme, language);
  const [keysOpen, setKeysOpen] = useState(false);
  const [newQuote, setNewQuote] = useState(false);
  useLive((word) => {
    if (word === 'gap') return;
    if (word.kind === 'answer') say(t('live.answered'));
    if (word.kind === 'colleague') say(t('live.colleague'));
  });
  /** Where the keyboard was before it came here. */
  const from = useRef<HTMLElement>(null);
  const entries = useMemo(() => entriesFor(rooms, role), [role]);
  const places = useMemo(() => entries.filter(({ shown }) => shown === 'bar'), [entries]);
  useShellKeys(places, from, setKeysOpen);
  useCommands(() => [
    ...(granted[role].includes('quotes')
      ? [{ id: 'new', text: t('newQuote.title'), act: () => setNewQuote(true) }]
      : []),
    ...places.map((each, index) => ({
      id: each.id,
      text: t('do.go', { place: t(each.name) }),
      keys: `Alt ${String(index + 1)}`,
      act: () => window.location.assign(each.href),
    })),
    ...looks.commands,
    ...entries
      .filter(({ shown }) => shown !== 'bar')
      .map(({ id, name: text, also = '', href, shown }) => ({
        id,
        text: shown === 'more' ? t('do.go', { place: t(text) }) : t(text),
        also,
        act: () => window.location.assign(href),
      })),
    { id: 'keys', text: t('keys.title'), keys: '?', act: () => setKeysOpen(true) },
    {
      id: 'signOut',
      text: t('frame.signOut'),
      act: () => document.querySelector<HTMLFormElement>('form[action="/sign-out"]')?.requestSubmit(),
    },
  ]);
  return (
    <header className={css.bar}>
      <a className={css.mark} aria-label={t('app.name')} href="/">
        <svg width="24" height="24" viewBox="0 0 32 32" aria-hidden>
          <path d="M3 5h12v7l5-4v16l-5-4v7H3z" />
          <path d="M29 5H17v3.4l5-4v23.2l-5-4V27h12z" />
        </svg>
        <span className={css.markName}>{t('app.name')}</span>
      </a>
      <nav className={css.places} aria-label={t('frame.main')}>
        {places.map((each) => (
          <a
            key={each.id}
            className={css.place}
            href={each.href}
            aria-current={each.id === room ? 'page' : undefined}
          >
            {t(each.name)}
          </a>
        ))}
        <More entries={entries.filter(({ shown }) => shown === 'more')} room={room} />
      </nav>
      <div className={css.find}>
        <Find from={from} />
      </div>
      <Tools looks={looks} language={language} name={name} role={role} onKeys={() => setKeysOpen(true)} />
      <Dialog
        title={t('keys.title')}
        closeText={t('frame.close')}
        open={keysOpen}
        onClose={() => setKeysOpen(false)}
      >
        <KeyList
          keys={keysOf(
            rooms.find(({ id }) => id === room),
            places.length,
            t,
            language,
          )}
        />
      </Dialog>
      {/* It is there before it is asked for: whoever asks types on at once. */}
      <NewQuote open={newQuote} onClose={() => setNewQuote(false)} />
    </header>
  );
}

/** Places that are gone to less often, beneath a word that opens them; it works before any script does. */
function More({ entries, room }: { entries: readonly (Entry & { id: string })[]; room: string | undefined }) {
  const { t } = useSpeech();
  const box = useRef<HTMLDetailsElement>(null);
  if (entries.length === 0) return null;
  const here = entries.find(({ id }) => id === room);
  const close = (): void => box.current?.removeAttribute('open');
  return (
    <details
      ref={box}
      className={css.more}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) close();
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        close();
        box.current?.querySelector('summary')?.focus();
      }}
    >
      <summary className={css.place} data-here={here !== undefined || undefined}>
        {here ? t(here.name) : t('frame.more')}
        <ChevronDown size={13} aria-hidden />
      </summary>
      <div className={css.moreList}>
        {entries.map((each) => (
          <a key={each.id} href={each.href} aria-current={each.id === room ? 'page' : undefined}>
            {t(each.name)}
          </a>
        ))}
      </div>
    </details>
  );
}

/** Search-or-do, the list of keys, and the places by their numbers. */
function useShellKeys(
  places: readonly Entry[],
  from: RefObject<HTMLElement | null>,
  onKeys: (open: true) => void,
): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement;
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        const at = document.activeElement;
        if (at instanceof HTMLElement && at.id !== 'find') from.current = at;
        document.getElementById('find')?.focus();
      } else if (event.key === '?' && !typing) onKeys(true);
      else if (event.altKey && /^[1-9]$/.test(event.key)) {
        const to = places[Number(event.key) - 1];
        if (to) window.location.assign(to.href);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [places, from, onKeys]);
}

/** Light or dark, English or German, as a person likes it. */
function useLooks(theme: Props['theme'], language: string) {
  const { t } = useSpeech();
  const [dark, setDark] = useState(theme === 'dark');
  const turn = () => {
    const next = dark ? 'light' : 'dark';
    setDark(!dark);
    document.documentElement.dataset.theme = next;
    document.cookie = `theme=${next}; path=/; max-age=31536000; samesite=lax`;
  };
  const speak = async () => {
    const answer = await ask('PATCH /me', { input: { language: language === 'de' ? 'en' : 'de' } });
    if (answer.ok) window.location.reload();
    else say(t('request.failed'), true);
  };
  const commands = [
    { id: 'theme', text: t(dark ? 'do.light' : 'do.dark'), also: t('frame.theme'), act: turn },
    { id: 'language', text: t('do.language'), also: t('do.languageAlso'), act: () => void speak() },
  ];
  return { dark, turn, speak, commands };
}

function Tools({
  looks: { dark, turn, speak },
  language,
  name,
  role,
  onKeys,
}: Pick<Props, 'language' | 'name' | 'role'> & {
  looks: ReturnType<typeof useLooks>;
  onKeys: () => void;
}) {
  const { t } = useSpeech();
  const themed = `${t('frame.theme')}: ${dark ? t('frame.light') : t('frame.dark')}`;
  return (
    <div className={css.tools}>
      <Button look="plain" onClick={onKeys} title={`${t('frame.keys')} (?)`} aria-label={t('frame.keys')}>
        <Keyboard size={16} aria-hidden />
      </Button>
      <Button look="plain" onClick={turn} title={themed} aria-label={themed}>
        {dark ? <Sun size={16} aria-hidden /> : <Moon size={16} aria-hidden />}
      </Button>
      <Button
        look="plain"
        onClick={() => void speak()}
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
  );
}
