import type { programsEn } from './programs.en';
import type { SameTexts } from './same-texts';

/** German texts of the page for those who write programs. */
export const programsDe: SameTexts<typeof programsEn> = {
  programs: {
    lead: 'Jeder Endpunkt, wer ihn rufen darf, was er nimmt und was er antwortet, so wie der Server es prüft.',
    signIn:
      'Melden Sie sich mit POST /api/session an und senden Sie das Cookie mit, das die Antwort setzt. Was etwas ändert, nimmt einen Idempotency-Key und geschieht einmal, wie oft es auch gesendet wird. Geld, Sätze und Maße sind Dezimalzahlen als Text. Eine Ablehnung hat einen Code, der gleich bleibt, und einen Satz.',
    document: 'Dasselbe als OpenAPI-3.1-Dokument',
    who: 'Wer',
    anyone: 'jeder',
    everybody: 'alle Angemeldeten',
    takes: 'Nimmt',
    reads: 'Liest aus der Adresse',
    answers: 'Antwortet',
    types: 'Was geantwortet wird',
    aFile: 'die Bytes einer Datei',
    optional: 'darf fehlen',
  },
};
