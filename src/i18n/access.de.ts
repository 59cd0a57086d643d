import type { SameTexts } from './same-texts';
import type { accessEn } from './access.en';

/** German texts of signing in. */
export const accessDe: SameTexts<typeof accessEn> = {
  signIn: {
    title: 'Anmelden',
    email: 'E-Mail',
    password: 'Passwort',
    go: 'Anmelden',
    wrong: 'E-Mail und Passwort passen nicht zusammen. Prüfen Sie beides und versuchen Sie es erneut.',
    needed: 'Sie sind nicht angemeldet oder Ihre Sitzung ist abgelaufen. Melden Sie sich neu an.',
    tooMany: 'Zu viele Fehlversuche. Warten Sie {{seconds}} Sekunden und versuchen Sie es erneut.',
    emailMissing: 'Geben Sie Ihre E-Mail ein.',
    passwordMissing: 'Geben Sie Ihr Passwort ein.',
    demo: 'Demo-Anmeldungen',
    demoHint: 'Alle mit dem Passwort „{{password}}“.',
  },
};
