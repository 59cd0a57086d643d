import type { SameTexts } from './same-texts';
import type { deskEn } from './desk.en';

/** German texts of the Desk. */
export const deskDe: SameTexts<typeof deskEn> = {
  desk: {
    more: 'und {{count}} weitere in der Liste der Angebote',
    greeting: 'Guten Tag, {{name}}',
    waiting: 'Wartet auf Sie',
    waitingTeam: 'Wartet auf das Team',
    whose: 'Wessen Angebote',
    mine: 'Alle eigenen',
    team: 'Die des Teams',
    nothingMine:
      'Von Ihren Angeboten wartet keines. Öffnen Sie eines, indem Sie einen Teil des Kundennamens eingeben, oder sehen Sie die des Teams an.',
    nothingHere: 'Hier wartet nichts auf Sie.',
    asked: 'Von Ihnen erbeten',
    askedFor: 'für {{of}}',
    askedLines: '{{count}} Positionen freigeben',
    askedLines_one: 'Eine Position freigeben',
    nothing: 'Noch keine Angebote. Öffnen Sie eines, indem Sie einen Teil des Kundennamens tippen.',
    newQuote: 'Neues Angebot',
    orders: 'Aufträge',
    noOrders: 'Noch keine Aufträge. Ein angenommenes Angebot wird einer.',
    quota: 'Ziel in diesem Jahr',
    won: 'Gewonnen',
    open: 'Offen, zu {{weight}}',
    gap: 'Fehlt',
    of: 'von {{target}}',
    next: {
      fix: '{{count}} Positionen fertigstellen',
      fix_one: 'Eine Position fertigstellen',
      fill: 'Erste Position hinzufügen',
      needed: 'Um Freigabe bitten',
      asked: 'Wartet auf Freigabe',
      send: 'Senden oder annehmen',
      answer: 'Nach der Antwort fragen',
      revise: 'Neue Revision: abgelaufen',
    },
    valid: 'bis {{date}}',
    validWhy: 'Gültig bis {{date}}',
    promised: 'zugesagt {{date}}',
  },
};
