import type { SameTexts } from './same-texts';
import type { catalogueEn } from './catalogue.en';

/** German texts of the catalogue. */
export const catalogueDe: SameTexts<typeof catalogueEn> = {
  catalogue: {
    title: 'Katalog',
    families: 'Familien',
    all: 'Alle',
    filters: 'Nach Eigenschaften finden',
    any: 'Beliebig',
    yes: 'Ja',
    no: 'Nein',
    from: 'ab',
    to: 'bis',
    noNumber: 'Das ist keine Zahl.',
    find: 'Im Katalog suchen',
    item: 'Artikel',
    name: 'Name',
    unit: 'Einheit',
    price: 'Preis',
    lead: 'Lieferzeit',
    mass: 'Masse',
    cost: 'Kosten',
    configure: 'Konfigurieren',
    add: 'Hinzufügen',
    noPrice: 'kein Preis in dieser Liste',
    none: 'Kein Artikel hat „{{text}}“. Prüfen Sie die Schreibweise oder wählen Sie eine andere Familie.',
    toQuote: 'Für Angebot',
    pickQuote: 'Angebot wählen',
    added: '{{sku}} steht auf {{number}}.',
    needQuote: 'Wählen Sie das Angebot, für das es ist, oder öffnen Sie ein neues.',
    items: '{{count}} Artikel',
    items_one: 'Ein Artikel',
  },
};
