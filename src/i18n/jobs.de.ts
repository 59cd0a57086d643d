import type { jobsEn } from './jobs.en';
import type { SameTexts } from './same-texts';

/** German texts of jobs. */
export const jobsDe: SameTexts<typeof jobsEn> = {
  job: {
    none: 'In diesem Stand gibt es keine.',
    what: 'Arbeit',
    state: 'Stand',
    by: 'Von',
    house: 'das Haus',
    asked: 'Verlangt',
    ended: 'Beendet',
    tries: 'Versuche',
    all: 'Alle',
    begin: 'Jetzt beginnen',
    stop: 'Anhalten',
    stopOf: '{{what}} anhalten',
    again: 'Neu beginnen',
    againOf: '{{what}} neu beginnen',
    stopping: 'hält an',
    next: 'Neuer Versuch {{at}}.',
    at: '{{done}} von {{of}}, {{at}}',
    far: '{{done}} von {{of}}',
    progress: 'Wie weit {{what}} ist',
    missing: 'Diese Arbeit gibt es nicht.',
    over: 'Diese Arbeit ist schon zu Ende.',
    notOver: 'Diese Arbeit ist noch nicht zu Ende.',
    another: 'Dieselbe Arbeit wartet oder läuft schon.',
    lost: 'Der Server, der daran arbeitete, ging beim letzten Versuch verloren.',
    bug: 'Es ging schief: {{bug}}',
    is: {
      waiting: 'wartet',
      running: 'läuft',
      done: 'erledigt',
      failed: 'gescheitert',
      stopped: 'angehalten',
    },
    kind: {
      'audit-file': 'Protokoll als Datei schreiben',
      'house-tidy': 'Wegräumen, was vorbei ist',
      'model-impact': 'Ausrechnen, was ein Entwurf ändern würde',
      'house-facts': 'Listen gegen Preise prüfen',
    },
    came: {
      'audit-file': '{{rows}} Einträge in {{name}}',
      'house-tidy': 'Weggeräumt: {{jobs}} beendete Arbeiten, {{files}} unbenutzte Dateien',
      'model-impact': '{{builds}} Ausführungen angesehen',
      'house-facts': 'Alles, wie die Preise es sagen',
      'house-facts-wrong': '{{wrong}} berichtigt: {{quotes}}',
    },
  },
};
